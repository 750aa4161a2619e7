/** Which bars of a drill are in view on the stand. */

/** A row of the reading, and in which place from the top it stands. */
export type Placed = { row: number; place: number };
export type InView = { shown: Placed[]; places: number };

/** More bars of one stage than that, one under the other, are not read ahead. */
const MOST_AHEAD = 2;

/**
 * The rows in view: all of them where there is room; else each stage with the bar that sounds, or its first ones, and
 * with the bars that come where there is room for them. Bars leapfrog, so that the eye never has to jump in a bar.
 *
 * @param rows - The stage of each row, in order.
 * @param now - The row that sounds.
 * @param room - How many rows the screen has room for.
 */
export function rowsInView(rows: readonly { leg: number }[], now: number, room: number): InView {
  if (rows.length <= room) return { shown: rows.map((_, row) => ({ row, place: row })), places: rows.length };
  const stages = new Map<number, number[]>();
  rows.forEach(({ leg }, row) => {
    stages.set(leg, [...(stages.get(leg) ?? []), row]);
  });
  const each = Math.min(MOST_AHEAD, Math.max(1, Math.floor(room / stages.size)));
  const shown: Placed[] = [];
  let places = 0;
  for (const mine of stages.values()) {
    const count = Math.min(each, mine.length);
    const from = Math.max(0, mine.indexOf(now));
    for (let ahead = 0; ahead < count; ahead++) {
      const at = from + ahead;
      const row = mine[stages.size === 1 ? at % mine.length : at < mine.length ? at : at - count];
      if (row !== undefined) shown.push({ row, place: places + (at % count) });
    }
    places += count;
  }
  return { shown, places };
}
