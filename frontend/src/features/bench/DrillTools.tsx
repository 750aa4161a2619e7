import { useId, useState } from "react";
import type { Choices, Drill } from "../../api/client";
import { typedCount } from "../../ui/brief/typedCount";
import { instrumentOf } from "../../ui/instrumentOf";
import { Problem } from "../../ui/Problem";
import type { Tool, useTool } from "./useTool";

type Props = { drill: Drill; choices: Choices; use: ReturnType<typeof useTool> };

type Named = [Tool["tool"], string];

const FOR_ALL: Named[] = [
  ["double", "Twice as fast"],
  ["halve", "Half as fast"],
  ["mirror", "The other hand leads"],
  ["fill", "Fill what is left"],
];
/** For notes one after the other: what is no line yet is written out as one. */
const FOR_LINES: Named[] = [
  ["backwards", "Backwards"],
  ["trim", "Cut the last note"],
  ["lengthen", "One note more"],
  ["trim_beats", "A note less in each beat"],
  ["grow_beats", "A note more in each beat"],
];
const IN_LINES = ["line", "scale_run", "arpeggio", "sequence", "one_note", "count", "cells"];

/** What can be done to a drill in one press; each can be undone. */
export function DrillTools({ drill, choices, use }: Props) {
  const isLine = IN_LINES.includes(drill.material.kind);
  const instrument = instrumentOf(drill, choices);
  const when = (is: boolean | undefined, tool: Tool["tool"], name: string): Named[] =>
    is ? [[tool, name]] : [];
  const fingers =
    drill.material.kind === "picked" ||
    (drill.hands.kind === "by_order" && drill.hands.cycle.some((one) => /^[pim]′?$/.test(one)));
  const special = [
    ...when(instrument?.breathes, "circuit", "Every articulation in turn"),
    ...when(instrument?.has_break, "crossing", "The crossing of the break alone"),
    ...when(fingers, "mirror_thumb", "Mirror the fingers, the thumb too"),
    ...when(["right", "left"].includes(drill.foot.which), "foot", "The other foot"),
    ...when(drill.meter.includes("|"), "home", "On until the bars come home"),
    ...when(isLine && drill.material.kind !== "line", "write_out", "Write it out as a line"),
  ];
  return (
    <>
      <details className="mt-3">
        <summary className="cursor-pointer text-primary font-semibold">Change it in one press</summary>
        <div className="flex flex-wrap items-center gap-2 mt-2">
          {[...FOR_ALL, ...(isLine ? FOR_LINES : []), ...special].map(([tool, name]) => (
            <button
              key={tool}
              type="button"
              className="button button-small"
              disabled={use.isPending}
              onClick={() => use.mutate({ tool })}
            >
              {name}
            </button>
          ))}
          <Cells onUse={(count, value, beat) => use.mutate({ tool: "cells", count, value, beat })} />
          <Grow onUse={(count, bar) => use.mutate({ tool: "grow", count, bar })} />
          {(isLine || drill.material.kind === "strum") && (
            <Shift onUse={(count) => use.mutate({ tool: "shift", count })} />
          )}
          {instrument && "tonic" in drill.material && (
            <ForPart choices={choices} onUse={(source) => use.mutate({ tool: "part", source })} />
          )}
          {isLine && <Arrive onUse={(bar, beat) => use.mutate({ tool: "arrive", bar, beat })} />}
        </div>
      </details>
      {use.data && use.data.drill === drill && use.data.told.length > 0 && (
        <p role="status" className="mt-2">
          {use.data.told.join(" ")}
        </p>
      )}
      {use.isError && <Problem error={use.error} />}
    </>
  );
}

/** Notes that were written for another, moved into what this instrument reads. */
function ForPart({ choices, onUse }: { choices: Choices; onUse: (source: string) => void }) {
  const [source, setSource] = useState("");
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onUse(source);
      }}
    >
      <button type="submit" className="button button-small">
        Write it for this instrument
      </button>
      <select
        className="field w-auto"
        aria-label="what it was written for"
        value={source}
        onChange={(event) => setSource(event.target.value)}
      >
        <option value="">from notes as they sound</option>
        {choices.instruments.map((one) => (
          <option key={one.value} value={one.value}>
            from {one.label}
          </option>
        ))}
      </select>
    </form>
  );
}

