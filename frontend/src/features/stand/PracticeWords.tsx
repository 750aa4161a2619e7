import type { Choices, Drill, Performance } from "../../api/client";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { CircuitWords } from "./CircuitWords";
import { CompareWords } from "./CompareWords";
import { LayerSteps } from "./LayerSteps";
import { type Practice, partsOf } from "./practice";

type Props = {
  drill: Drill;
  drillId: number;
  version: number;
  bpm: string;
  choices: Choices;
  performance: Performance;
  practice: Practice;
  onPractice: (practice: Practice) => void;
};

const TURNS = [
  { value: "none", label: "together with the stand", why: "The notes sound all the time." },
  { value: "1", label: "in turn, a pass each", why: "The stand plays, then the student alone, in time." },
  { value: "2", label: "in turn, two passes each", why: "The stand plays twice, then the student twice." },
  { value: "4", label: "in turn, four passes each", why: "The stand plays four times, then the student." },
];

/** What is practised of it: a step of the way in, a part that goes round, in turn, before it was moved, hidden. */
export function PracticeWords(props: Props) {
  const { drill, drillId, version, bpm, choices, performance, practice, onPractice } = props;
  const of = { drill, drillId, version, bpm, choices, practice, onPractice };
  const set = (part: Partial<Practice>) => onPractice({ ...practice, ...part });
  const { material } = drill;
  const moved =
    (material.kind === "count" && material.shift !== 0) ||
    (material.kind === "line" && material.shift !== "0");
  return (
    <div className="space-y-2">
      <Steps
        drill={drill}
        choices={choices}
        layers={performance.layers}
        practice={practice}
        onPractice={onPractice}
      />
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <span>Play</span>
        <BriefSelect
          label="part that is played"
          field="reduce"
          value={practice.part}
          choices={partsOf(performance, choices)}
          onChange={(part) => set({ part })}
        />
        <BriefSelect
          label="who plays"
          field="turns"
          value={practice.turns === null ? "none" : String(practice.turns)}
          choices={TURNS}
          onChange={(value) => set({ turns: value === "none" ? null : Number(value) })}
        />
        <span className="-ml-2">. Slow is</span>
        <BriefSelect
          label="the slow tempo of the pair"
          field="slow"
          value={practice.share}
          choices={choices.slows}
          onChange={(share) => set({ share })}
        />
        {moved && (
          <button
            type="button"
            className="button button-small"
            aria-pressed={practice.unmoved}
            onClick={() => set({ unmoved: !practice.unmoved })}
          >
            {practice.unmoved ? "Now as it was: move it again" : "Compare: as it was before"}
          </button>
        )}
        <button
          type="button"
          className="button button-small"
          aria-pressed={practice.beat === "hidden"}
          onClick={() => set({ beat: practice.beat === "hidden" ? "revealed" : "hidden" })}
        >
          {practice.beat === "hidden" ? "Reveal" : "Hide the beat"}
        </button>
        <CompareWords {...of} />
      </p>
      <CircuitWords {...of} />
    </div>
  );
}

type StepsProps = Pick<Props, "drill" | "choices" | "practice" | "onPractice"> & {
  layers: Performance["layers"];
};

/** The way into a drill, step by step, and its layers one by one; nothing where it has neither. */
export function Steps({ drill, choices, layers, practice, onPractice }: StepsProps) {
  const set = (part: Partial<Practice>) => onPractice({ ...practice, ...part });
  const step = choices.steps.find((one) => one.value === practice.step);
  return (
    <>
      {drill.way_in.length > 0 && (
        <ol className="flex flex-wrap items-center gap-2" aria-label="Way in">
          {drill.way_in.map((one, index) => (
            <li key={one}>
              <button
                type="button"
                className="button button-small"
                aria-pressed={practice.step === one}
                aria-current={practice.step === one ? "step" : undefined}
                onClick={() => set({ step: practice.step === one ? null : one })}
              >
                {index + 1} {choices.steps.find((known) => known.value === one)?.label ?? one}
              </button>
            </li>
          ))}
          {step && <li className="text-soft">{step.why}</li>}
        </ol>
      )}
      <LayerSteps layers={layers} now={practice.layers} onChange={(layers) => set({ layers })} />
    </>
  );
}
