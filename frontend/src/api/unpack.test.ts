import { describe, expect, it } from "vitest";
import type { Schemas } from "./client";
import { unpack, unpackReading } from "./unpack";

const row = (bar: number, count: string) =>
  ({
    leg: 0,
    bar,
    first: 0,
    bays: { rows: 0 },
    clicks: { rows: 0 },
    groups: { rows: 0 },
    other: { rows: 0 },
    events: { rows: 2, x: [0, 0.5], count: [count], words: ["one", "two"] },
  }) as unknown as Schemas["RowShape"];
const reading = (...rows: Schemas["RowShape"][]) => ({ rows }) as unknown as Schemas["ReadingShape"];

describe("what is sent column by column", () => {
  it("is rows again: defaults where nothing is sent, one value for all, texts by their number", () => {
    const rows = unpack("EventTable", {
      rows: 3,
      x: [0, 0.5, 0.75],
      width: [0.5],
      beat: [1],
      slot: [0, 1, 2],
      count: { of: ["1", "&"], at: [0, 1, 1] },
      words: ["a", "b", "c"],
      accent: ["accent", "plain", "ghost"],
    });
    expect(rows.map((one) => [one.x, one.width, one.count, one.accent])).toEqual([
      [0, 0.5, "1", "accent"],
      [0.5, 0.5, "&", "plain"],
      [0.75, 0.5, "&", "ghost"],
    ]);
    expect(rows.every((one) => one.kind === "note" && one.pitch === null && !one.dead)).toBe(true);
  });

  it("is nothing where there are no rows", () => {
    expect(unpack("TimedToneTable", { rows: 0 })).toEqual([]);
  });

  it("keeps the very row that did not change, and no other", () => {
    const first = unpackReading(reading(row(1, "1"), row(2, "1"))).rows;
    const second = unpackReading(reading(row(1, "1"), row(2, "2"))).rows;
    expect(second[0]).toBe(first[0]);
    expect(second[1]).not.toBe(first[1]);
    expect(second[1]?.events[0]?.count).toBe("2");
  });

  it("says a row in words, one hand after the other", () => {
    const two = { ...row(1, "1"), other: { rows: 1, words: ["low"] } } as unknown as Schemas["RowShape"];
    const [alone, both] = unpackReading(reading(row(1, "1"), two)).rows;
    expect(alone?.words).toBe("one, two");
    expect(both?.words).toBe("right hand: one, two; left hand: low");
  });
});
