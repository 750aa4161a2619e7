import type { useHearing } from "./useHearing";
import { levelWords } from "./useMicrophone";

type Props = {
  hearing: ReturnType<typeof useHearing>;
  /** What a microphone will not hear of the drill; empty where it hears all. */
  unheard: string;
  playing: boolean;
  onPads: () => void;
};

/** The loudest that is shown is full scale, the softest this, in dB. */
const SOFTEST = -60;

/** How it stands with what a take is heard by: whether it is there and heard, and what it cannot hear. */
export function HearingLine({ hearing, unheard, playing, onPads }: Props) {
  const { by, midi, microphone, last } = hearing;
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
        {by.standIn === null && by.device && !playing && (
          <button type="button" className="button button-small button-quiet" onClick={onPads}>
            Pads and pedals
          </button>
        )}
      </p>
    );
  if (by.source !== "microphone") return null;
  const { level, problem } = microphone;
  return (
    <div className="text-soft">
      {by.standIn !== null ? (
        <p>The stand-in plays into the microphone.</p>
      ) : problem ? (
        <p role="alert">{problem}</p>
      ) : level === null ? (
        <p>Waiting for the microphone: the browser asks whether it may be heard.</p>
      ) : (
        <p className="flex flex-wrap items-center gap-x-3">
          <meter
            className="hearing-level"
            aria-label="level of the microphone, in dB"
            min={SOFTEST}
            max={0}
            low={-45}
            high={-1}
            optimum={-12}
            value={Math.max(SOFTEST, level)}
          />
          <span>{levelWords(level)}</span>
          {!playing && <span>A quiet room helps, and headphones keep the click out of it.</span>}
        </p>
      )}
      {unheard && <p className="text-care-text font-semibold">{unheard}</p>}
    </div>
  );
}
