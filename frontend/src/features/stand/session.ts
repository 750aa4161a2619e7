/**
 * A session at the stand, from Start to Stop, without sound or screen: what happened goes in, what is to be done
 * comes out. idle → starting → playing, in segments of one tempo and one click each → ending, with what was played.
 */
import type { Drill, Part } from "../../api/client";
import { HAIR, type Score, type Seconds, type Stretch, soundings } from "../../audio/schedule";
import { lastBarLine, type Run, runStart } from "./runs";

/** What is to be played: a score, and what a take of it would be of. */
export type Wanted = {
  score: Score;
  click: Drill["click"];
  rung: number | null;
  /** Passes until it stops by itself; null goes round until someone stops it. */
  passes: number | null;
  /** What is practised of the drill; null is all of it. */
  part: Part | null;
  /** The remedy that it is a try of. */
  remedyId: number | null;
  /** Whether a take is made of it. */
  isMeasured: boolean;
};

/** A tap or a note: when, on the clock of the sound; by which key; its pitch and level, and when it ended, where known. */
export type Tap = {
  at: Seconds;
  key: string | null;
  pitch?: number | null;
  level?: number | null;
  until?: Seconds | null;
};

/** A stretch of one tempo and one click, on the clock of the sound; `until` is where the next one takes over. */
export type Segment = { wanted: Wanted; stretch: Stretch; until: Seconds; playedAt: string };

export type Session =
  | { phase: "idle" }
  | { phase: "starting"; wanted: Wanted }
  | { phase: "playing"; wanted: Wanted; segments: Segment[]; taps: Tap[]; reached: Seconds }
  | { phase: "ending"; runs: Run[]; short: boolean };

export const IDLE_SESSION: Session = { phase: "idle" };

/** How early and late a tap may belong to a segment; the server cuts it finer. */
const TAP_ROOM = 2;

/** Whether a session goes on under another score as the same segment: the same bars, as fast, under the same click. */
export function isSameSegment(one: Wanted, other: Wanted): boolean {
  return (
    one.score.bpm === other.score.bpm &&
    one.score.loop_seconds === other.score.loop_seconds &&
    one.rung === other.rung &&
    one.isMeasured === other.isMeasured &&
    one.remedyId === other.remedyId &&
    JSON.stringify(one.part) === JSON.stringify(other.part) &&
    JSON.stringify(one.click) === JSON.stringify(other.click)
  );
}

/** Start was pressed; a second press meanwhile is the same one. */
export function start(session: Session, wanted: Wanted): Session {
  return session.phase === "idle" ? { phase: "starting", wanted } : session;
}

/** The sound has begun. A start that was cancelled meanwhile stays cancelled. */
export function started(session: Session, stretch: Stretch, playedAt: string): Session {
  if (session.phase !== "starting") return session;
  const begun = { ...session.wanted, score: stretch.score };
  const segment = { wanted: begun, stretch, until: Number.POSITIVE_INFINITY, playedAt };
  return { phase: "playing", wanted: session.wanted, segments: [segment], taps: [], reached: 0 };
}

/** Something else is to be played from now on: another tempo, click or part. */
export function want(session: Session, wanted: Wanted): Session {
  return session.phase === "starting" || session.phase === "playing" ? { ...session, wanted } : session;
}

/** What is to take over at the next bar line; null where what is wanted is played already. */
export function pending(session: Session): Wanted | null {
  if (session.phase !== "playing") return null;
  const last = session.segments.at(-1);
  return last && last.stretch.score === session.wanted.score ? null : session.wanted;
}

/** What was wanted takes over at a bar line: as a segment of its own, or as the same one under another score. */
export function takenOver(session: Session, stretch: Stretch, playedAt: string): Session {
  if (session.phase !== "playing") return session;
  const { wanted } = session;
  // What had been going to take over at this line, or later, never does.
  const stays = session.segments.filter(
    (one, index) => index === 0 || one.stretch.from < stretch.from - HAIR,
  );
  const [last] = stays.splice(-1);
  if (!last) return session;
  const isMoved = stretch.withLead && Math.abs(stretch.base - last.stretch.base) > HAIR;
  if (!isMoved && isSameSegment(last.wanted, wanted)) {
    // Its times go on from its own start; the score is another one.
    const same = {
      ...last,
      stretch: { ...last.stretch, score: stretch.score },
      until: Number.POSITIVE_INFINITY,
    };
    return { ...session, segments: [...stays, same] };
  }
  const next = { wanted, stretch, until: Number.POSITIVE_INFINITY, playedAt };
  return { ...session, segments: [...stays, { ...last, until: stretch.from }, next] };
}

