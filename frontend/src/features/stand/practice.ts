import type { Drill, Performance, Schemas } from "../../api/client";

/** What is practised of a drill, short of all of it. */
export type Practice = {
  step: Drill["way_in"][number] | null;
  /** "whole", "bars 2 3" or "seam 0": as the select holds it. */
  loop: string;
  unmoved: boolean;
  turns: number | null;
  /** Twice or half the notes per beat, so that at half or double the tempo the speed stays. */
  divide: "twice" | "half" | null;
  /** Neither click nor rail: where is beat 1? Then revealed, until it is stopped. */
  beat: "shown" | "hidden" | "revealed";
};

export const ALL_OF_IT: Practice = {
  step: null,
  loop: "whole",
  unmoved: false,
  turns: null,
  divide: null,
  beat: "shown",
};

/** The loop as the server takes it. */
export function loopOf(loop: string): Schemas["PerformanceBody"]["loop"] {
  const [kind, first, last] = loop.split(" ");
  if (kind === "bars") return { kind, first: Number(first), last: Number(last) };
  if (kind === "seam") return { kind, seam: Number(first) };
  return null;
}

/** Loops to choose from: single bars, pairs of bars, and the seams between legs. */
export function loopsOf({ bars, seams }: Performance) {
  const numbers = Array.from({ length: Math.min(bars, 64) }, (_, index) => index + 1);
  return [
    { value: "whole", label: "all of it", why: "From the first note to the last." },
    ...seams.map((name, index) => ({
      value: `seam ${index}`,
      label: name,
      why: "The change alone, with the beat on either side.",
    })),
    ...(bars > 1 ? numbers : []).map((bar) => ({
      value: `bars ${bar} ${bar}`,
      label: `bar ${bar}`,
      why: "One bar, round and round.",
    })),
    ...(bars > 2 ? numbers.slice(0, -1) : []).map((bar) => ({
      value: `bars ${bar} ${bar + 1}`,
      label: `bars ${bar} and ${bar + 1}`,
      why: "Two bars, and the line between them.",
    })),
  ];
}
