import type { Choices, Drill, KeptRemedy, Part, Performance, Schemas } from "../../api/client";
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
  /** The remedy that is practised: it brings its own drill and part. */
  remedy: KeptRemedy | null;
  /** A share of the tempo, while the slow one of a pair is played; which share it is, is kept. */
  slow: boolean;
  share: string;
  /** Twice or half the notes per beat, so that at half or double the tempo the speed stays. */
  divide: "twice" | "half" | null;
  /** A tempo tried on a climb that is none of its rungs. */
  bpm: string | null;
  /** All of it in one division, tried beside the rungs. */
  only: string | null;
  /** Neither click nor rail: where is beat 1? Then revealed, until it is stopped. */
  beat: "shown" | "hidden" | "revealed";
  /** Only the first so many layers, in the order in which they enter; null for all. */
  layers: number | null;
  /** Another drill that it is heard against, what differs in sentences, and whether that one is heard now. */
  against: { name: string; drill: Drill; told: string[]; isHeard: boolean } | null;
  /** What it is turned through, one after the other, and at which of them it is. */
  circuit: Circuit | null;
};

/** A drill turned through a list: its stations, how long once through takes, and at which one it is. */
export type Circuit = Schemas["CircuitShape"] & { turned: Schemas["CircuitBody"]["turned"]; at: number };

export const ALL_OF_IT: Practice = {
  step: null,
  loop: "whole",
  unmoved: false,
  turns: null,
  part: "everything",
  remedy: null,
  slow: false,
  share: "2/3",
  divide: null,
  bpm: null,
  only: null,
  beat: "shown",
  layers: null,
  against: null,
  circuit: null,
};

/** What is practised as the server takes it. */
export function partOf(practice: Practice): Part {
  if (practice.remedy) return practice.remedy.part;
  const { step, unmoved, divide, part, loop, only, layers } = practice;
  return {
    step,
    unmoved,
    divide,
    reduce: reduceOf(part),
    division: null,
    articulation: null,
    only,
    burst: null,
    beat: null,
    layers,
    ...loopOf(loop),
  };
}

/** What is played of the drill on a rung: what is chosen on the stand, and where nothing is, what the rung asks for. */
export function partDue(practice: Practice, ofRung: Part | null): Part {
  const chosen = partOf(practice);
  return ofRung && !practice.remedy && isAllOfIt(chosen) ? ofRung : chosen;
}

const isAllOfIt = (part: Part) =>
  Object.entries(part).every(([name, value]) => value === (name === "unmoved" ? false : null));

/** A remedy on the stand, at its own tempo. */
export function practiceOf(remedy: KeptRemedy): Practice {
  return { ...ALL_OF_IT, remedy, bpm: remedy.bpm };
}

/** The part as the server takes it: “hand R” is one hand alone; null plays what the drill says. */
function reduceOf(part: string): Schemas["Reduce"] | null {
  if (part === "everything") return null;
  const [kind, hand = ""] = part.split(" ");
  return { part: kind as Schemas["Reduce"]["part"], hand, beats: 1 };
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

/** What goes round, as the server takes it. */
export function loopOf(loop: string): Pick<Part, "bars" | "seam"> {
  const [kind, first, last] = loop.split(" ");
  if (kind === "bars")
    return { bars: { first: typedCount(first ?? ""), last: typedCount(last ?? "") }, seam: null };
  return { bars: null, seam: kind === "seam" ? Number(first) : null };
}

/** Loops to choose from: all of it, the seams between legs, or bars, of which one says the first and the last. */
export function loopsOf({ bars, seams }: Performance) {
  return [
    { value: "whole", label: "from start to end", why: "From the first note to the last." },
    ...seams.map((name, index) => ({
      value: `seam ${index}`,
      label: `round ${name}`,
      why: "The change alone, with the beat on either side.",
    })),
    ...(bars > 1
      ? [{ value: "bars", label: "round the bars", why: "From one bar to another, round and round." }]
      : []),
  ];
}