const NOTES = [
  [4, "quarters"],
  [8, "eighths"],
  [16, "sixteenths"],
] as const;

/** A bar that is longer or shorter by some cells, its slots as long as they were. */
function Cells({ onUse }: { onUse: (count: number, value: 4 | 8 | 16, beat: number) => void }) {
  const [sign, setSign] = useState<1 | -1>(-1);
  const [count, setCount] = useState("2");
  const [value, setValue] = useState<4 | 8 | 16>(16);
  const [beat, setBeat] = useState("1");
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onUse(sign * typedCount(count), value, typedCount(beat));
      }}
    >
      <button type="submit" className="button button-small">
        Make the bar
      </button>
      <select
        className="field w-auto"
        aria-label="longer or shorter"
        value={sign}
        onChange={(event) => setSign(event.target.value === "1" ? 1 : -1)}
      >
        <option value={-1}>shorter by</option>
        <option value={1}>longer by</option>
      </select>
      <input
        className="field w-14"
        inputMode="numeric"
        aria-label="how many cells"
        value={count}
        onChange={(event) => setCount(event.target.value)}
      />
      <select
        className="field w-auto"
        aria-label="which cells"
        value={value}
        onChange={(event) => setValue(NOTES.find(([one]) => String(one) === event.target.value)?.[0] ?? 16)}
      >
        {NOTES.map(([one, name]) => (
          <option key={one} value={one}>
            {name}
          </option>
        ))}
      </select>
      <label className="flex items-center gap-1">
        in beat
        <input
          className="field w-14"
          inputMode="numeric"
          value={beat}
          onChange={(event) => setBeat(event.target.value)}
        />
      </label>
    </form>
  );
}

/** Fills between the hits that grow from section to section. */
function Grow({ onUse }: { onUse: (notes: number, sections: number) => void }) {
  const [notes, setNotes] = useState("30");
  const [sections, setSections] = useState("4");
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onUse(typedCount(notes), typedCount(sections));
      }}
    >
      <button type="submit" className="button button-small">
        Let the fills grow
      </button>
      <label className="flex items-center gap-1">
        to
        <input
          className="field w-14"
          inputMode="numeric"
          value={notes}
          onChange={(event) => setNotes(event.target.value)}
        />
        notes
      </label>
      <label className="flex items-center gap-1">
        over
        <input
          className="field w-14"
          inputMode="numeric"
          value={sections}
          onChange={(event) => setSections(event.target.value)}
        />
        sections
      </label>
    </form>
  );
}

/** All of it so many slots later or earlier. */
function Shift({ onUse }: { onUse: (count: number) => void }) {
  const [count, setCount] = useState("1");
  const [sign, setSign] = useState<1 | -1>(1);
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onUse(sign * typedCount(count));
      }}
    >
      <button type="submit" className="button button-small">
        Move it
      </button>
      <input
        className="field w-14"
        inputMode="numeric"
        aria-label="slots it is moved by"
        value={count}
        onChange={(event) => setCount(event.target.value)}
      />
      <select
        className="field w-auto"
        aria-label="later or earlier"
        value={sign}
        onChange={(event) => setSign(event.target.value === "1" ? 1 : -1)}
      >
        <option value={1}>slots later</option>
        <option value={-1}>slots earlier</option>
      </select>
    </form>
  );
}

/** The line starts so late that what follows it falls on a beat. */
function Arrive({ onUse }: { onUse: (bar: number, beat: number) => void }) {
  const [bar, setBar] = useState("2");
  const [beat, setBeat] = useState("1");
  const names = useId();
  const field = (name: string, value: string, set: (text: string) => void) => (
    <label htmlFor={`${names}-${name}`} className="flex items-center gap-1">
      {name}
      <input
        id={`${names}-${name}`}
        className="field w-16"
        inputMode="numeric"
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </label>
  );
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onUse(typedCount(bar), typedCount(beat));
      }}
    >
      <button type="submit" className="button button-small">
        Let it arrive on
      </button>
      {field("bar", bar, setBar)}
      {field("beat", beat, setBeat)}
    </form>
  );
}
