import { useContext, useState } from "react";
import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { BriefContext } from "../../ui/brief/context";
import { OctavesWord, StartWord, Tonic } from "./RunWords";

type Sequence = Extract<Drill["material"], { kind: "sequence" }>;

const OWN = {
  value: "own",
  label: "your own figure",
  why: "Degrees from where the figure starts, 0 being that note: 0 2 1.",
};

const TURNS = [
  {
    value: "twice",
    label: "the figure at the turn twice",
    why: "Up and its mirror down: each figure has its answer.",
  },
  { value: "once", label: "the figure at the turn once", why: "No figure comes twice in a row." },
];

type Props = { sequence: Sequence; choices: Choices; onChange: (sequence: Sequence) => void };

/** A sequence in words. */
export function SequenceWords({ sequence, choices, onChange }: Props) {
  const { refuse } = useContext(BriefContext);
  const figure = sequence.figure.join(" ");
  const isReady = choices.figures.some((one) => one.value === figure);
  const [wantsOwn, setWantsOwn] = useState(!isReady);
  const own = wantsOwn || !isReady;
  const offered = choices.octaves.filter((one) => !/^([5-9]|range)$/.test(one.value));
  const set = (field: keyof Sequence) => (value: string) =>
    onChange({ ...sequence, [field]: value } as Sequence);
  const type = (text: string) => {
    const words = text.split(/\s+/).filter((word) => word);
    const unknown = words.find((word) => !/^-?\d{1,2}$/.test(word));
    refuse(
      "material.figure",
      unknown ? `“${unknown}” is not a degree of a figure. Write numbers with spaces: 0 2 1.` : null,
    );
    if (!unknown) onChange({ ...sequence, figure: words.map(Number) });
  };
  return (
    <>
      <Tonic value={sequence.tonic} choices={choices} onChange={set("tonic")} />{" "}
      <BriefSelect
        label="scale or chord"
        field="material.scale"
        value={sequence.scale}
        choices={choices.tone_sets}
        onChange={set("scale")}
      />{" "}
      over{" "}
      <OctavesWord
        value={sequence.octaves}
        offered={offered}
        onChange={(octaves) => onChange({ ...sequence, octaves: octaves as Sequence["octaves"] })}
      />{" "}
      in{" "}
      <BriefSelect
        label="figure"
        field="material.figure"
        value={own ? "own" : figure}
        choices={[...choices.figures, OWN]}
        onChange={(value) => {
          setWantsOwn(value === "own");
          if (value !== "own") onChange({ ...sequence, figure: value.split(" ").map(Number) });
        }}
      />{" "}
      {own && (
        <>
          <BriefField
            label="your own figure"
            field="material.figure"
            value={figure}
            hint={OWN.why}
            onChange={type}
          />{" "}
        </>
      )}
      <BriefSelect
        label="way"
        field="material.way"
        value={sequence.way}
        choices={choices.ways}
        onChange={set("way")}
      />
      , starting{" "}
      <StartWord
        value={sequence.start}
        degrees={choices.tone_sets.find((one) => one.value === sequence.scale)?.degrees ?? 0}
        onChange={(start) => onChange({ ...sequence, start })}
      />
      {sequence.way === "there_and_back" && (
        <>
          ,{" "}
          <BriefSelect
            label="turn-round"
            field="material.top"
            value={sequence.top}
            choices={TURNS}
            onChange={set("top")}
          />
        </>
      )}
    </>
  );
}
