import type { Choices, Drill, Performance, Schemas } from "../../api/client";
import { typedCount } from "../../ui/brief/typedCount";

/** What is practised of a drill, short of all of it. */
export type Practice = {
  step: Drill["way_in"][number] | null;
  /** "whole", "bars 2 3" or "seam 0": as the select holds it. */
  loop: string;
  unmoved: boolean;
  turns: number | null;
  /** A part of it alone, the rest in silence. */
  part: string;
  /** A share of the tempo, while the slow one of a pair is played; which share it is, is kept. */
  slow: boolean;
  share: string;
  /** Twice or half the notes per beat, so that at half or double the tempo the speed stays. */
  divide: "twice" | "half" | null;
  /** A tempo tried on a climb that is none of its rungs. */
  bpm: string | null;
  /** Neither click nor rail: where is beat 1? Then revealed, until it is stopped. */
  beat: "shown" | "hidden" | "revealed";
};

export const ALL_OF_IT: Practice = {
  step: null,
  loop: "whole",
  unmoved: false,
  turns: null,
  part: "everything",
  slow: false,
  share: "2/3",
  divide: null,
  bpm: null,
  beat: "shown",
};

/** The part as the server takes it: “hand R” is one hand alone; null plays what the drill says. */
export function reduceOf(part: string): Schemas["PerformanceBody"]["reduce"] {
  if (part === "everything") return null;
  const [kind, hand = ""] = part.split(" ");
  return { part: kind as Schemas["Reduce"]["part"], hand };
}

/** Parts that can be played alone. */
export function partsOf({ hands }: Performance, choices: Choices) {
  return [
    ...choices.parts.filter((one) => one.value !== "hand"),
    ...hands.map((hand) => ({
      value: `hand ${hand}`,
      label: `${hand} alone`,
      why: "The other one rests, and its notes keep their places.",
    })),
  ];
}

/** The loop as the server takes it. */
export function loopOf(loop: string): Schemas["PerformanceBody"]["loop"] {
  const [kind, first, last] = loop.split(" ");
  if (kind === "bars") return { kind, first: typedCount(first ?? ""), last: typedCount(last ?? "") };
  if (kind === "seam") return { kind, seam: Number(first) };
  return null;
}

/** Loops to choose from: all of it, the seams between legs, or bars, of which one says the first and the last. */
export function loopsOf({ bars, seams }: Performance) {
  return [
    { value: "whole", label: "all of it", why: "From the first note to the last." },
    ...seams.map((name, index) => ({
      value: `seam ${index}`,
      label: name,
      why: "The change alone, with the beat on either side.",
    })),
    ...(bars > 1
      ? [{ value: "bars", label: "the bars", why: "From one bar to another, round and round." }]
      : []),
  ];
}
