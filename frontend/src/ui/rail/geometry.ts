import type { Row } from "../../api/client";

/** Where things stand in one row of the rail, in pixels; all vertical places grow with `scale`. */
export type Geometry = {
  scale: number;
  gutter: number;
  beat: number;
  width: number;
  height: number;
  /** Where the bays begin: lower where chords are named above them. */
  top: number;
  /** Where fingers stand, if any are written. */
  touchY: number;
  /** Where clicks and group brackets stand: higher where no hand is written. */
  clickY: number;
  groupY: number;
  /** Where the first line under the rail stands, and how far the next is. */
  lineY: number;
  lineStep: number;
  /** What the left hand takes under the line, before it grows with the scale; 0 where one hand plays. */
  below: number;
  /** How many strings are drawn, where the thinnest lies, and how far the next one is. */
  strings: number;
  stringsY: number;
  stringStep: number;
  /** Whether there is room for a word, or a hand, at an event: on a phone a dense bar keeps those on the beat. */
  hasRoom: (event: Row["events"][number], pixels: number) => boolean;
  /** Pixel of a position in beats from the start of a row. */
  x: (beats: number) => number;
};

/** How far a peg stands inside its bay, so that the first one is not cut by the edge. */
const INSET = 14;
/** What a line of chord names, or of a second count, takes above the count. */
const CHORD_LINE = 24;
/** From one line under the rail to the next. */
const LINE_STEP = 20;
/** What the left hand of two takes under the line. */
const LEFT_HAND = 60;
/** From one string to the next. */
const STRING_STEP = 19;
/** Narrower than this, in pixels, is a phone. */
const NARROW = 560;
/** Below this distance between neighbours their words would touch. */
export const CLOSEST = 19;
/** The same where the words of two hands stand in one line. */
const CLOSEST_OF_TWO = 24;

/** The same as before where nothing of it changed, so that no row is drawn anew for it. */
export function sameGeometry(before: Geometry | null, now: Geometry): Geometry {
  const { hasRoom, x, ...numbers } = now;
  const names = Object.keys(numbers) as (keyof typeof numbers)[];
  return before && names.every((name) => before[name] === now[name]) ? before : now;
}

export function geometry(
  rows: readonly Row[],
  beatsABar: number,
  width: number,
  { scale = 1, secondLine = false, strings = 0 } = {},
): Geometry {
  const isNarrow = width < NARROW;
  const gutter = isNarrow ? 44 : 84;
  const densest = Math.max(1, ...rows.map(density));
  const hasGroups = rows.some((row) => row.groups.length > 0);
  const hasChords = rows.some((row) => row.events.some((event) => event.chord !== null));
  const below = rows.some((row) => row.other.length > 0) ? LEFT_HAND : 0;
  const isStruck = (event: Row["events"][number]) =>
    (event.stroke !== null && !isPlucked(event)) || event.slurred;
  const hasHands = rows.some((row) => row.events.some(isStruck));
  const top = hasChords || secondLine ? CHORD_LINE * scale : 0;
  const hasTouch = !below && !strings && rows.some((row) => row.events.some((event) => event.touch !== null));
  const closest = below ? CLOSEST_OF_TWO : CLOSEST;
  const touchY = hasHands ? 118 : 98;
  const groupY = (hasHands ? 128 : 108) + (hasTouch ? 18 : 0) + below;
  const stringsY = groupY + (hasGroups ? 36 : 16);
  const lineY = strings ? stringsY + strings * STRING_STEP + 14 : groupY + (hasGroups ? 34 : 12);
  const lines = Math.max(0, ...rows.map((row) => row.lines.length));
  // A phone shows its bar as a whole: what is too dense for words there keeps its pegs.
  const fitting = (width - gutter - 6) / beatsABar;
  const beat = isNarrow ? fitting : Math.max(fitting, closest * densest * Math.max(1, scale * 0.8));
  const inset = INSET * Math.min(scale, 1.4) * (isNarrow ? 0.6 : 1);
  return {
    scale,
    gutter,
    beat,
    width: gutter + beat * beatsABar + 6,
    height: (lineY + lines * LINE_STEP - 18) * scale + top,
    top,
    touchY: touchY * scale,
    clickY: (groupY - 12) * scale,
    groupY: groupY * scale,
    lineY: lineY * scale,
    lineStep: LINE_STEP * scale,
    below,
    strings,
    stringsY: stringsY * scale,
    stringStep: STRING_STEP * scale,
    hasRoom: (event, pixels) => !isNarrow || event.slot === 0 || event.width * beat >= pixels * scale,
    x: (beats) => gutter + beats * beat + inset,
  };
}

/** Whether the stroke of an event is a finger that stands on its string already. */
export function isPlucked({ stroke, strings }: Row["events"][number]): boolean {
  const fingers = stroke?.split("+") ?? [];
  return strings.some((one) => fingers.includes(one.finger));
}

const densities = new WeakMap<Row, number>();

/** How close the closest neighbours of a row stand, of both hands: places a beat; worked out once for a row. */
function density(row: Row): number {
  const found = densities.get(row) ?? densityOf(row);
  densities.set(row, found);
  return found;
}

function densityOf(row: Row): number {
  const widths = row.events.map((event) => event.width);
  if (row.other.length === 0) return 1 / Math.min(...widths);
  const struck = [...row.events, ...row.other]
    .filter((event) => event.kind === "note")
    .map((event) => event.x);
  const places = [...new Set(struck)].sort((one, other) => one - other);
  const gaps = places.slice(1).map((place, index) => place - (places[index] ?? 0));
  return 1 / Math.min(...widths, ...gaps.filter((gap) => gap > 1e-6));
}
