import type { Choices, Drill } from "../../api/client";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import { OctavesWord, StartWord, Tonic } from "./RunWords";

type LongNotes = Extract<Drill["material"], { kind: "long_notes" }>;
type Props = { notes: LongNotes; choices: Choices; onChange: (notes: LongNotes) => void };

/** A scale in long notes, counted inside. */
export function LongNoteWords({ notes, choices, onChange }: Props) {
  const number = (field: "beats" | "rest", label: string, hint: string) => (
    <CountField
      label={label}
      field={`material.${field}`}
      value={notes[field]}
      hint={hint}
      onChange={(count) => onChange({ ...notes, [field]: count })}
    />
  );
  return (
    <>
      <Tonic value={notes.tonic} choices={choices} onChange={(tonic) => onChange({ ...notes, tonic })} />{" "}
      <BriefSelect
        label="scale"
        field="material.scale"
        value={notes.scale}
        choices={choices.scales.filter((one) => one.degrees > 0)}
        onChange={(scale) => onChange({ ...notes, scale, start: 1 })}
      />
      ,{" "}
      <OctavesWord
        value={notes.octaves}
        offered={choices.octaves.filter((one) => /^([1-4]|range)$/.test(one.value))}
        onChange={(octaves) => onChange({ ...notes, octaves: octaves as LongNotes["octaves"] })}
      />{" "}
      starting{" "}
      <StartWord
        value={notes.start}
        degrees={choices.scales.find((one) => one.value === notes.scale)?.degrees ?? 0}
        onChange={(start) => onChange({ ...notes, start })}
      />{" "}
      <BriefSelect
        label="shape"
        field="material.shape"
        value={notes.shape}
        choices={choices.shapes}
        onChange={(shape) => onChange({ ...notes, shape: shape as LongNotes["shape"] })}
      />
      , each {number("beats", "beats of a note", "Counted inside, from 1.")} beats long, then{" "}
      {number("rest", "beats of silence", "To breathe, or to let go; 0 for none.")} of silence
    </>
  );
}
