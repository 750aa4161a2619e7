import { useEffect, useRef, useState } from "react";
import type { Setup } from "../../../api/client";
import { Midi, type Struck } from "../../../audio/midi";
import { pitchName } from "../../../audio/pitchName";
import { Dialog } from "../../../ui/Dialog";

type Props = {
  device: string;
  pads: Setup["pads"];
  /** Symbols of the hand row of the drill. */
  strokes: readonly string[];
  onKeep: (pads: Setup["pads"]) => Promise<void>;
  onClose: () => void;
};

const PRESSES = [
  { does: "start", name: "Start and stop" },
  { does: "offered", name: "Take the offered step" },
];
const nameOf = (place: string): string =>
  place.startsWith("c") ? `pedal ${place.slice(1)}` : pitchName(Number(place));
const placeOf = (struck: Struck): string | null =>
  struck.kind === "on"
    ? String(struck.note)
    : struck.kind === "pedal" && struck.isDown
      ? `c${struck.control}`
      : null;

/** Learns what each pad or pedal of a MIDI device stands for, by striking it. */
export function Pads({ device, pads, strokes, onKeep, onClose }: Props) {
  const [learning, setLearning] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const latest = useRef({ pads, learning, onKeep });
  latest.current = { pads, learning, onKeep };
  useEffect(() => {
    const midi = new Midi();
    midi.onStruck = (struck) => {
      const { pads, learning, onKeep } = latest.current;
      const place = placeOf(struck);
      if (!place || !learning) return;
      const others = Object.entries(pads).filter(
        ([one, does]) => one !== place && (does !== learning || strokes.includes(does)),
      );
      setLearning(null);
      onKeep({ ...Object.fromEntries(others), [place]: learning }).catch((error: Error) =>
        setProblem(error.message),
      );
    };
    void midi.open().then(() => midi.listen(device));
    return () => midi.stop();
  }, [device, strokes]);
  const rows = [...strokes.map((does) => ({ does, name: `Stroke ${does}` })), ...PRESSES];
  return (
    <Dialog title={`Pads and pedals of ${device}`} onClose={onClose}>
      <p className="mb-3">
        Press “Learn”, then strike the pad or step on the pedal. Without this, pads are learnt from what is
        played.
      </p>
      <ul className="grid gap-2">
        {rows.map(({ does, name }) => {
          const own = Object.entries(pads).filter(([, one]) => one === does);
          return (
            <li key={does} className="flex flex-wrap items-center gap-3">
              <strong className="min-w-48">{name}</strong>
              <span>{own.map(([place]) => nameOf(place)).join(", ") || "not learnt"}</span>
              <button
                type="button"
                className="button button-small"
                aria-label={`Learn: ${name}`}
                onClick={() => setLearning(does)}
              >
                {learning === does ? "Strike it now …" : "Learn"}
              </button>
              {own.length > 0 && (
                <button
                  type="button"
                  className="button button-small button-quiet"
                  aria-label={`Forget: ${name}`}
                  onClick={() =>
                    void onKeep(Object.fromEntries(Object.entries(pads).filter(([, one]) => one !== does)))
                  }
                >
                  Forget
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {problem && (
        <p role="alert" className="text-error mt-2">
          {problem}
        </p>
      )}
    </Dialog>
  );
}
