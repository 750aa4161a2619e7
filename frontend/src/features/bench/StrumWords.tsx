import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";

type Strum = Extract<Drill["material"], { kind: "strum" }>;
type Props = { strum: Strum; choices: Choices; onChange: (strum: Strum) => void };

/** What the list of ready patterns shows for one that was typed. */
const OWN = "own";

const STEPS = [0, 1, 2, 3, 4].map((step) => ({
  value: String(step),
  label: step === 0 ? "all of it" : `up to step ${step}`,
  why:
    step === 0
      ? "Every stroke of the pattern."
      : "Strokes on the beat first, then what halves it; the rest in the air.",
}));

/** Chords, and the pattern of the arm over them: a ready one, or typed as a count. */
export function StrumWords({ strum, choices, onChange }: Props) {
  // Two patterns take turns where the text has two bars.
  const [first = "", ...others] = strum.pattern.split("|").map((bar) => bar.trim());
  const second = others.length === 1 ? (others[0] ?? "") : "";
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
      <BriefSelect
        label="set of strings"
        field="material.strings"
        value={strum.strings}
        choices={choices.string_sets}
        onChange={(strings) => onChange({ ...strum, strings })}
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
        hint="A bar or more: 1 e & a, trip let; (3) rest, >1 accent, ~1 ghost, x3 damped, | bar line. It begins again by itself."
        onChange={(pattern) => onChange({ ...strum, pattern })}
      />
      , mixed bar by bar with{" "}
      <BriefSelect
        label="second pattern, bar by bar"
        field="material.pattern.second"
        value={second}
        choices={[
          { value: "", label: "nothing else", why: "The same pattern in every bar." },
          ...choices.patterns,
          ...(second && !choices.patterns.some((one) => one.value === second)
            ? [{ value: second, label: "its own", why: "" }]
            : []),
        ]}
        onChange={(other) => onChange({ ...strum, pattern: other ? `${first} | ${other}` : first })}
      />
      ,{" "}
      <BriefSelect
        label="step of the pattern"
        field="material.step"
        value={String(strum.step)}
        choices={STEPS}
        onChange={(step) => onChange({ ...strum, step: Number(step) })}
      />
    </>
  );
}
