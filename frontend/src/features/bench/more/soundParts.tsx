import type { Choices, Drill } from "../../../api/client";
import { AmountField } from "../../../ui/brief/AmountField";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import { instrumentOf } from "../../../ui/instrumentOf";
import { withPlays } from "../SecondWords";
import type { Part } from "./part";

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

/** How notes sound and where they lie, and what is special to the instrument. */
export const SOUND_PARTS: Part[] = [
  {
    offer: "the left hand",
    clause: "hands",
    why: "On keys: the same lower, the other way, a line, a held note or chords, in divisions of its own.",
    isUsed: (drill) => drill.second.plays.kind !== "none",
    fits: (drill, choices) => instrumentOf(drill, choices)?.has_keys ?? false,
    start: (choices, drill) => withPlays(drill, choices, "parallel"),
  },
  {
    offer: "the range of a first year",
    clause: "instrument",
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
    offer: "fingering",
    clause: "hands",
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
    offer: "articulation",
    clause: "sound",
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
    clause: "sound",
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
    offer: "another register",
    clause: "sound",
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
    offer: "low and high by loudness",
    clause: "sound",
    why: "The same onsets, slot by slot in another register: low for soft, high for loud, or the other way.",
    isUsed: (drill) => drill.voicing !== "as_written",
    start: { voicing: "low_soft" },
    words: ({ drill, choices, onChange }) => (
      <BriefSelect
        label="register by loudness"
        field="voicing"
        value={drill.voicing}
        choices={choices.voicings}
        onChange={(voicing) => onChange({ voicing: voicing as Drill["voicing"] }, "voicing")}
      />
    ),
  },
  {
    offer: "folding into the range",
    clause: "sound",
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
