import { useEffect, useMemo, useRef } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { takeOffered } from "../../ui/offered";

type Actions = {
  toggle: () => void;
  isPlaying: boolean;
  tap: (eventMs: number, key: string) => void;
  slower: () => void;
  faster: () => void;
  mute: () => void;
  large: () => void;
  slow: () => void;
  compare: () => void;
};

/** The keys of the stand. Space on a focused control is that control’s own, except to stop. */
export function useStandKeys(actions: Actions): void {
  const latest = useRef(actions);
  latest.current = actions;
  const onControl = (event: KeyboardEvent) =>
    event.target instanceof HTMLElement && event.target.closest("button, a, summary, select") !== null;
  useHotkeys(
    "space",
    (event) => {
      if (event.repeat || (onControl(event) && !latest.current.isPlaying)) return;
      event.preventDefault();
      latest.current.toggle();
    },
    { enableOnFormTags: ["SELECT"] },
  );
  useHotkeys("esc", () => latest.current.isPlaying && latest.current.toggle());
  useHotkeys("[", () => latest.current.slower(), { useKey: true });
  useHotkeys("]", () => latest.current.faster(), { useKey: true });
  useHotkeys("m", () => latest.current.mute());
  useHotkeys("l", () => latest.current.large());
  useHotkeys("s", () => latest.current.slow());
  useHotkeys("c", () => latest.current.compare());
  useHotkeys("enter", (event) => {
    if (!onControl(event)) takeOffered();
  });
  // Taps are taken in the capturing phase: nothing may stand between the key and its time stamp.
  const tap = useMemo(
    () => (event: KeyboardEvent) => {
      const inField =
        event.target instanceof HTMLElement && event.target.closest("input, select, textarea, dialog");
      if (event.repeat || inField || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.toLowerCase() === "j" || event.key.toLowerCase() === "f")
        latest.current.tap(event.timeStamp, event.key.toLowerCase());
    },
    [],
  );
  useEffect(() => {
    window.addEventListener("keydown", tap, true);
    return () => window.removeEventListener("keydown", tap, true);
  }, [tap]);
}
