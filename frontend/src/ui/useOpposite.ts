import { useSyncExternalStore } from "react";
import { keep, kept } from "./kept";

const listeners = new Set<() => void>();
let isOpposite: boolean | null = null;

const now = () => {
  isOpposite ??= kept<boolean>("opposite") ?? false;
  return isOpposite;
};

/** Whether pictures are shown from the student's side, as in a mirror; one choice for the whole browser. */
export function useOpposite(): [boolean, (opposite: boolean) => void] {
  const shown = useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, now);
  const set = (opposite: boolean) => {
    isOpposite = opposite;
    keep("opposite", opposite);
    for (const listener of listeners) listener();
  };
  return [shown, set];
}
