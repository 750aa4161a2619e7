import { useCallback, useState } from "react";

/** The newest of what the server knows; while a take is under way, what it was when that began. */
export function useStill<T>(now: T, isBusy: boolean): T {
  const [still, setStill] = useState(now);
  if (!isBusy && still !== now) setStill(now);
  return isBusy ? still : now;
}

/**
 * What stands on the stand keeps its version until someone takes a newer one, and all of itself while a take of it is
 * under way, whatever the server knows by now.
 */
export function useHeld<T extends { version: number }>(found: T | undefined) {
  const [held, setHeld] = useState(found);
  const [isBusy, setBusy] = useState(false);
  const isNewer = held !== undefined && found !== undefined && found.version !== held.version;
  if (found !== undefined && found !== held && !isBusy && !isNewer) setHeld(found);
  const take = useCallback(() => setHeld(found), [found]);
  return {
    held: held ?? found,
    newer: isNewer && !isBusy ? { version: found.version, take } : null,
    isBusy,
    setBusy,
  };
}
