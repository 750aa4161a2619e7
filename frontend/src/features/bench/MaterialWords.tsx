import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { typedCount } from "../../ui/brief/typedCount";
import { CellWords } from "./CellWords";
import { CountWords } from "./CountWords";
import { LineWords } from "./LineWords";
import { ArpeggioWords, ScaleWords } from "./RunWords";
import { SequenceWords } from "./SequenceWords";
import { StrumWords } from "./StrumWords";

type Material = Drill["material"];
type OneNote = Extract<Material, { kind: "one_note" }>;

const KINDS: { value: Material["kind"]; label: string; why: string }[] = [
  { value: "scale_run", label: "the scale of", why: "A run through a scale, over so many octaves." },
  { value: "arpeggio", label: "the arpeggio of", why: "The tones of a chord, one after the other." },
  {
    value: "sequence",
    label: "a sequence in",
    why: "A figure that steps through a scale, one degree at a time.",
  },
  {
    value: "line",
    label: "the line",
    why: "A phrase of your own, note by note: names, degrees, or rhythm alone.",
  },
  {
    value: "count",
    label: "the rhythm",
    why: "Typed as it is said: 1 & a 2 e & (3) 4 &. What is not said is held.",
  },
  {
    value: "cells",
    label: "the cells",
    why: "Rhythms of one beat, mixed into bars.",
  },
  {
    value: "strum",
    label: "the chords",
    why: "Strummed: a progression under a pattern that is typed as a count.",
  },
  { value: "one_note", label: "one note", why: "One string, one key or a clap: rhythm alone." },
];
const FRESH: Record<Material["kind"], Material> = {
  scale_run: {
    kind: "scale_run",
    tonic: "C",
    scale: "major",
    shape: "there_and_back",
    octaves: 2,
    top: "once",
    start: 1,
    own: "",
  },
  arpeggio: {
    kind: "arpeggio",
    tonic: "C",
    chord: "major_triad",
    shape: "there_and_back",
    octaves: 2,
    top: "once",
  },
  sequence: {
    kind: "sequence",
    tonic: "C",
    scale: "major",
    octaves: 1,
    figure: [0, 2],
    way: "there_and_back",
  },
  count: { kind: "count", text: "1 2 & (3) & 4 &", shift: 0, around: true, under: "" },
  cells: { kind: "cells", text: "1 &; 1 e & a", mix: "all", bars: 8, seed: 1 },
  strum: { kind: "strum", chords: "C | Am | F | G", pattern: "1 2 & (3) & 4 &" },
  line: {
    kind: "line",
    text: "1 2 3 5 4 3",
    tonic: "C",
    rhythm: "legs",
    after: "open",
    shift: "0",
    around: false,
    through: "",
  },
  one_note: { kind: "one_note", beats: 8, say: "count", first: "C" },
};

type Props = { material: Material; choices: Choices; onChange: (material: Material) => void };

/** What is played, in words. A tonic that was chosen goes along to the next kind. */
export function MaterialWords({ material, choices, onChange }: Props) {
  const another = (kind: Material["kind"]): Material => {
    const fresh = FRESH[kind];
    return "tonic" in material && "tonic" in fresh ? { ...fresh, tonic: material.tonic } : fresh;
  };
  return (
    <>
      <BriefSelect
        label="material"
        field="material.kind"
        value={material.kind}
        choices={KINDS}
        onChange={(kind) => onChange(another(kind as Material["kind"]))}
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
      <BriefField
        label="beats a leg"
        field="material.beats"
        numeric
        value={String(note.beats)}
        hint="How many beats each leg lasts."
        onChange={(text) => onChange({ ...note, beats: typedCount(text) })}
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
