import type { ReactNode } from "react";
import type { Choices, Drill } from "../../api/client";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { Divisions } from "./Divisions";
import { Line } from "./Line";

type Second = Drill["second"];
type Plays = Second["plays"];
type Props = {
  drill: Drill;
  choices: Choices;
  /** What the teacher has to know of it. */
  warnings: ReactNode;
  onChange: (changed: Partial<Drill>, word: string) => void;
};

const RHYTHMS = [
  { value: "same", label: "in the same rhythm", why: "Both hands strike together." },
  {
    value: "own",
    label: "in divisions of its own",
    why: "n against m: the hands share beats, and not notes.",
  },
];

/** The left hand, in a sentence of its own; nothing where one hand plays. */
export function SecondWords({ drill, choices, warnings, onChange }: Props) {
  const { second } = drill;
  if (second.plays.kind === "none") return null;
  const set = (part: Partial<Second>, word: string) =>
    onChange({ second: { ...second, ...part } }, `second ${word}`);
  const follows = second.plays.kind === "parallel" || second.plays.kind === "contrary";
  const own = second.legs.length > 0;
  return (
    <Line name="left hand" warnings={warnings}>
      <BriefSelect
        label="what the left hand plays"
        field="second.plays.kind"
        value={second.plays.kind}
        choices={choices.plays}
        onChange={(kind) => onChange(withPlays(drill, choices, kind), "second plays")}
      />{" "}
      <PlaysWords plays={second.plays} choices={choices} onChange={(plays) => set({ plays }, "plays")} />,{" "}
      {follows && (
        <>
          <BriefSelect
            label="rhythm of the left hand"
            field="second.rhythm"
            value={own ? "own" : "same"}
            choices={RHYTHMS}
            onChange={(value) => set({ legs: value === "own" ? [FRESH] : [] }, "legs")}
          />
          {own && ": "}
        </>
      )}
      {(own || !follows) && (
        <>
          <Divisions
            legs={own ? second.legs : [{ division: "1", following: [] }]}
            divisions={choices.divisions}
            what="divisions of the left hand"
            field="second.legs"
            onChange={(legs) => set({ legs }, "legs")}
          />{" "}
          notes per beat
        </>
      )}
      ,{" "}
      <BriefSelect
        label="loudness of the left hand"
        field="second.balance"
        value={second.balance}
        choices={choices.balances}
        onChange={(balance) => set({ balance: balance as Second["balance"] }, "balance")}
      />
      , notes{" "}
      <BriefSelect
        label="articulation of the left hand"
        field="second.articulation"
        value={second.articulation}
        choices={choices.articulations}
        onChange={(articulation) => set({ articulation }, "articulation")}
      />
      , accent{" "}
      <BriefSelect
        label="accents of the left hand"
        field="second.accents.kind"
        value={second.accents.kind}
        choices={choices.accents}
        onChange={(kind) =>
          set(
            { accents: choices.accents.find((one) => one.value === kind)?.fresh ?? second.accents },
            "accents",
          )
        }
      />
      {own && (
        <>
          ; both together are said{" "}
          <BriefField
            label="words for both hands together"
            field="second.phrase"
            value={second.phrase}
            placeholder="in count words"
            hint="A syllable for each stroke of both: three a-gainst two."
            onChange={(phrase) => set({ phrase }, "phrase")}
          />
        </>
      )}
      .
    </Line>
  );
}

const FRESH = { division: "2", following: [] };

/** A drill whose left hand plays something else; steps that need two hands go where it rests. */
export function withPlays(drill: Drill, choices: Choices, kind: string): Partial<Drill> {
  const plays = choices.plays.find((one) => one.value === kind)?.fresh ?? drill.second.plays;
  const second = { ...drill.second, plays };
  if (kind !== "none") return { second };
  const isForTwo = (step: string) => choices.two_hand_steps.some((one) => one === step);
  return {
    second: { ...second, legs: [], phrase: "" },
    way_in: drill.way_in.filter((step) => !isForTwo(step)),
    reduce: drill.reduce.part === "everything" ? drill.reduce : { part: "everything", hand: "", beats: 1 },
  };
}

type PlaysProps = { plays: Plays; choices: Choices; onChange: (plays: Plays) => void };

function PlaysWords({ plays, choices, onChange }: PlaysProps) {
  switch (plays.kind) {
    case "none":
      return null;
    case "parallel":
      return (
        <BriefSelect
          label="interval of the left hand"
          field="second.plays.interval"
          value={plays.interval}
          choices={choices.intervals}
          onChange={(interval) => onChange({ ...plays, interval: interval as typeof plays.interval })}
        />
      );
    case "contrary":
      return (
        <>
          from{" "}
          <BriefSelect
            label="where the left hand begins"
            field="second.plays.start"
            value={plays.start}
            choices={choices.contrary_starts}
            onChange={(start) => onChange({ ...plays, start: start as typeof plays.start })}
          />
        </>
      );
    case "line":
      return (
        <>
          <BriefField
            label="line of the left hand"
            field="second.plays.text"
            long
            value={plays.text}
            hint="C3 G3 E3, or degrees 1 5 3; r rests, *2 lasts two slots, >5 accent."
            onChange={(text) => onChange({ ...plays, text })}
          />{" "}
          on{" "}
          <BriefSelect
            label="tonic of the left hand"
            field="second.plays.tonic"
            value={plays.tonic}
            choices={choices.tonics}
            onChange={(tonic) => onChange({ ...plays, tonic })}
          />
        </>
      );
    case "one_key":
      return (
        <>
          <BriefField
            label="note of the left hand"
            field="second.plays.note"
            value={plays.note}
            placeholder="a tap"
            hint="A note with its octave, C3; empty for a tap without pitch."
            onChange={(note) => onChange({ ...plays, note: note.trim() })}
          />
          ,{" "}
          <BriefSelect
            label="how long it is held"
            field="second.plays.hold"
            value={plays.hold}
            choices={choices.holds}
            onChange={(hold) => onChange({ ...plays, hold: hold as typeof plays.hold })}
          />
        </>
      );
    case "chords":
      return (
        <>
          <BriefField
            label="chords of the left hand"
            field="second.plays.chords"
            long
            value={plays.chords}
            hint="C, Am, F#m7, G/B; | bar line; chords share a bar, or say their beats: C*3 G*1."
            onChange={(chords) => onChange({ ...plays, chords })}
          />{" "}
          <BriefSelect
            label="how the chords are played"
            field="second.plays.figure"
            value={plays.figure}
            choices={choices.broken}
            onChange={(figure) => onChange({ ...plays, figure: figure as typeof plays.figure })}
          />
        </>
      );
  }
}
