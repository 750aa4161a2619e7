import type { ReactNode } from "react";
import type { Choices, Schemas } from "../../api/client";
import { AndMore } from "../../ui/brief/AndMore";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { barsTo } from "./bars";
import type { Count } from "./count";

type Props = { choices: Choices; count: Count; onCount: (count: Count) => void };

/** A part of the sentence that is rarely used: how it is offered, whether it is in use, and its words then. */
type Part = {
  offer: string;
  why: string;
  isUsed: (count: Count) => boolean;
  start: (count: Count) => Count;
  words: (props: Props) => ReactNode;
};

const SAY_BARS = barsTo(4, "Each division is said aloud, in order, before it is played.");
const PULSE_BARS = barsTo(8);
const SWITCHED = [
  { value: "0", label: "kept to one", why: "It fades, and the student goes on with it." },
  ...[1, 2, 4, 8].map((bars) => ({
    value: String(bars),
    label: `switched every ${bars === 1 ? "bar" : `${bars} bars`}`,
    why: "Middle, large, small in turn, and it goes on: hear how the same notes feel over each.",
  })),
];
const PULSE_PARTS = [
  ["heard", "and soft for "],
  ["soft", "more"],
] as const;

const PARTS: Part[] = [
  {
    offer: "each division said first",
    why: "By voice, before the hands: a bar or more of each division, in order.",
    isUsed: ({ before }) => before.say_bars > 0,
    start: (count) => ({ ...count, before: { ...count.before, say_bars: 1 } }),
    words: ({ count, onCount }) => (
      <>
        each division said first for{" "}
        <BriefSelect
          label="bars in which each division is said"
          field="before.say_bars"
          value={String(count.before.say_bars)}
          choices={SAY_BARS}
          onChange={(bars) => onCount({ ...count, before: { ...count.before, say_bars: Number(bars) } })}
        />
      </>
    ),
  },
  {
    offer: "the last words of the count",
    why: "Ready, go: words in place of the last numbers.",
    isUsed: ({ before }) => before.count_words !== "",
    start: (count) => ({ ...count, before: { ...count.before, count_words: "ready go" } }),
    words: ({ count, onCount }) => (
      <>
        the count ending{" "}
        <BriefField
          label="last words of the count-in"
          field="before.count_words"
          placeholder="in numbers"
          value={count.before.count_words}
          hint="Words for its last beats: ready go. Empty for numbers to the end."
          onChange={(words) => onCount({ ...count, before: { ...count.before, count_words: words } })}
        />
      </>
    ),
  },
  {
    offer: "the inner pulse",
    why: "The beat that the student counts inside, to hear at first.",
    isUsed: ({ pulse }) => pulse !== null,
    start: (count) => ({
      ...count,
      pulse: { school: "middle", heard: 2, soft: 2, middle: "140", switched: 0 },
    }),
    words: (props) => <PulseWords {...props} />,
  },
];

function PulseWords({ choices, count, onCount }: Props) {
  const { pulse } = count;
  if (!pulse) return null;
  return (
    <>
      the inner pulse{" "}
      <BriefSelect
        label="inner pulse"
        field="pulse"
        value={pulse.school}
        choices={[
          { value: "none", label: "kept inside", why: "Nobody hears it but the player." },
          ...choices.pulses,
        ]}
        onChange={(school) =>
          onCount({
            ...count,
            pulse: school === "none" ? null : { ...pulse, school: school as Schemas["Pulse"]["school"] },
          })
        }
      />{" "}
      {pulse.switched === 0 ? "heard " : ""}
      {(pulse.switched === 0 ? PULSE_PARTS : []).map(([part, after]) => (
        <span key={part}>
          <BriefSelect
            label={`bars in which the pulse is ${part}`}
            field={`pulse.${part}`}
            value={String(pulse[part])}
            choices={PULSE_BARS}
            onChange={(bars) => onCount({ ...count, pulse: { ...pulse, [part]: Number(bars) } })}
          />{" "}
          {after}
        </span>
      ))}
      ,{" "}
      <BriefSelect
        label="bars after which the pulse changes"
        field="pulse.switched"
        value={String(pulse.switched)}
        choices={SWITCHED}
        onChange={(bars) => onCount({ ...count, pulse: { ...pulse, switched: Number(bars) } })}
      />
    </>
  );
}

/** The parts of what comes before that are in use, and "and …" for those that are not. */
export function StandMore(props: Props) {
  const used = PARTS.filter((part) => part.isUsed(props.count));
  return (
    <>
      {used.map((part) => (
        <span key={part.offer}>, {part.words(props)}</span>
      ))}
      <AndMore
        label="and more before playing"
        parts={PARTS.filter((part) => !part.isUsed(props.count))}
        onChoose={(part) => props.onCount(part.start(props.count))}
      />
    </>
  );
}
