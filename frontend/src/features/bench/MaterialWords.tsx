import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";

type Material = Drill["material"];
type ScaleRun = Extract<Material, { kind: "scale_run" }>;
type OneNote = Extract<Material, { kind: "one_note" }>;

const KINDS = [
  { value: "scale_run", label: "the scale of", why: "A run through a scale, over so many octaves." },
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
  },
  one_note: { kind: "one_note", beats: 8 },
};

type Props = { material: Material; choices: Choices; onChange: (material: Material) => void };

/** What is played, in words. */
export function MaterialWords({ material, choices, onChange }: Props) {
  return (
    <>
      <BriefSelect
        label="material"
        field="material.kind"
        value={material.kind}
        choices={KINDS}
        onChange={(kind) => onChange(FRESH[kind as Material["kind"]])}
      />{" "}
      {material.kind === "scale_run" ? (
        <ScaleWords run={material} choices={choices} onChange={onChange} />
      ) : (
        <BeatWords note={material} onChange={onChange} />
      )}
    </>
  );
}

function ScaleWords({
  run,
  choices,
  onChange,
}: {
  run: ScaleRun;
  choices: Choices;
  onChange: (run: ScaleRun) => void;
}) {
  const set = (field: keyof ScaleRun) => (value: string) => onChange({ ...run, [field]: value } as ScaleRun);
  const turns = run.shape === "there_and_back" || run.shape === "back_and_there";
  return (
    <>
      <BriefSelect
        label="tonic"
        field="material.tonic"
        value={run.tonic}
        choices={choices.tonics}
        onChange={set("tonic")}
      />{" "}
      <BriefSelect
        label="scale"
        field="material.scale"
        value={run.scale}
        choices={choices.scales}
        onChange={set("scale")}
      />{" "}
      <BriefSelect
        label="shape"
        field="material.shape"
        value={run.shape}
        choices={choices.shapes}
        onChange={set("shape")}
      />
      ,{" "}
      <BriefSelect
        label="octaves"
        field="material.octaves"
        value={String(run.octaves)}
        choices={choices.octaves}
        onChange={(value) => {
          const named = value === "match" || value === "one_repeated";
          onChange({ ...run, octaves: named ? value : Number(value) });
        }}
      />
      {turns && (
        <>
          ,{" "}
          <BriefSelect
            label="turn-round"
            field="material.top"
            value={run.top}
            choices={choices.tops}
            onChange={set("top")}
          />
        </>
      )}
    </>
  );
}

function BeatWords({ note, onChange }: { note: OneNote; onChange: (note: OneNote) => void }) {
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
      beats a leg
    </>
  );
}

/** A typed whole number; what is not one goes to the server as 0, which refuses it with its sentence. */
export function typedCount(text: string): number {
  return /^\s*\d{1,6}\s*$/.test(text) ? Number(text) : 0;
}
