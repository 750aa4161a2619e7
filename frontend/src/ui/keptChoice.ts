import { useSyncExternalStore } from "react";
import { keep, kept } from "./kept";

/** A hook for one choice that the whole browser shares: kept here, and the same wherever it is shown. */
export function keptChoice<T>(name: string, usual: T): () => [T, (chosen: T) => void] {
  const listeners = new Set<() => void>();
  let now: { chosen: T } | null = null;
  const read = () => {
    now ??= { chosen: kept<T>(name) ?? usual };
    return now.chosen;
  };
  const set = (chosen: T) => {
    now = { chosen };
    keep(name, chosen);
    for (const listener of listeners) listener();
  };
  const listen = (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };
  return () => [useSyncExternalStore(listen, read), set];
}
