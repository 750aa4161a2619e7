import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";

type Strum = Extract<Drill["material"], { kind: "strum" }>;
type Props = { strum: Strum; choices: Choices; onChange: (strum: Strum) => void };

/** What the list of ready patterns shows for one that was typed. */
const OWN = "own";

/** Chords, and the pattern of the arm over them: a ready one, or typed as a count. */
export function StrumWords({ strum, choices, onChange }: Props) {
  const known = choices.patterns.some((one) => one.value === strum.pattern);
  return (
    <>
      <BriefField
        label="chords"
        field="material.chords"
        long
        value={strum.chords}
        hint="C, Am, F#m7, G/B; | bar line; chords share a bar, or say their beats: C*3 G*1; - goes on."
        onChange={(chords) => onChange({ ...strum, chords })}
      />{" "}
      as{" "}
      <BriefSelect
        label="ready pattern"
        field="material.pattern.ready"
        value={known ? strum.pattern : OWN}
        choices={known ? choices.patterns : [...choices.patterns, { value: OWN, label: "its own", why: "" }]}
        onChange={(pattern) => pattern !== OWN && onChange({ ...strum, pattern })}
      />
      ,{" "}
      <BriefField
        label="pattern as a count"
        field="material.pattern"
        long
        value={strum.pattern}
        hint="A bar or more: 1 e & a, trip let; (3) rest, >1 accent, ~1 ghost, | bar line. It begins again by itself."
        onChange={(pattern) => onChange({ ...strum, pattern })}
      />
    </>
  );
}
