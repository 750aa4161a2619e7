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
  /** Pixel of a position in beats from the start of a row. */
  x: (beats: number) => number;
};

/** How far a peg stands inside its bay, so that the first one is not cut by the edge. */
const INSET = 14;
/** What a line of chord names, or of a second count, takes above the count. */
const CHORD_LINE = 24;
/** From one line under the rail to the next. */
const LINE_STEP = 20;
/** Below this distance between neighbours their words would touch. */
export const CLOSEST = 19;

export function geometry(
  rows: readonly Row[],
  beatsABar: number,
  width: number,
  { scale = 1, secondLine = false } = {},
): Geometry {
  const gutter = width < 560 ? 56 : 84;
  const densest = Math.max(1, ...rows.map((row) => Math.max(...row.events.map((event) => 1 / event.width))));
  const hasGroups = rows.some((row) => row.groups.length > 0);
  const hasChords = rows.some((row) => row.events.some((event) => event.chord !== null));
  const hasHands = rows.some((row) => row.events.some((event) => event.stroke !== null || event.slurred));
  const top = hasChords || secondLine ? CHORD_LINE * scale : 0;
  const hasTouch = rows.some((row) => row.events.some((event) => event.touch !== null));
  const touchY = hasHands ? 118 : 98;
  const groupY = (hasHands ? 128 : 108) + (hasTouch ? 18 : 0);
  const lineY = groupY + (hasGroups ? 34 : 12);
  const lines = Math.max(0, ...rows.map((row) => row.lines.length));
  const beat = Math.max((width - gutter - 6) / beatsABar, CLOSEST * densest * Math.max(1, scale * 0.8));
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
    x: (beats) => gutter + beats * beat + INSET * Math.min(scale, 1.4),
  };
}
