import type { Score } from "../api/unpack";
import type { ClickRole, Drum } from "./sounds";

export type Seconds = number & { readonly unit?: "s" };

/** A drill in seconds, as the server worked it out. */
export type { Score };

/** One thing to sound: its time on the audio clock, and what. */
export type Sounding =
  | { kind: "click"; at: Seconds; role: ClickRole; loud?: number }
  | { kind: "word"; at: Seconds; seconds: Seconds; word: string }
  | { kind: "back"; at: Seconds; seconds: Seconds; midis: number[]; drum: Drum | null }
  | ({ kind: "note" } & Tone);
/** A note: the heard MIDI note or none, those that sound with it, and how loud it is beside another hand. */
type Tone = Pick<
  Score["tones"][number],
  "at" | "seconds" | "midi" | "also" | "level" | "loud" | "apart" | "drum"
>;
export type Level = Score["tones"][number]["level"];

/** The one hair of this side: times this near to an edge lie on it, whatever their last bit says. */
export const HAIR = 1e-6;

/** A score from a moment of the audio clock on: `base` is where the first turn would begin. */
export type Stretch = { score: Score; base: Seconds; from: Seconds; withLead: boolean };

/** The stretch of a score that is started now: its lead first, then its turns. */
export function opening(score: Score, begin: Seconds): Stretch {
  return { score, base: begin + score.lead.seconds, from: begin, withLead: true };
}

/** Everything that sounds in a stretch from one moment to before another, in order of kind, then time. */
export function soundings(stretch: Stretch, after: Seconds, before: Seconds): Sounding[] {
  const { score, base, from } = stretch;
  const found: Sounding[] = [];
  const due = (at: Seconds) => at >= after && at < before && at >= from - HAIR;
  // The count-in goes on behind the first bar line where a pickup follows.
  const leads = base - score.lead.seconds;
  if (stretch.withLead && after < leads + score.lead.until) {
    for (const tick of score.lead.ticks)
      if (due(leads + tick.at)) found.push({ kind: "click", at: leads + tick.at, role: tick.level });
    for (const { at, seconds, word } of score.lead.said)
      if (due(leads + at)) found.push({ kind: "word", at: leads + at, seconds, word });
  }
  // The inner pulse is heard once, from the first bar line of what was started.
  if (stretch.withLead)
    for (const { at, loud } of score.pulse ?? [])
      if (due(base + at)) found.push({ kind: "click", at: base + at, role: "pulse", loud });
  // The click goes round by itself: once in four bars is once in four, however short the drill.
  const { click_seconds: round, loop_seconds: turn } = score;
  for (const [start, tick] of repeated(score.ticks, base, round, after, before))
    if (due(start + tick.at)) found.push({ kind: "click", at: start + tick.at, role: tick.level });
  for (const [start, tone] of repeated(score.tones, base, turn, after, before)) {
    const { seconds, midi, also, level, loud, apart, drum } = tone;
    const at = start + tone.at;
    if (due(at)) found.push({ kind: "note", at, seconds, midi, also, level, loud, apart, drum });
  }
  // Where the count-in is spoken up to a pickup, nothing else is said meanwhile.
  const spokenTo = stretch.withLead && score.lead.said.length > 0 ? leads + score.lead.until - HAIR : 0;
  for (const [start, { at, seconds, word }] of repeated(score.said, base, turn, after, before))
    if (due(start + at) && start + at >= spokenTo)
      found.push({ kind: "word", at: start + at, seconds, word });
  for (const [start, { at, seconds, midis, drum }] of repeated(score.backing, base, turn, after, before))
    if (due(start + at)) found.push({ kind: "back", at: start + at, seconds, midis, drum });
  return found;
}

/** What lies in a stretch of time of something that goes round every so many seconds, each with the start of its round. */
function* repeated<T extends { at: Seconds }>(
  items: readonly T[],
  base: Seconds,
  every: Seconds,
  after: Seconds,
  before: Seconds,
): Generator<[Seconds, T]> {
  for (const start of starts(base, every, after, before))
    for (let index = firstAt(items, after - start); index < items.length; index++) {
      const item = items[index];
      if (!item || start + item.at >= before) break;
      yield [start, item];
    }
}

/** When each turn begins that reaches into a stretch of time. */
function* starts(base: Seconds, turn: Seconds, after: Seconds, before: Seconds): Generator<Seconds> {
  for (let number = Math.max(0, Math.floor((after - base) / turn)); base + number * turn < before; number++)
    yield base + number * turn;
}

/** Where a moment lies: before the turns, or in which turn and how far into it. */
export type Position = { turn: number; within: Seconds; stretch: Stretch };

export function positionIn(stretch: Stretch, at: Seconds): Position {
  const since = at - stretch.base;
  const { loop_seconds: loop } = stretch.score;
  // The end of a turn is the beginning of the next one, whatever the last bit of its time says.
  const turn = Math.floor((since + HAIR) / loop);
  return { turn, within: Math.max(0, since - turn * loop), stretch };
}

/** A bar line: its number in the turn, when it is reached, and how many more come before the counting in. */
export type Line = { bar: number; at: Seconds; leads?: number };

/** The bar line at or after a moment, of what comes before the drill or of the drill. */
export function nextBarLine(stretch: Stretch, at: Seconds): Line {
  const { score, base } = stretch;
  if (at <= base) {
    const { lines, seconds } = score.lead;
    const next = stretch.withLead ? lines.findIndex((one) => base - seconds + one >= at - HAIR) : -1;
    if (next < 0) return { bar: 0, at: base };
    return { bar: 0, at: base - seconds + (lines[next] ?? 0), leads: lines.length - 1 - next };
  }
  const { turn, within } = positionIn(stretch, at);
  const bar = score.bars.findIndex((one) => one.at >= within - HAIR);
  const start = base + turn * score.loop_seconds;
  return bar < 0
    ? { bar: 0, at: start + score.loop_seconds }
    : { bar, at: start + (score.bars[bar]?.at ?? 0) };
}

/**
 * The stretch of a changed score that takes over at a bar line; the line itself does not move. It goes on with the
 * bar of the same number where it has one, else it begins. Before the drill has begun, counting and playing are at one
 * speed: of the listening as much is left as was, and what is counted in already at another tempo is counted again.
 */
export function takeOver(old: Stretch, score: Score, line: Line): Stretch {
  if (
    old.withLead &&
    line.at <= old.base + HAIR &&
    (line.leads !== undefined || score.bpm !== old.score.bpm)
  ) {
    const { lines, seconds } = score.lead;
    const left = seconds - (lines.at(-1 - (line.leads ?? 0)) ?? 0);
    return { score, base: line.at + left, from: line.at, withLead: true };
  }
  const number = old.score.bars[line.bar]?.number;
  const within = score.bars.find((bar) => bar.number === number)?.at ?? 0;
  return { score, base: line.at - within, from: line.at, withLead: old.withLead && line.at <= old.base };
}

/** Index of the first item at or after a time; items are in order. */
export function firstAt(items: readonly { at: Seconds }[], at: Seconds): number {
  let [low, high] = [0, items.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((items[middle]?.at ?? 0) < at) low = middle + 1;
    else high = middle;
  }
  return low;
}
