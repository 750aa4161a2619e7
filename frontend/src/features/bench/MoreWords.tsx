import type { ReactNode } from "react";
import type { Choices, Drill } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { AndMore } from "../../ui/brief/AndMore";
import { BriefField } from "../../ui/brief/BriefField";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { instrumentOf } from "../../ui/instrumentOf";
import { BodyWords, ReduceWords, TagWords, VoiceWords, WayInWords } from "./LayerWords";
import { withPlays } from "./SecondWords";
import { SwingWords } from "./SwingWords";

type Change = (changed: Partial<Drill>, word: string) => void;
type Props = { drill: Drill; choices: Choices; onChange: Change };

/** A part of the brief that is rarely used: how it is offered, whether it is in use, and its words then. */
type Part = {
  offer: string;
  why: string;
  isUsed: (drill: Drill) => boolean;
  /** Whether it makes sense for the instrument; always, unless said. */
  fits?: (drill: Drill, choices: Choices) => boolean;
  start: Partial<Drill> | ((choices: Choices, drill: Drill) => Partial<Drill>);
  /** Its words; a part that has a sentence of its own elsewhere has none here. */
  words?: (props: Props) => ReactNode;
};

const FOLDED = [
  { value: "yes", label: "folded into the range", why: "Notes out of range are moved by octaves." },
  { value: "no", label: "as written", why: "Notes out of range are told." },
];

const REGISTERS = [3, 2, 1, 0, -1, -2, -3].map((octaves) => ({
  value: String(octaves),
  label:
    octaves === 0
      ? "where it lies"
      : `${Math.abs(octaves) === 1 ? "an octave" : `${Math.abs(octaves)} octaves`} ${octaves > 0 ? "higher" : "lower"}`,
  why: octaves === 0 ? "As the instrument has it." : "The same onsets in another register.",
}));

