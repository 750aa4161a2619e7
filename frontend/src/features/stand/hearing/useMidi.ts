import { useEffect, useRef, useState } from "react";
import { hasMidi, Midi, type MidiDevice, type Struck } from "../../../audio/midi";

const UNKNOWN = "This browser knows no MIDI. Another one may; or take taps or the microphone.";
const REFUSED =
  "The browser does not let MIDI in. Allow it beside the address of this page, then choose it again.";

/** MIDI devices while they are chosen: which there are, the one that is listened to, and what it sends. */
export function useMidi(
  chosen: boolean,
  device: string,
  onStruck: (struck: Struck, eventMs: number) => void,
  onGone: (sentence: string) => void,
) {
  const [devices, setDevices] = useState<MidiDevice[]>([]);
  const [problem, setProblem] = useState("");
  const midi = useRef<Midi | null>(null);
  const latest = useRef({ onStruck, onGone, device });
  latest.current = { onStruck, onGone, device };

  useEffect(() => {
    if (!chosen) return;
    if (!hasMidi()) {
      setProblem(UNKNOWN);
      return;
    }
    const opened = new Midi();
    midi.current = opened;
    let isOver = false;
    opened.onStruck = (struck, eventMs) => latest.current.onStruck(struck, eventMs);
    const shown = (found: MidiDevice[]) => {
      setDevices((old) => {
        const { device } = latest.current;
        const was = old.some((one) => one.name === device);
        if (was && !found.some((one) => one.name === device))
          latest.current.onGone(
            `${device} went away. The bars until then are kept. It is heard again when it is back.`,
          );
        return found;
      });
      opened.listen(latest.current.device || null);
    };
    opened.onDevices = shown;
    opened
      .open()
      .then((found) => {
        if (isOver) return;
        setProblem("");
        shown(found);
      })
      .catch(() => !isOver && setProblem(REFUSED));
    return () => {
      isOver = true;
      opened.onDevices = null;
      opened.stop();
      midi.current = null;
      setDevices([]);
      setProblem("");
    };
  }, [chosen]);

  useEffect(() => {
    if (chosen) midi.current?.listen(device || null);
  }, [chosen, device]);

  return { devices, problem };
}
