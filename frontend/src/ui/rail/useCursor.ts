import { type KeyboardEvent, useMemo, useState } from "react";
import type { Folded } from "./fold";

/** Going from event to event with the arrow keys: which one is in hand, and its words for someone who listens. */
export function useCursor(
  rows: readonly Folded[],
  onPress: ((event: number) => void) | undefined,
  /** What else a key does with the place in hand: C for the click. */
  keys: Readonly<Record<string, ((event: number) => void) | undefined>>,
) {
  const [at, setAt] = useState<number | null>(null);
  // While nothing is in hand, nobody asks what could be.
  const events = useMemo(() => (at === null ? [] : eventsOf(rows)), [rows, at]);
  const place = events.findIndex((event) => event.number === at);
  const onKeyDown = (key: KeyboardEvent) => {
    if (key.ctrlKey || key.metaKey || key.altKey) return;
    const all = at === null ? eventsOf(rows) : events;
    const to = target(key.key, place, all.length - 1);
    const pressed = key.key === "Enter" || key.key === " " ? onPress : keys[key.key];
    const presses = at !== null && pressed;
    if (to === null && !presses) return;
    key.preventDefault();
    key.stopPropagation();
    if (to !== null) setAt(all[to]?.number ?? null);
    else if (presses) presses(at);
  };
  const { words = "", line = 0, x = 0 } = events[place] ?? {};
  return { at, words, line, x, onKeyDown, leave: () => setAt(null) };
}

/** All events in the order in which the keys go through them. */
function eventsOf(rows: readonly Folded[]) {
  return rows.flatMap(({ row }, line) => {
    const of = (hand: string, from: number) => (event: Folded["row"]["events"][number], index: number) => ({
      number: from + index,
      line,
      x: event.x,
      words: `bar ${row.bar}${hand}: ${event.words}`,
    });
    if (row.other.length === 0) return row.events.map(of("", row.first));
    // Both hands in the order of time, the right one first where they meet.
    return [
      ...row.events.map(of(", right hand", row.first)),
      ...row.other.map(of(", left hand", row.other_first)),
    ].sort((one, other) => one.x - other.x);
  });
}

/** The place that a key leads to; null where it leads nowhere. */
function target(key: string, place: number, last: number): number | null {
  switch (key) {
    case "ArrowRight":
      return Math.min(last, place + 1);
    case "ArrowLeft":
      return Math.max(0, place - 1);
    case "Home":
      return 0;
    case "End":
      return last;
    default:
      return null;
  }
}
