import { useEffect, useMemo, useRef } from "react";
import { keep, kept } from "../../ui/kept";

const KEY = "switch";
/** What most page-turning foot switches send. */
const USUAL = "PageDown";
/** A press that lasts so long takes the offered step, in ms. */
const HELD_MS = 700;

export const keptSwitch = (): string => kept<string>(KEY, true) ?? USUAL;
export const keepSwitch = (key: string): void => void keep(KEY, key);

/** How a key is called on the screen. */
export const switchName = (key: string): string =>
  key === " " ? "Space" : key.replace(/(?<=[a-z])(?=[A-Z])/g, " ");

type Actions = { toggle: () => void; offered: () => void };

/** A foot switch that sends a key: a short press starts and stops, a long one takes the offered step. */
export function useFootSwitch(key: string, actions: Actions): void {
  const latest = useRef(actions);
  latest.current = actions;
  const down = useRef<number | null>(null);
  const handle = useMemo(
    () => (event: KeyboardEvent) => {
      const inField =
        event.target instanceof HTMLElement && event.target.closest("input, textarea, dialog") !== null;
      if (event.key !== key || inField || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      if (event.type === "keydown") {
        if (!event.repeat) down.current = event.timeStamp;
        return;
      }
      if (down.current === null) return;
      const held = event.timeStamp - down.current;
      down.current = null;
      if (held >= HELD_MS) latest.current.offered();
      else latest.current.toggle();
    },
    [key],
  );
  useEffect(() => {
    // Space has its own place among the keys of the stand.
    if (key === " ") return;
    window.addEventListener("keydown", handle, true);
    window.addEventListener("keyup", handle, true);
    return () => {
      window.removeEventListener("keydown", handle, true);
      window.removeEventListener("keyup", handle, true);
    };
  }, [key, handle]);
}
