import type { Choices, Schemas } from "../../api/client";
import { Brief } from "../../ui/brief/Brief";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { type Click, ClickWords } from "../../ui/brief/ClickWords";
import type { Refused } from "../../ui/brief/context";

/** Bars of listening and counting before, the last words of the count, and passes until it stops (null: until someone stops it). */
export type Count = {
  listen: number;
  count: number;
  words: string;
  passes: number | null;
  /** The inner pulse, if it is to be heard. */
  pulse: Schemas["Pulse"] | null;
};

const BARS = [0, 1, 2, 4, 8].map((bars) => ({
  value: String(bars),
  label: bars === 0 ? "no bar" : bars === 1 ? "1 bar" : `${bars} bars`,
  why: "",
}));
const PULSE_BARS = [
  ["heard", "and soft for "],
  ["soft", "more"],
] as const;
const PASSES = [
  { value: "1", label: "once", why: "One pass, then it is measured." },
  { value: "2", label: "twice", why: "Two passes: enough notes for most verdicts." },
  { value: "4", label: "4 times", why: "For short drills." },
  { value: "8", label: "8 times", why: "For very short drills." },
  { value: "round", label: "until you stop", why: "It goes round; whole bars are measured." },
];

type Props = {
  choices: Choices;
  click: Click;
  onClick: (click: Click) => void;
  /** Why the click, or what comes before, cannot be played. */
  refusal: Refused | null;
  count: Count;
  onCount: (count: Count) => void;
  /** What the take is heard by. */
  source: string;
  onSource: (source: string) => void;
  playing: boolean;
};

function sourcesOf(choices: Choices) {
  return [
    { value: "taps", label: "taps", why: "Tap J and F, or the pad, with each note." },
    { value: "by_ear", label: "your ear", why: "You mark the take yourself: clean or shaky." },
    ...choices.stand_ins.map((one) => ({
      value: one.value,
      label: `the stand-in, ${one.label}`,
      why: "A simulated player in place of a person, to see what a take looks like.",
    })),
  ];
}

/** The click, what comes before the first note, and how often; as a sentence. */
export function StandWords(props: Props) {
  const { choices, click, onClick, count, onCount, playing } = props;
  return (
    <Brief label="Click and count-in" refusal={props.refusal}>
      Click <ClickWords click={click} choices={choices} onChange={onClick} />,{" "}
      {playing ? (
        <>play</>
      ) : (
        <>
          listen{" "}
          <BriefSelect
            label="bars of listening"
            field="listen"
            value={String(count.listen)}
            choices={BARS}
            onChange={(bars) => onCount({ ...count, listen: Number(bars) })}
          />
          , count in{" "}
          <BriefSelect
            label="bars of count-in"
            field="count"
            value={String(count.count)}
            choices={BARS}
            onChange={(bars) => onCount({ ...count, count: Number(bars) })}
          />
          {count.count > 0 && (
            <>
              {" "}
              ending{" "}
              <BriefField
                label="last words of the count-in"
                field="count_words"
                placeholder="in numbers"
                value={count.words}
                hint="Words for its last beats: ready go. Empty for numbers to the end."
                onChange={(words) => onCount({ ...count, words })}
              />
            </>
          )}
          , play
        </>
      )}{" "}
      <BriefSelect
        label="passes"
        field="passes"
        value={count.passes === null ? "round" : String(count.passes)}
        choices={PASSES}
        onChange={(value) => onCount({ ...count, passes: value === "round" ? null : Number(value) })}
      />
      , the inner pulse{" "}
      <BriefSelect
        label="inner pulse"
        field="pulse"
        value={count.pulse?.school ?? "none"}
        choices={[
          { value: "none", label: "kept inside", why: "Nobody hears it but the player." },
          ...choices.pulses,
        ]}
        disabled={playing}
        onChange={(school) =>
          onCount({
            ...count,
            pulse:
              school === "none" ? null : { school: school as Schemas["Pulse"]["school"], heard: 2, soft: 2 },
          })
        }
      />
      {count.pulse && (
        <>
          {" "}
          heard{" "}
          {PULSE_BARS.map(([part, after]) => (
            <span key={part}>
              <BriefSelect
                label={`bars in which the pulse is ${part}`}
                field={`pulse.${part}`}
                value={String(count.pulse?.[part])}
                choices={BARS}
                disabled={playing}
                onChange={(bars) =>
                  count.pulse && onCount({ ...count, pulse: { ...count.pulse, [part]: Number(bars) } })
                }
              />{" "}
              {after}
            </span>
          ))}
        </>
      )}
      , heard by{" "}
      <BriefSelect
        label="heard by"
        field="source"
        value={props.source}
        choices={sourcesOf(choices)}
        disabled={playing}
        onChange={props.onSource}
      />
      .
    </Brief>
  );
}
