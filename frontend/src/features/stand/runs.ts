import type { Position, Seconds, Stretch } from "../../audio/schedule";
import { positionIn } from "../../audio/schedule";

/** What was played in one go, ready to become a take; seconds from the start of the stretch's first turn. */
export type Run = {
  bpm: string;
  start: Seconds;
  end: Seconds;
  onsets: Seconds[];
  playedAt: string;
  /** Whether the clocks slipped, so that the taps cannot be trusted. */
  slipped: boolean;
};

/** Where a run begins: at the first note, or at the bar line where the tempo changed. */
export function runStart(stretch: Stretch): Seconds {
  return stretch.withLead ? 0 : stretch.from - stretch.base;
}

/** The last bar line that was reached by a moment: whole bars only are measured. */
export function lastBarLine(stretch: Stretch, at: Seconds): Seconds {
  const { turn, within } = positionIn(stretch, at);
  if (turn < 0) return 0;
  const { bars, loop_seconds: loop } = stretch.score;
  const reached = bars.findLast((bar) => bar.at <= within + 1e-6)?.at ?? 0;
  return turn * loop + reached;
}

export type Phase = "idle" | "listen" | "count" | "play";

/** What the screen says of a position: which part of the lead, which bar and pass. */
export type Moment = { phase: Phase; word: string; bar: number; pass: number };

export function momentOf(position: Position): Moment {
  const { stretch, turn, within } = position;
  const { score } = stretch;
  if (turn >= 0) {
    const bar = score.bars.findLast((one) => one.at <= within + 1e-6)?.number ?? 1;
    const yours = score.yours_from ?? null;
    const word = yours === null ? "" : within >= yours - 1e-6 ? "your turn" : "listen";
    return { phase: "play", word, bar, pass: turn + 1 };
  }
  const since = within + turn * score.loop_seconds + score.lead.seconds;
  if (since < score.lead.listen_seconds) return { phase: "listen", word: "", bar: 0, pass: 0 };
  const word = score.lead.words.findLast((one) => one.at <= since + 1e-6)?.word ?? "";
  return { phase: "count", word, bar: 0, pass: 0 };
}
