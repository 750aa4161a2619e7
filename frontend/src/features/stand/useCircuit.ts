import { useEffect, useRef } from "react";
import { keepPlace } from "./CircuitWords";
import type { Practice } from "./practice";
import type { Moment } from "./runs";

/** Goes on to the next station of a circuit in the last bar of its passes, so that it takes over at the bar line. */
export function useCircuit(
  drillId: number,
  practice: Practice,
  onPractice: (practice: Practice) => void,
  { phase, bar, pass, since }: Moment,
  bars: number,
  passes: number,
): void {
  const latest = useRef({ practice, onPractice });
  latest.current = { practice, onPractice };
  // One that was asked for sounds from the next bar line on: while the old one still goes round, nothing more is.
  const askedIn = useRef<number | null>(null);
  const isLast = phase === "play" && bars > 0 && bar === bars && pass >= passes;
  useEffect(() => {
    if (!isLast || askedIn.current === since) return;
    const { practice: now, onPractice: change } = latest.current;
    if (!now.circuit) return;
    askedIn.current = since;
    const next = { ...now.circuit, at: (now.circuit.at + 1) % now.circuit.stations.length };
    keepPlace(drillId, next);
    change({ ...now, circuit: next });
  }, [isLast, since, drillId]);
}
