import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { Seldom } from "./seldom";

type ScaleRun = Extract<Drill["material"], { kind: "scale_run" }>;
type Arpeggio = Extract<Drill["material"], { kind: "arpeggio" }>;

type Unit = "degree" | "tone";

/** What a run from another degree than the first does, there and back. */
const ROUND = "There and back it then goes round as a circle, and closes where it began.";
const INVERTED = "An inversion: from that tone to the same tone higher, and back.";

/** The degrees, or tones of a chord, that a run may start on. */
function degreesOf(degrees: number, start: number, unit: Unit) {
  return Array.from({ length: Math.max(degrees, start) }, (_, index) => ({
    value: String(index + 1),
    label: index === 0 ? "on the tonic" : `on ${unit} ${index + 1}`,
    why: index === 0 ? "" : unit === "degree" ? ROUND : INVERTED,
  }));
}

/** Octaves as a drill has them: a number, or in words. */
function octavesOf(value: string): ScaleRun["octaves"] {
  return value === "match" || value === "one_repeated" || value === "range" ? value : Number(value);
}

type ScaleProps = { run: ScaleRun; choices: Choices; onChange: (run: ScaleRun) => void };

/** A scale run in words. */
export function ScaleWords({ run, choices, onChange }: ScaleProps) {
  const set = (field: keyof ScaleRun) => (value: string) => onChange({ ...run, [field]: value } as ScaleRun);
  return (
    <>
      <Tonic value={run.tonic} choices={choices} onChange={set("tonic")} />{" "}
      <BriefSelect
        label="scale"
        field="material.scale"
        value={run.scale}
        choices={choices.scales}
        onChange={(scale) => {
          const own = scale === "own" && !run.own ? "1 b2 3 4 5 b6 7" : run.own;
          onChange({ ...run, scale, own, start: 1 });
        }}
      />
      {run.scale === "own" && (
        <>
          {" "}
          <BriefField
            label="own steps"
            field="material.own"
            value={run.own}
            hint="Degrees that rise, from 1: 1 b2 3 4 5 b6 7."
            onChange={set("own")}
          />
        </>
      )}
      <SpanWords
        run={run}
        choices={choices}
        degrees={
          choices.scales.find((one) => one.value === run.scale)?.degrees ||
          run.own.split(/\s+/).filter(Boolean).length
        }
        onChange={(changed) => onChange({ ...run, ...changed })}
      />
    </>
  );
}

type ArpeggioProps = { run: Arpeggio; choices: Choices; onChange: (run: Arpeggio) => void };

/** An arpeggio in words. */
export function ArpeggioWords({ run, choices, onChange }: ArpeggioProps) {
  return (
    <>
      <Tonic value={run.tonic} choices={choices} onChange={(tonic) => onChange({ ...run, tonic })} />{" "}
      <BriefSelect
        label="chord"
        field="material.chord"
        value={run.chord}
        choices={choices.chords}
        onChange={(chord) => onChange({ ...run, chord, start: 1 })}
      />
      <SpanWords
        run={run}
        choices={choices}
        degrees={choices.chords.find((one) => one.value === run.chord)?.degrees ?? 0}
        unit="tone"
        onChange={(changed) => onChange({ ...run, ...changed })}
      />
    </>
  );
}

type Span = Pick<ScaleRun, "octaves" | "shape" | "start" | "top">;
type SpanProps = {
  run: ScaleRun | Arpeggio;
  choices: Choices;
  degrees: number;
  unit?: Unit;
  onChange: (changed: Partial<Span>) => void;
};

/** How far a run goes, which way, and, where they are not the usual, where it starts and how it turns. */
function SpanWords({ run, choices, degrees, unit = "degree", onChange }: SpanProps) {
  return (
    <>
      ,{" "}
      <OctavesWord
        value={run.octaves}
        offered={choices.octaves}
        onChange={(octaves) => onChange({ octaves })}
      />
      ,{" "}
      <ShapeWord
        value={run.shape}
        choices={choices}
        onChange={(shape) => onChange({ shape: shape as Span["shape"] })}
      />
      <Seldom name="start note" field="material.start">
        , starting{" "}
        <StartWord
          value={run.start}
          degrees={degrees}
          unit={unit}
          onChange={(start) => onChange({ start })}
        />
      </Seldom>
      <TurnWord run={run} choices={choices} onChange={(top) => onChange({ top: top as Span["top"] })} />
    </>
  );
}

type OctavesProps = {
  value: ScaleRun["octaves"];
  offered: Choices["octaves"];
  onChange: (octaves: ScaleRun["octaves"]) => void;
};

/** How many octaves, as a number or in words. */
export function OctavesWord({ value, offered, onChange }: OctavesProps) {
  return (
    <BriefSelect
      label="octaves"
      field="material.octaves"
      value={String(value)}
      choices={offered}
      onChange={(chosen) => onChange(octavesOf(chosen))}
    />
  );
}

type StartProps = { value: number; degrees: number; unit?: Unit; onChange: (start: number) => void };

/** The degree, or the tone of a chord, that it starts on. */
export function StartWord({ value, degrees, unit = "degree", onChange }: StartProps) {
  return (
    <BriefSelect
      label={`${unit} it starts on`}
      field="material.start"
      value={String(value)}
      choices={degreesOf(degrees, value, unit)}
      onChange={(chosen) => onChange(Number(chosen))}
    />
  );
}

type WordProps = { value: string; choices: Choices; onChange: (value: string) => void };

/** The tonic, or the root, of whatever has one. */
export function Tonic({ value, choices, onChange }: WordProps) {
  return (
    <BriefSelect
      label="tonic"
      field="material.tonic"
      value={value}
      choices={choices.tonics}
      onChange={onChange}
    />
  );
}

type TurnProps = { run: ScaleRun | Arpeggio; choices: Choices; onChange: (top: string) => void };

/** How a run that turns round does so. */
function TurnWord({ run, choices, onChange }: TurnProps) {
  if (run.shape === "up" || run.shape === "down") return null;
  return (
    <Seldom name="turning note" field="material.top">
      ,{" "}
      <BriefSelect
        label="turn-round"
        field="material.top"
        value={run.top}
        choices={choices.tops}
        onChange={onChange}
      />
    </Seldom>
  );
}

/** Which way a run goes. */
function ShapeWord({ value, choices, onChange }: WordProps) {
  return (
    <BriefSelect
      label="shape"
      field="material.shape"
      value={value}
      choices={choices.shapes}
      onChange={onChange}
    />
  );
}
