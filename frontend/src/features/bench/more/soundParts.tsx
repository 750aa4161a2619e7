import type { Choices, Drill } from "../../../api/client";
import { AmountField } from "../../../ui/brief/AmountField";
import { BriefField } from "../../../ui/brief/BriefField";
import { BriefSelect } from "../../../ui/brief/BriefSelect";
import { CountField } from "../../../ui/brief/CountField";
import { instrumentOf } from "../../../ui/instrumentOf";
import { withPlays } from "../SecondWords";
import type { Part } from "./part";

const FOLDED = [
  { value: "yes", label: "folded into the range", why: "Notes out of range are moved by octaves." },
  { value: "no", label: "as written", why: "Notes out of range are told." },
];

/** Where the first finger of a position stands. */
const FRETS = Array.from({ length: 20 }, (_, fret) => ({
  value: String(fret),
  label: fret === 0 ? "where the hand finds it" : `the first finger at fret ${fret}`,
  why: "",
}));

/** The strings that the lowest note of a position may lie on. */
const stringsOf = (count: number) =>
  Array.from({ length: count + 1 }, (_, string) => ({
    value: String(string),
    label: string === 0 ? "any string" : `string ${string}`,
    why: "",
  }));

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
    offer: "a place on the neck",
    clause: "hands",
    why: "A position by the fret of the first finger, or by the string of its lowest note.",
    isUsed: (drill) => drill.place.fret > 0 || drill.place.string > 0,
    fits: (drill, choices) => (instrumentOf(drill, choices)?.strings ?? 0) > 0,
    start: { fingering: "position", place: { fret: 5, string: 0 } },
    words: ({ drill, choices, onChange }) => (
      <>
        <BriefSelect
          label="fret of the first finger"
          field="place.fret"
          value={String(drill.place.fret)}
          choices={FRETS}
          onChange={(fret) => onChange({ place: { ...drill.place, fret: Number(fret) } }, "place")}
        />
        , the lowest note on{" "}
        <BriefSelect
          label="string of the lowest note"
          field="place.string"
          value={String(drill.place.string)}
          choices={stringsOf(instrumentOf(drill, choices)?.strings ?? 6)}
          onChange={(string) => onChange({ place: { ...drill.place, string: Number(string) } }, "place")}
        />
      </>
    ),
  },
  {
    offer: "fingers of your own",
    clause: "hands",
    why: "Written over the notes of a pass; or press a note for each.",
    isUsed: (drill) => drill.fingers !== "" || drill.second.fingers !== "",
    fits: (drill, choices) => {
      const instrument = instrumentOf(drill, choices);
      return (instrument?.strings ?? 0) > 0 || (instrument?.has_keys ?? false);
    },
    start: { fingers: "1" },
    words: ({ drill, onChange }) => (
      <>
        your own fingers{" "}
        <BriefField
          label="fingers of your own"
          field="fingers"
          long
          value={drill.fingers}
          placeholder="1 2 3 1"
          hint="A finger a note, - leaves one as it is; on strings the place too: 5:3/2 is string 5, fret 3, finger 2."
          onChange={(fingers) => onChange({ fingers }, "fingers")}
        />
        {drill.second.plays.kind !== "none" && (
          <>
            , in the left hand{" "}
            <BriefField
              label="fingers of the left hand"
              field="second.fingers"
              long
              value={drill.second.fingers}
              placeholder="5 4 3 2 1"
              hint="A finger a note, - leaves one as it is."
              onChange={(fingers) => onChange({ second: { ...drill.second, fingers } }, "second")}
            />
          </>
        )}
      </>
    ),
  },
  {
    offer: "a capo",
    clause: "instrument",
    why: "Gripped and written as before, and it sounds higher.",
    isUsed: (drill) => drill.capo > 0,
    fits: (drill, choices) => (instrumentOf(drill, choices)?.strings ?? 0) > 0,
    start: { capo: 2 },
    words: ({ drill, onChange }) => (
      <>
        with a capo at fret{" "}
        <CountField
          label="fret of the capo"
          field="capo"
          value={drill.capo}
          hint="1 to 12; 0 takes it off."
          onChange={(capo) => onChange({ capo }, "capo")}
        />
      </>
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
    start: (choices, drill) => ({ breath: String(instrumentOf(drill, choices)?.breath || 10) }),
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
    offer: "phrases",
    clause: "sound",
    why: "Where each phrase begins: one breathes there first.",
    isUsed: (drill) => drill.phrases !== "",
    start: { phrases: "3 5 7" },
    words: ({ drill, onChange }) => (
      <>
        phrases begin in bars{" "}
        <BriefField
          label="where phrases begin"
          field="phrases"
          value={drill.phrases}
          placeholder="3 5 7"
          hint="Their bars, 3 5 7; or bar and beat, 3:2. A press on the rail marks one too."
          onChange={(phrases) => onChange({ phrases }, "phrases")}
        />
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
