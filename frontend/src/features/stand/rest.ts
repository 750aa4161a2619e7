/** Time played since the last rest, and time rested since, in ms; `at` is when it was looked at last. */
export type Played = { playing: number; resting: number; at: number };

const MINUTE = 60_000;
/** Five minutes of rest after twenty-five of playing. */
export const PLAY = 25 * MINUTE;
export const REST = 5 * MINUTE;

export const startOfPlay = (at = 0): Played => ({ playing: 0, resting: 0, at });

/** What was played until now is added; a rest that was long enough before ends what came before it. */
export function played(before: Played, now: number): Played {
  const since = Math.max(0, now - before.at);
  const begun = before.resting >= REST ? 0 : before.playing;
  return { playing: begun + since, resting: 0, at: now };
}

/** Nobody played until now. */
export function rested(before: Played, now: number): Played {
  const resting = before.resting + Math.max(0, now - before.at);
  return { playing: resting >= REST ? 0 : before.playing, resting, at: now };
}

/** Whether a rest is due. */
export const elapsed = ({ playing }: Played): boolean => playing >= PLAY;
