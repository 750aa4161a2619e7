import type { Drill, HeardNote, Part } from "../../api/client";
import type { Position, Seconds, Stretch } from "../../audio/schedule";
import { HAIR, positionIn } from "../../audio/schedule";

/** What was played in one go, ready to become a take; seconds from the start of the stretch's first turn. */
export type Run = {
  bpm: string;
  /** Under which click, and on which rung of a climb. */
  click: Drill["click"];
  rung: number | null;
  /** What was practised of it, and the remedy that it was a try of. */
  part: Part | null;
  remedyId: number | null;
  /** Where its first turn begins on the clock of the sound. */
  base: Seconds;
  start: Seconds;
  end: Seconds;
  /** What was heard, in seconds from there; which key, where the source knows it. */
  notes: HeardNote[];
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
  const reached = bars.findLast((bar) => bar.at <= within + HAIR)?.at ?? 0;
  return turn * loop + reached;
}

export type Phase = "idle" | "listen" | "say" | "count" | "play";

/**
 * What the screen says of a position: which part of the lead, its word, which bar and pass, which cue holds; and since
 * when what sounds goes round, on the clock of the sound.
 */
export type Moment = {
  phase: Phase;
  word: string;
  division: string;
  bar: number;
  pass: number;
  cue: string;
  since: Seconds;
};
export const IDLE: Moment = {
  phase: "idle",
  word: "",
  division: "",
  bar: 0,
  pass: 0,
  cue: "",
  since: 0,
};

export function momentOf(position: Position): Moment {
  const { stretch, turn, within } = position;
  const { score } = stretch;
  const { lead } = score;
  const since = within + turn * score.loop_seconds + lead.seconds;
  // Where a pickup follows, the count goes on behind the first bar line.
  if (turn >= 0 && !(stretch.withLead && since < lead.until - HAIR)) {
    const { number: bar, cue = "" } = score.bars.findLast((one) => one.at <= within + HAIR) ?? { number: 1 };
    const yours = score.yours_from ?? null;
    const word = yours === null ? "" : within >= yours - HAIR ? "your turn" : "listen";
    return { ...IDLE, phase: "play", word, bar, pass: turn + 1, cue, since: stretch.base };
  }
  if (lead.listen_seconds > 0 && since < lead.listen_seconds - HAIR) return { ...IDLE, phase: "listen" };
  const word = lead.words.findLast((one) => one.at <= since + HAIR)?.word ?? "";
  const said = lead.rehearsals.find((one) => since < one.at + one.seconds - HAIR);
  return said ? { ...IDLE, phase: "say", word, division: said.division } : { ...IDLE, phase: "count", word };
}
