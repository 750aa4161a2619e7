import type { Choices, Drill } from "../../api/client";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CountField } from "../../ui/brief/CountField";
import { CellWords } from "./CellWords";
import { CountWords } from "./CountWords";
import { LineWords } from "./LineWords";
import { LongNoteWords } from "./LongNoteWords";
import { ArpeggioWords, ScaleWords } from "./RunWords";
import { SequenceWords } from "./SequenceWords";
import { FingerOrderWords, PickedWords } from "./StringWords";
import { StrumWords } from "./StrumWords";

type Material = Drill["material"];
type OneNote = Extract<Material, { kind: "one_note" }>;

type Props = { material: Material; choices: Choices; onChange: (material: Material) => void };

/** What is played, in words. A tonic that was chosen goes along to the next kind. */
export function MaterialWords({ material, choices, onChange }: Props) {
  const another = (kind: string): Material => {
    const fresh = choices.materials.find((one) => one.value === kind)?.fresh ?? material;
    return "tonic" in material && "tonic" in fresh ? { ...fresh, tonic: material.tonic } : fresh;
  };
  return (
    <>
      <BriefSelect
        label="material"
        field="material.kind"
        value={material.kind}
        choices={choices.materials}
        onChange={(kind) => onChange(another(kind))}
      />{" "}
      <Words material={material} choices={choices} onChange={onChange} />
    </>
  );
}

function Words({ material, choices, onChange }: Props) {
  switch (material.kind) {
    case "scale_run":
      return <ScaleWords run={material} choices={choices} onChange={onChange} />;
    case "arpeggio":
      return <ArpeggioWords run={material} choices={choices} onChange={onChange} />;
    case "sequence":
      return <SequenceWords sequence={material} choices={choices} onChange={onChange} />;
    case "count":
      return <CountWords count={material} onChange={onChange} />;
    case "cells":
      return <CellWords cells={material} choices={choices} onChange={onChange} />;
    case "strum":
      return <StrumWords strum={material} choices={choices} onChange={onChange} />;
    case "line":
      return <LineWords line={material} choices={choices} onChange={onChange} />;
    case "picked":
      return <PickedWords picked={material} choices={choices} onChange={onChange} />;
    case "finger_order":
      return <FingerOrderWords order={material} choices={choices} onChange={onChange} />;
    case "long_notes":
      return <LongNoteWords notes={material} choices={choices} onChange={onChange} />;
    case "one_note":
      return <BeatWords note={material} choices={choices} onChange={onChange} />;
  }
}

type BeatProps = { note: OneNote; choices: Choices; onChange: (note: OneNote) => void };

const LETTERS = [..."ABCDEFG"].map((letter) => ({ value: letter, label: letter, why: "" }));

function BeatWords({ note, choices, onChange }: BeatProps) {
  return (
    <>
      for{" "}
      <CountField
        label="beats a leg"
        field="material.beats"
        value={note.beats}
        onChange={(count) => onChange({ ...note, beats: count })}
      />{" "}
      beats a leg,{" "}
      <BriefSelect
        label="what is said"
        field="material.say"
        value={note.say}
        choices={choices.says}
        onChange={(say) => onChange({ ...note, say: say as OneNote["say"] })}
      />
      {note.say !== "count" && (
        <>
          {" "}
          from{" "}
          <BriefSelect
            label="first letter"
            field="material.first"
            value={note.first}
            choices={LETTERS}
            onChange={(first) => onChange({ ...note, first })}
          />
        </>
      )}
    </>
  );
}
