import type { Schemas } from "../../api/client";

/** What comes before the first note, passes until it stops (null: until someone stops it), and the pulse heard inside. */
export type Count = {
  before: Omit<Schemas["Before"], "aloud">;
  /** What the student does while nobody plays. */
  meanwhile: string;
  passes: number | null;
  /** The inner pulse, if it is to be heard. */
  pulse: Schemas["Pulse"] | null;
};

export const USUAL: Count = {
  before: { listen_bars: 1, say_bars: 0, count_bars: 1, count_beats: 0, count_words: "" },
  meanwhile: "feel",
  passes: 2,
  pulse: null,
};

/** Nothing before the first note: where a beat has to be found, nothing gives it away. */
export const NOTHING_BEFORE = { listen_bars: 0, say_bars: 0, count_bars: 0, count_beats: 0, count_words: "" };
export const SILENT = { what: "nothing", words: "count" } as const;
