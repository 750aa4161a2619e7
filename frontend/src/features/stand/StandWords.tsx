import type { Choices } from "../../api/client";
import { Brief } from "../../ui/brief/Brief";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { type Click, ClickWords } from "../../ui/brief/ClickWords";
import { CountField } from "../../ui/brief/CountField";
import type { Refused } from "../../ui/brief/context";
import { barsTo } from "./bars";
import type { Count } from "./count";
import { HeardByWords } from "./hearing/HeardByWords";
import type { HeardBy } from "./hearing/heardBy";
import { StandMore } from "./StandMore";
import type { Sound } from "./sound";

const BARS = barsTo(8);
const COUNTS = [
  ...BARS,
  { value: "beats", label: "some beats", why: "Two beats in 4/4 are “three four”: they lead to the 1." },
];
const PASSES = [
  { value: "1", label: "once", why: "One pass, then it is measured." },
  { value: "2", label: "twice", why: "Two passes: enough notes for most verdicts." },
  { value: "4", label: "4 times", why: "For short drills." },
  { value: "8", label: "8 times", why: "For very short drills." },
  { value: "round", label: "until you stop", why: "It goes round; whole bars are measured." },
];
const SILENT = { value: "silent", label: "is silent", why: "The count-in is clicked and shown, not spoken." };

/** The usual numbers of passes, and the one that is asked for now. */
const passesTo = (passes: number | null) =>
  passes === null || PASSES.some((one) => one.value === String(passes))
    ? PASSES
    : [
        ...PASSES.slice(0, -1),
        { value: String(passes), label: `${passes} times`, why: "As many as settle the word." },
        ...PASSES.slice(-1),
      ];

type Props = {
  choices: Choices;
  click: Click;
  onClick: (click: Click) => void;
  /** Why the click, or what comes before, cannot be played. */
  refusal: Refused | null;
  count: Count;
  onCount: (count: Count) => void;
  sound: Sound;
  onSound: (sound: Sound) => void;
  /** What the take is heard by, and the devices that there are for it. */
  by: HeardBy;
  devices: readonly string[];
  onBy: (by: HeardBy) => void;
  playing: boolean;
  /** All of it, for the drawer; else what is changed most. */
  whole?: boolean;
};

/** The click, what comes before the first note, what is said, and how often; as a sentence. */
export function StandWords(props: Props) {
  const { choices, click, onClick, count, onCount, playing, whole = false } = props;
  return (
    <Brief label="Click and count-in" refusal={props.refusal}>
      Click <ClickWords click={click} choices={choices} onChange={onClick} />, <Before {...props} />, play{" "}
      <BriefSelect
        label="passes"
        field="passes"
        value={count.passes === null ? "round" : String(count.passes)}
        choices={passesTo(count.passes)}
        onChange={(value) => onCount({ ...count, passes: value === "round" ? null : Number(value) })}
      />
      {whole && (
        <>
          , the voice <VoiceWords {...props} />
        </>
      )}
      , heard by{" "}
      <HeardByWords
        by={props.by}
        devices={props.devices}
        choices={choices}
        disabled={playing}
        onChange={props.onBy}
      />
      {whole && !playing && <StandMore choices={choices} count={count} onCount={onCount} />}.
    </Brief>
  );
}

/** Bars of listening and what one does meanwhile; bars or beats of count-in. */
function Before({ choices, count, onCount, whole }: Props) {
  const { before } = count;
  const set = (part: Partial<Count["before"]>) => onCount({ ...count, before: { ...before, ...part } });
  return (
    <>
      listen{" "}
      <BriefSelect
        label="bars of listening"
        field="before.listen_bars"
        value={String(before.listen_bars)}
        choices={BARS}
        onChange={(bars) => set({ listen_bars: Number(bars) })}
      />
      {whole && before.listen_bars > 0 && (
        <>
          {" "}
          <BriefSelect
            label="while listening"
            field="meanwhile"
            value={count.meanwhile}
            choices={choices.meanwhile}
            onChange={(meanwhile) => onCount({ ...count, meanwhile })}
          />
        </>
      )}
      , count in{" "}
      <BriefSelect
        label="bars of count-in"
        field="before.count_bars"
        value={before.count_beats > 0 ? "beats" : String(before.count_bars)}
        choices={COUNTS}
        onChange={(value) =>
          set(
            value === "beats"
              ? { count_bars: 0, count_beats: 2 }
              : { count_bars: Number(value), count_beats: 0 },
          )
        }
      />
      {before.count_beats > 0 && (
        <>
          :{" "}
          <CountField
            label="beats of count-in"
            field="before.count_beats"
            value={before.count_beats}
            hint="1 to 32 beats before the 1."
            onChange={(count) => set({ count_beats: count })}
          />
        </>
      )}
    </>
  );
}

/** What the voice says: nothing, the count-in, or what is counted or played as well. */
function VoiceWords({ choices, sound, onSound }: Props) {
  const { what, words } = sound.spoken;
  return (
    <>
      <BriefSelect
        label="what the voice says"
        field="spoken.what"
        value={sound.aloud ? what : SILENT.value}
        choices={[SILENT, ...choices.spoken]}
        onChange={(value) =>
          onSound(
            value === SILENT.value
              ? { ...sound, aloud: false, spoken: { what: "nothing", words } }
              : { ...sound, aloud: true, spoken: { what: value as typeof what, words } },
          )
        }
      />
      {what !== "nothing" && (
        <>
          {" "}
          <BriefSelect
            label="words that the voice says"
            field="spoken.words"
            value={words}
            choices={choices.spoken_words}
            onChange={(value) => onSound({ ...sound, spoken: { what, words: value as typeof words } })}
          />
        </>
      )}
    </>
  );
}
