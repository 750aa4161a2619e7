import type { Choices, Drill } from "../../api/client";
import { ChooseFiles, type FilesTaken } from "../../ui/FilesIn";
import { OppositeSwitch } from "../../ui/OppositeSwitch";
import { WrittenWords } from "../../ui/written/WrittenOut";
import { switchName } from "./footSwitch";
import { PracticeWords } from "./PracticeWords";
import type { Practice } from "./practice";
import { SetUp } from "./SetUp";
import { SoundWords } from "./SoundWords";
import { StandWords } from "./StandWords";
import { TempoByHand } from "./TempoByHand";
import type { StandProps, useStandScreen } from "./useStandScreen";

type Props = {
  of: StandProps;
  on: ReturnType<typeof useStandScreen>;
  files: FilesTaken | null;
  /** The sentence of what is set, whole. */
  words: Parameters<typeof StandWords>[0];
};

/** The five parts of what is set up on the stand. */
export function StandSetUp({ of, on, files, words }: Props) {
  const { subject, climb, choices, bpm } = of;
  const { played, practice, setPractice, hearing, sound } = on;
  if (!played) return null;
  const byDevice = hearing.by.source !== "by_ear" && hearing.by.standIn === null;
  return (
    <SetUp
      onClose={() => on.setOpen(null)}
      parts={[
        {
          name: "Click and count",
          said: "Where the click falls, what comes before the first note, and what is said.",
          finds: "count-in voice listen passes inner pulse say metronome bars by meter",
          shows: <StandWords {...words} whole />,
        },
        {
          name: "What is played",
          said: partSaid(practice, choices, subject.drill),
          finds:
            "part loop slow turns call and answer compare hide beat circuit keys way in layers tempo tap half double",
          shows: (
            <>
              <PracticeWords
                drill={subject.drill}
                drillId={subject.drillId}
                version={subject.version}
                bpm={practice.bpm ?? bpm}
                choices={choices}
                performance={played}
                practice={practice}
                onPractice={setPractice}
              />
              <h4 className="font-semibold mt-3">Tempo by hand</h4>
              <TempoByHand
                performance={played}
                bpm={practice.bpm ?? bpm}
                divide={practice.divide}
                typed={climb !== null}
                onChange={on.tempoByHand}
                tapped={on.tapped}
              />
            </>
          ),
        },
        {
          name: "Hearing",
          said: "Which device hears the take, how late it is, and what else can start and stop.",
          finds:
            "latency microphone midi taps stand-in pads pedals foot switch files recordings ear heard by",
          shows: (
            <div className="flex flex-col gap-2 items-start">
              {byDevice && (
                <button type="button" className="button button-small" onClick={() => on.setOver("latency")}>
                  {hearing.setup?.label ? `Latency ${hearing.setup.label}` : "Measure the latency"}
                  {hearing.setup?.is_old && ": measure it again"}
                </button>
              )}
              <button type="button" className="button button-small" onClick={() => on.setOver("switch")}>
                Foot switch: {switchName(on.footSwitch)}
              </button>
              {files && <ChooseFiles take={files.take} />}
            </div>
          ),
        },
        {
          name: "Sound",
          said: "How loud, with which click, and what plays along.",
          finds: "levels volume click timbre backing bass drums chords voice loud soft unmarked",
          shows: (
            <SoundWords
              sound={sound}
              choices={choices}
              figures={played.reading.click}
              onSound={on.changeSound}
            />
          ),
        },
        {
          name: "View",
          said: "Notation or TAB under the rail, where it lies, and from whose side.",
          finds: "written out notes tab neck keys mirror opposite side student",
          shows: (
            <div className="flex flex-col gap-2 items-start">
              <WrittenWords drill={on.written.drill} />
              <OppositeSwitch />
            </div>
          ),
        },
      ]}
    />
  );
}

/** What is played of the drill now, in one sentence. */
function partSaid(practice: Practice, choices: Choices, drill: Drill): string {
  const part = choices.parts.find((one) => one.value === practice.part)?.label;
  if (practice.circuit) return "Turned through a list, one after the other.";
  if (part && practice.part !== "everything") return `${part} of it, at ${practice.bpm ?? drill.bpm} bpm.`;
  return "All of it, or a part, or in turn with the stand; and at which tempo beside the rungs.";
}
