import { useEffect } from "react";

/** Keeps the screen awake while something plays; where the browser cannot, nothing is lost but that. */
export function useAwake(playing: boolean): void {
  useEffect(() => {
    if (!playing || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    navigator.wakeLock.request("screen").then(
      (granted) => {
        lock = granted;
        if (over) void granted.release();
      },
      () => {},
    );
    return () => {
      over = true;
      void lock?.release();
    };
  }, [playing]);
}
