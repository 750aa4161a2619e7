import { describe, expect, it } from "vitest";
import { rowsInView } from "./standRows";

/** So many bars in each stage. */
const stages = (...bars: number[]) =>
  bars.flatMap((count, leg) => Array.from({ length: count }, () => ({ leg })));
const placed = (rows: { leg: number }[], now: number, room: number) =>
  rowsInView(rows, now, room)
    .shown.toSorted((one, other) => one.place - other.place)
    .map((one) => one.row);

describe("the rows in view", () => {
  it("are all of them where there is room, and stay where they are", () => {
    expect(placed(stages(2, 1), 0, 3)).toEqual([0, 1, 2]);
    expect(placed(stages(2, 1), 2, 3)).toEqual([0, 1, 2]);
  });

  it("are a bar of each stage, where it sounds the one that sounds", () => {
    const rows = stages(4, 3, 2);
    expect(placed(rows, 0, 3)).toEqual([0, 4, 7]);
    expect(placed(rows, 5, 3)).toEqual([0, 5, 7]);
    expect(placed(rows, 8, 4)).toEqual([0, 4, 8]);
    expect(rowsInView(rows, 8, 3).places).toBe(3);
  });

  it("show every stage, however little room there is", () => {
    expect(placed(stages(2, 2, 2, 2), 3, 1)).toEqual([0, 3, 4, 6]);
  });

  it("have the next bar of a stage too where there is room, leapfrogging", () => {
    const rows = stages(4, 3);
    expect(placed(rows, 0, 4)).toEqual([0, 1, 4, 5]);
    expect(placed(rows, 1, 4)).toEqual([2, 1, 4, 5]);
    // After the last bar of a stage the one before it stays.
    expect(placed(rows, 3, 4)).toEqual([2, 3, 4, 5]);
  });

  it("go round where there is one stage", () => {
    const rows = stages(5);
    expect(placed(rows, 0, 2)).toEqual([0, 1]);
    expect(placed(rows, 1, 4)).toEqual([2, 1]);
    expect(placed(rows, 4, 2)).toEqual([4, 0]);
    expect(placed(rows, 3, 1)).toEqual([3]);
  });
});
