import type { Choices, Performance } from "../../api/client";
import type { Latency } from "./latency";
import type { Practice } from "./practice";
import { SoundWords } from "./SoundWords";
import type { Sound } from "./sound";
import { TempoByHand } from "./TempoByHand";

type Props = {
  choices: Choices;
  performance: Performance;
  sound: Sound;
  onSound: (sound: Sound) => void;
  bpm: string;
  practice: Practice;
  /** Whether a tempo is typed here: on a climb, where the rungs say it. */
  typed: boolean;
  onTempo: (bpm: string, divide: Practice["divide"]) => void;
  /** Null where taps are not what is heard. */
  latency: { measured: Latency | null; onMeasure: () => void } | null;
  footSwitch: { name: string; onChoose: () => void };
};

/** What is set once and then left alone: sound, tempo by hand, the delay of taps, the foot switch. */
export function StandFolds(props: Props) {
  const { choices, performance, sound, onSound, bpm, practice, typed, onTempo, latency, footSwitch } = props;
  return (
    <div className="stand-folds flex flex-wrap items-baseline gap-x-6">
      <SoundWords sound={sound} choices={choices} figures={performance.reading.click} onSound={onSound} />
      <TempoByHand
        performance={performance}
        bpm={practice.bpm ?? bpm}
        divide={practice.divide}
        typed={typed}
        onChange={onTempo}
      />
      <span className="flex-1" />
      {latency && (
        <button type="button" className="button button-small button-quiet" onClick={latency.onMeasure}>
          {latency.measured ? `Latency ${Math.round(latency.measured.ms)} ms` : "Measure the latency"}
        </button>
      )}
      <button type="button" className="button button-small button-quiet" onClick={footSwitch.onChoose}>
        Foot switch: {footSwitch.name}
      </button>
    </div>
  );
}
