import { useState } from "react";
import type { Choices, Drill } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { ENDS } from "./CountWords";

type Line = Extract<Drill["material"], { kind: "line" }>;
type Props = { line: Line; choices: Choices; onChange: (line: Line) => void };

const THROUGH = [
  { value: "no", label: "without chords", why: "It stays on its tonic." },
  {
    value: "yes",
    label: "through the chords",
    why: "A statement on each chord, moved from root to root and folded into the range.",
  },
];

/** A phrase that was typed or read from a file, in words. */
export function LineWords({ line, choices, onChange }: Props) {
  const [wantsChords, setWantsChords] = useState(line.through !== "");
  const through = wantsChords || line.through !== "";
  const pick = (field: "rhythm" | "after" | "tonic") => (value: string) =>
    onChange({ ...line, [field]: value } as Line);
  return (
    <>
      <BriefField
        label="notes of the line"
        field="material.text"
        long
        value={line.text}
        hint="E4, F#4; degrees 1 b3 5'; x a clap, r a rest; *2 lasts two; >1 accent, ~1 ghost; (5) silenced, /5 cut out."
        onChange={(text) => onChange({ ...line, text })}
      />{" "}
      on{" "}
      <BriefSelect
        label="tonic"
        field="material.tonic"
        value={line.tonic}
        choices={choices.tonics}
        onChange={pick("tonic")}
      />
      ,{" "}
      <BriefSelect
        label="rhythm of the line"
        field="material.rhythm"
        value={line.rhythm}
        choices={choices.rhythms}
        onChange={pick("rhythm")}
      />
      ,{" "}
      <BriefSelect
        label="chords it goes through"
        field="material.through.used"
        value={through ? "yes" : "no"}
        choices={THROUGH}
        onChange={(value) => {
          setWantsChords(value === "yes");
          onChange({ ...line, through: value === "yes" ? line.through || "C | F | G | C" : "" });
        }}
      />
      {through ? (
        <>
          {" "}
          <BriefField
            label="chords"
            field="material.through"
            long
            value={line.through}
            hint="C, Am, F#m7, G/B; | bar line; chords share a bar, or say their beats: C*3 G*1; - goes on."
            onChange={(text) => onChange({ ...line, through: text })}
          />
          ,{" "}
          <BriefSelect
            label="what becomes of its notes on each chord"
            field="material.fit"
            value={line.fit}
            choices={choices.fits}
            onChange={(fit) => onChange({ ...line, fit: fit as Line["fit"] })}
          />
        </>
      ) : (
        <>
          ,{" "}
          <BriefSelect
            label="what happens when it is over"
            field="material.after"
            value={line.after}
            choices={choices.afters}
            onChange={pick("after")}
          />
        </>
      )}
      , moved{" "}
      <AmountField
        label={line.rhythm === "legs" ? "slots it is moved by" : "beats it is moved by"}
        field="material.shift"
        what="number"
        exact={line.shift}
        hint="2 for later, -1 for earlier; 0 leaves it."
        onChange={(shift) => onChange({ ...line, shift, stage_shifts: [] })}
      />{" "}
      {line.rhythm === "legs" ? "slots" : "beats"}
      {line.stage_shifts.length > 0 && <>, in the later stages by {line.stage_shifts.join(", ")}</>}
      {line.shift !== "0" && (
        <>
          {" "}
          <BriefSelect
            label="what happens at the end"
            field="material.around"
            value={line.around ? "around" : "over"}
            choices={ENDS}
            onChange={(value) => onChange({ ...line, around: value === "around" })}
          />
        </>
      )}
    </>
  );
}