const PARTS: Part[] = [
  {
    offer: "the left hand",
    why: "On keys: the same lower, the other way, a line, a held note or chords, in divisions of its own.",
    isUsed: (drill) => drill.second.plays.kind !== "none",
    fits: (drill, choices) => instrumentOf(drill, choices)?.has_keys ?? false,
    start: (choices, drill) => withPlays(drill, choices, "parallel"),
  },
  {
    offer: "the range of a first year",
    why: "What most method books reach in a year: notes beyond are told.",
    isUsed: (drill) => drill.level !== "full",
    fits: (drill, choices) => instrumentOf(drill, choices)?.has_first_year ?? false,
    start: { level: "first_year" },
    words: ({ drill, choices, onChange }) => (
      <BriefSelect
        label="range"
        field="level"
        value={drill.level}
        choices={choices.levels}
        onChange={(level) => onChange({ level: level as Drill["level"] }, "level")}
      />
    ),
  },
  {
    offer: "swing",
    why: "The first note of each pair is longer.",
    isUsed: (drill) => drill.swing.ratio !== "1",
    start: { swing: { ratio: "2", on: 2 } },
    words: ({ drill, choices, onChange }) => (
      <SwingWords swing={drill.swing} choices={choices} onChange={(swing) => onChange({ swing }, "swing")} />
    ),
  },
  {
    offer: "fingering",
    why: "String and fret by least movement; on keys the usual fingers.",
    isUsed: (drill) => drill.fingering !== "none",
    start: { fingering: "usual" },
    words: ({ drill, choices, onChange }) => (
      <BriefSelect
        label="fingering"
        field="fingering"
        value={drill.fingering}
        choices={choices.fingerings.filter(
          (one) => ["none", "usual"].includes(one.value) || (instrumentOf(drill, choices)?.strings ?? 0) > 0,
        )}
        onChange={(value) => onChange({ fingering: value as Drill["fingering"] }, "fingering")}
      />
    ),
  },
  {
    offer: "other count words",
    why: "Syllables, or your own words for each division.",
    isUsed: (drill) => drill.counting.system !== "numbers",
    start: { counting: { system: "syllables", own: "" } },
    words: (props) => <CountingWords {...props} />,
  },
  {
    offer: "articulation",
    why: "How much of each note sounds.",
    isUsed: (drill) => drill.articulation !== "1",
    start: { articulation: "1/2" },
    words: ({ drill, choices, onChange }) => (
      <>
        notes{" "}
        <BriefSelect
          label="articulation"
          field="articulation"
          value={drill.articulation}
          choices={withOther(choices.articulations, drill.articulation)}
          onChange={(articulation) => onChange({ articulation }, "articulation")}
        />
      </>
    ),
  },
  {
    offer: "a breath",
    why: "How long a breath lasts: from which tempo a pass is one breath, and where to breathe below it.",
    isUsed: (drill) => drill.breath !== "0",
    fits: (drill, choices) => drill.instrument === "any" || (instrumentOf(drill, choices)?.breathes ?? true),
    start: { breath: "10" },
    words: ({ drill, onChange }) => (
      <>
        one breath lasting{" "}
        <AmountField
          label="seconds of a breath"
          field="breath"
          what="number"
          exact={drill.breath}
          hint="Seconds of playing in one comfortable breath; 0 takes it out."
          onChange={(breath) => onChange({ breath }, "breath")}
        />{" "}
        seconds
      </>
    ),
  },
  {
    offer: "a part of it alone",
    why: "The hits, half of it, or one hand: what is left out keeps its time in silence.",
    isUsed: (drill) => drill.reduce.part !== "everything",
    start: { reduce: { part: "hits", hand: "", beats: 1 } },
    words: (props) => <ReduceWords {...props} />,
  },
  {
    offer: "the body",
    why: "A tap, a step or a sway, at a rate of its own.",
    isUsed: (drill) => drill.body.movement !== "none",
    start: { body: { movement: "tap", every: "1" } },
    words: (props) => <BodyWords {...props} />,
  },
  {
    offer: "the voice",
    why: "What is said or sung while the hands play.",
    isUsed: (drill) => drill.voice !== "silent",
    start: { voice: "divisions" },
    words: (props) => <VoiceWords {...props} />,
  },
  {
    offer: "a way in",
    why: "Steps that the stand goes through: listen, say, the hits, halves, everything.",
    isUsed: (drill) => drill.way_in.length > 0,
    start: ({ schools }) => ({ way_in: schools[0]?.steps ?? ["whole"] }),
    words: (props) => <WayInWords {...props} />,
  },
  {
    offer: "tags",
    why: "Words to find it by.",
    isUsed: (drill) => drill.tags.length > 0,
    start: { tags: ["new"] },
    words: (props) => <TagWords {...props} />,
  },
  {
    offer: "another register",
    why: "The same, an octave or more higher or lower.",
    isUsed: (drill) => drill.register !== 0,
    start: { register: 1 },
    words: ({ drill, onChange }) => (
      <BriefSelect
        label="register"
        field="register"
        value={String(drill.register)}
        choices={REGISTERS}
        onChange={(value) => onChange({ register: Number(value) }, "register")}
      />
    ),
  },
  {
    offer: "folding into the range",
    why: "What the instrument does not have is moved by octaves.",
    isUsed: (drill) => drill.folded,
    start: { folded: true },
    words: ({ onChange }) => (
      <BriefSelect
        label="notes out of range"
        field="folded"
        value="yes"
        choices={FOLDED}
        onChange={(value) => onChange({ folded: value === "yes" }, "folded")}
      />
    ),
  },
];

function withOther(choices: Choices["articulations"], value: string) {
  const known = choices.some((one) => one.value === value);
  return known ? choices : [...choices, { value, label: `sounding for ${value} of their length`, why: "" }];
}

/** The words that are said, and those of the teacher's own. */
function CountingWords({ drill, choices, onChange }: Props) {
  const { counting } = drill;
  return (
    <>
      counted{" "}
      <BriefSelect
        label="count words"
        field="counting.system"
        value={counting.system}
        choices={choices.countings}
        onChange={(system) =>
          onChange(
            {
              counting: {
                system: system as typeof counting.system,
                own: system === "own" && !counting.own ? "2: # and; 3: # o la" : counting.own,
              },
            },
            "counting",
          )
        }
      />
      {counting.system === "own" && (
        <>
          {" "}
          <BriefField
            label="your own count words"
            field="counting.own"
            long
            value={counting.own}
            hint="Each division and its words, parted by ;  2: # und; 3: # o la. # is the number of the beat."
            onChange={(own) => onChange({ counting: { ...counting, own } }, "counting")}
          />
        </>
      )}
    </>
  );
}

/** The parts of a brief that are in use, and "and …" for those that are not. */
export function MoreWords(props: Props) {
  const used = PARTS.filter((part) => part.isUsed(props.drill));
  const unused = PARTS.filter(
    (part) => !part.isUsed(props.drill) && (part.fits?.(props.drill, props.choices) ?? true),
  );
  return (
    <>
      {used.map((part) => part.words && <span key={part.offer}>, {part.words(props)}</span>)}
      <AndMore
        label="and more"
        parts={unused}
        onChoose={({ start, offer }) =>
          props.onChange(typeof start === "function" ? start(props.choices, props.drill) : start, offer)
        }
      />
    </>
  );
}
