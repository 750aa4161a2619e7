import { useEffect, useMemo, useRef } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { takeOffered } from "../../ui/offered";
import { useLetters, useLettersOn } from "../../ui/useLetters";

type Actions = {
  toggle: () => void;
  isPlaying: boolean;
  tap: (eventMs: number, key: string) => void;
  slower: () => void;
  faster: () => void;
  setUp: () => void;
  mute: () => void;
  large: () => void;
  slow: () => void;
  compare: () => void;
};

const FIELDS = "input, select, textarea, dialog";
const isIn = (what: string, { target }: Event) =>
  target instanceof HTMLElement && target.closest(what) !== null;

/** The keys of the stand. Space starts and stops wherever the focus is, except in a field or a dialog. */
export function useStandKeys(actions: Actions): void {
  const latest = useRef(actions);
  latest.current = actions;
  const [letters] = useLettersOn();
  useEffect(() => {
    // In the capturing phase: a button in hand would be pressed by it too, one browser by its going down, another by
    // its coming up.
    const space = (event: KeyboardEvent) => {
      // Playing, it stops from a list too: nothing has to be chosen in that moment.
      const isField = isIn(latest.current.isPlaying ? FIELDS.replace("select, ", "") : FIELDS, event);
      if (event.key !== " " || isField || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      event.stopPropagation();
      if (event.type === "keydown" && !event.repeat) latest.current.toggle();
    };
    window.addEventListener("keydown", space, true);
    window.addEventListener("keyup", space, true);
    return () => {
      window.removeEventListener("keydown", space, true);
      window.removeEventListener("keyup", space, true);
    };
  }, []);
  useHotkeys("esc", () => {
    if (latest.current.isPlaying && !document.querySelector("dialog[open]")) latest.current.toggle();
  });
  useLetters("[", () => latest.current.slower(), { useKey: true });
  useLetters("]", () => latest.current.faster(), { useKey: true });
  useLetters("o", () => latest.current.setUp(), { preventDefault: true });
  useLetters("m", () => latest.current.mute());
  useLetters("l", () => latest.current.large());
  useLetters("s", () => latest.current.slow());
  useLetters("c", () => latest.current.compare());
  useHotkeys("enter", (event) => {
    if (!isIn("button, a, summary, select", event)) takeOffered();
  });
  // Taps are taken in the capturing phase: nothing may stand between the key and its time stamp.
  const tap = useMemo(
    () => (event: KeyboardEvent) => {
      if (event.repeat || isIn(FIELDS, event) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.toLowerCase() === "j" || event.key.toLowerCase() === "f")
        latest.current.tap(event.timeStamp, event.key.toLowerCase());
    },
    [],
  );
  useEffect(() => {
    if (!letters) return;
    window.addEventListener("keydown", tap, true);
    return () => window.removeEventListener("keydown", tap, true);
  }, [tap, letters]);
}