/** A tap or a note, by the clock of the sound. */
export function tapped(
  session: Session,
  at: Seconds,
  key: string | null = null,
  more: Pick<Tap, "pitch" | "level"> = {},
): Session {
  return session.phase === "playing"
    ? { ...session, taps: [...session.taps, { at, key, ...more }] }
    : session;
}

/** A note was let go: the last one of its pitch that still sounds ends. */
export function letGo(session: Session, at: Seconds, pitch: number): Session {
  if (session.phase !== "playing") return session;
  const index = session.taps.findLastIndex((one) => one.pitch === pitch && one.until === undefined);
  const tap = session.taps[index];
  if (!tap) return session;
  const taps = [...session.taps];
  taps[index] = { ...tap, until: Math.max(tap.at, at) };
  return { ...session, taps };
}

/** The clicks of a session up to a moment, on the clock of the sound, and how many come before the first note. */
export function clicksOf(session: Session, moment: Seconds): { clicks: Seconds[]; alone: number } {
  if (session.phase !== "playing") return { clicks: [], alone: 0 };
  const clicks = session.segments.flatMap(({ stretch, until }) =>
    soundings(stretch, stretch.from - HAIR, Math.min(until, moment))
      .filter((one) => one.kind === "click")
      .map((one) => one.at),
  );
  clicks.sort((one, other) => one - other);
  const first = beginsAt(session.segments);
  return { clicks, alone: clicks.filter((at) => at < first - HAIR).length };
}

/** Where the drill begins: a change while it was counted in may have moved that. */
function beginsAt(segments: Segment[]): Seconds {
  return (segments.findLast((one) => one.stretch.withLead) ?? segments[0])?.stretch.base ?? 0;
}

/** What was heard up to a moment stays heard, though the clocks slip back. */
export function reached(session: Session, at: Seconds): Session {
  return session.phase === "playing" && at > session.reached ? { ...session, reached: at } : session;
}

/** Where it stops by itself. */
export function endsAt(session: Session): Seconds {
  if (session.phase !== "playing") return Number.POSITIVE_INFINITY;
  const { passes } = session.wanted;
  const last = session.segments.at(-1);
  if (passes === null || !last) return Number.POSITIVE_INFINITY;
  return last.stretch.base + passes * last.stretch.score.loop_seconds;
}

/**
 * Stop: a start is cancelled; of what was played, each segment gives the bars that were finished of it. A change
 * whose bar line was not reached changes nothing.
 */
export function stop(session: Session, at: Seconds | null, slipped: boolean): Session {
  if (session.phase !== "playing") return session.phase === "ending" ? session : IDLE_SESSION;
  const moment = at ?? session.reached;
  const runs = session.segments.flatMap((segment) => runOf(segment, moment, session.taps, slipped));
  const begun = session.segments[0]?.wanted.isMeasured === true && moment > beginsAt(session.segments);
  return { phase: "ending", runs, short: begun && runs.length === 0 };
}

/** What was played has been taken away. */
export function taken(session: Session): Session {
  return session.phase === "ending" ? IDLE_SESSION : session;
}

function runOf(
  { wanted, stretch, until, playedAt }: Segment,
  moment: Seconds,
  taps: Tap[],
  slipped: boolean,
): Run[] {
  const begin = runStart(stretch);
  const end = lastBarLine(stretch, Math.min(moment, until));
  if (!wanted.isMeasured || end <= begin + HAIR) return [];
  const notes = taps
    .map(({ at, key, pitch = null, level = null, until = null }) => ({
      at: at - stretch.base,
      key,
      pitch,
      level,
      until: until === null ? null : until - stretch.base,
    }))
    .filter(({ at }) => at > begin - TAP_ROOM && at < end + TAP_ROOM);
  const { click, rung, score, part, remedyId } = wanted;
  const { base } = stretch;
  return [{ bpm: score.bpm, click, rung, part, remedyId, base, start: begin, end, notes, playedAt, slipped }];
}
