import { useEffect, useState } from "react";
import { elapsed, type Played, played, rested, startOfPlay } from "./rest";

/** How often it is looked at, in ms: a rest is due to the minute. */
const LOOK = 10_000;

let today: Played = startOfPlay();

/** Whether a rest is due: 5 minutes after 25 of playing, whatever was on the stand meanwhile. */
export function useRest(isPlaying: boolean): boolean {
  const [due, setDue] = useState(false);
  useEffect(() => {
    const look = () => {
      const now = performance.now();
      today = isPlaying ? played(today, now) : rested(today, now);
      setDue(elapsed(today));
    };
    // A stretch begins now: what lies before belongs to the one that was.
    today = { ...today, at: performance.now() };
    const timer = window.setInterval(look, LOOK);
    return () => {
      look();
      window.clearInterval(timer);
    };
  }, [isPlaying]);
  return due;
}
