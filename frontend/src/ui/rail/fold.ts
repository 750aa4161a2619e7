import type { Row } from "../../api/client";

/** A row that stands for itself and for those right after it that are the same. */
export type Folded = { row: Row; times: number };

/** Rows in order, with neighbours that look and sound the same laid on one another. */
export function fold(rows: readonly Row[]): Folded[] {
  const found: Folded[] = [];
  for (const row of rows) {
    const last = found.at(-1);
    if (last && looksOf(last.row) === looksOf(row)) last.times += 1;
    else found.push({ row, times: 1 });
  }
  return found;
}

const looks = new WeakMap<Row, string>();

/** Everything that is drawn of a row but its number; worked out once for a row. */
function looksOf(row: Row): string {
  const known = looks.get(row);
  if (known !== undefined) return known;
  const found = drawnOf(row);
  looks.set(row, found);
  return found;
}

function drawnOf({ bays, events, other, clicks, groups, breaths, lines, is_counted }: Row): string {
  return JSON.stringify([bays, events, other, clicks, groups, breaths, lines, is_counted]);
}
