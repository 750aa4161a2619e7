import type { useHearing } from "./useHearing";
import { levelWords } from "./useMicrophone";

type Props = {
  hearing: ReturnType<typeof useHearing>;
  /** What a microphone will not hear of the drill; empty where it hears all. */
  unheard: string;
  onPads: () => void;
  onMeasure: () => void;
};

/** The loudest that is shown is full scale, the softest this, in dB. */
const SOFTEST = -60;

/** Before it is played: how it stands with what a take is heard by: whether it is there and heard, and what it cannot hear. */
export function HearingLine({ hearing, unheard, onPads, onMeasure }: Props) {
  const { by, midi, microphone, last, setup } = hearing;
  const isNew = setup !== null && (setup.ms === null || setup.is_old);
  const measure = isNew && (
    <button type="button" className="button button-small button-quiet" onClick={onMeasure}>
      {setup.is_old ? "It was measured long ago: measure it again" : "How late is it? Measure it"}
    </button>
  );
  if (by.source === "midi")
    return (
      <p className="text-soft" aria-live="polite">
        {by.standIn !== null
          ? "The stand-in plays the keyboard. "
          : midi.problem ||
            (midi.devices.length === 0
              ? "No MIDI device is connected. Connect one: it is seen at once. Or take the stand-in. "
              : by.device
                ? ""
                : "Choose the device. ")}
        {last ? (
          <>
            Heard: <strong>{last}</strong>.{" "}
          </>
        ) : (
          by.device && !midi.problem && "Play a note to see that it is heard. "
        )}
        {by.standIn === null && by.device && (
          <button type="button" className="button button-small button-quiet" onClick={onPads}>
            Pads and pedals
          </button>
        )}
        {by.device && measure}
      </p>
    );
  if (by.source !== "microphone") return null;
  const { level, problem } = microphone;
  return (
    <div className="text-soft">
      {by.standIn !== null ? (
        <p>The stand-in plays into the microphone.</p>
      ) : problem ? (
        <p role="alert" className="text-care-text font-semibold">
          {problem}
        </p>
      ) : level === null ? (
        <p>Waiting for the microphone: the browser asks whether it may be heard.</p>
      ) : (
        <p className="flex flex-wrap items-center gap-x-3">
          <meter
            className="hearing-level"
            aria-label="level of the microphone, in dB"
            min={SOFTEST}
            max={0}
            value={Math.max(SOFTEST, level)}
          />
          <span>{levelWords(level)}</span>
          <span>A quiet room helps, and headphones keep the click out of it.</span>
          {measure}
        </p>
      )}
      {unheard && <p className="text-care-text font-semibold">{unheard}</p>}
    </div>
  );
}
