import type { Struck } from "../../../audio/midi";
import type { Player } from "../../../audio/player";
import type { Recorded } from "../../../audio/recording";
import type { Seconds, Stretch } from "../../../audio/schedule";
import type { Wanted } from "../session";

/** What hears a take while the stand plays. */
export type Hearing = {
  /** Make ready before anything sounds; rejects with a sentence where that cannot be. */
  arm: (player: Player, wanted: Wanted) => Promise<void>;
  /** It has begun, or another stretch takes over. */
  begun: (stretch: Stretch, wanted: Wanted) => void;
  /** It is over; what was recorded, or null. */
  finish: () => Promise<Recorded | null>;
};

/** A note that was struck or let go, on the clock of the sound. */
export type OnNote = (struck: Exclude<Struck, { kind: "pedal" }>, at: Seconds, stroke: string | null) => void;

/** Where taps are all there is: nothing is made ready, and nothing recorded. */
export const TAPS_ALONE: Hearing = {
  arm: async () => {},
  begun: () => {},
  finish: async () => null,
};
