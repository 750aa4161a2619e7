import type { Choices, Performance, Setup } from "../../api/client";
import { OppositeSwitch } from "../../ui/OppositeSwitch";
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
  /** Null where nothing is measured by a device. */
  latency: { setup: Setup | null; onMeasure: () => void } | null;
  footSwitch: { name: string; onChoose: () => void };
};

/** What is set once and then left alone: sound, tempo by hand, how late the set-up is, the foot switch. */
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
      <OppositeSwitch />
      <span className="flex-1" />
      {latency && (
        <button type="button" className="button button-small button-quiet" onClick={latency.onMeasure}>
          {latency.setup?.label ? `Latency ${latency.setup.label}` : "Measure the latency"}
          {latency.setup?.is_old && ": measure it again"}
        </button>
      )}
      <button type="button" className="button button-small button-quiet" onClick={footSwitch.onChoose}>
        Foot switch: {footSwitch.name}
      </button>
    </div>
  );
}
