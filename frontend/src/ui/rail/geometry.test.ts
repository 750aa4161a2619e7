import { describe, expect, it } from "vitest";
import type { Row } from "../../api/client";
import { fold } from "./fold";
import { CLOSEST, geometry } from "./geometry";

function row(division: number): Row {
  const events = Array.from({ length: 4 * division }, (_, index) => ({
    x: index / division,
    width: 1 / division,
    beat: 1,
    slot: 0,
    count: "1",
    kind: "note" as const,
    pitch: null,
    chord: null,
    stroke: null,
    words: "1 D",
    touch: null,
    in_group: null,
    slurred: false,
    accent: "plain" as const,
    strings: [],
    dead: false,
    ornament: null,
    sounds: null,
    hit: null,
  }));
  return {
    leg: 0,
    bar: 1,
    first: 0,
    bays: [],
    events,
    clicks: [],
    groups: [],
    breaths: [],
    lines: [],
    words: "",
    other: [],
    other_first: 0,
    is_counted: true,
  };
}

describe("the rail", () => {
  it("lines beats up whatever the division", () => {
    const places = [2, 3, 8].map((division) => geometry([row(2), row(division)], 4, 2000));
    expect(new Set(places.map((place) => place.x(3))).size).toBe(1);
  });

  it("grows wider than the screen before words touch", () => {
    const place = geometry([row(8)], 4, 600);
    expect(place.x(1 / 8) - place.x(0)).toBeGreaterThanOrEqual(CLOSEST);
    expect(place.width).toBeGreaterThan(600);
  });

  it("fits its bar on a phone, and keeps the words that have room", () => {
    const bar = row(8);
    const place = geometry([bar], 4, 342);
    expect(place.width).toBeCloseTo(342);
    const [onBeat, between] = bar.events;
    expect(onBeat && place.hasRoom(onBeat, 12)).toBe(true);
    expect(between && place.hasRoom({ ...between, slot: 1 }, 12)).toBe(false);
  });

  it("fills the width where there is room", () => {
    expect(geometry([row(4)], 4, 1000).width).toBeCloseTo(1000);
  });

  it("leaves the hand row out where no hand is written", () => {
    const written = row(2);
    const first = written.events[0];
    if (first) first.stroke = "D";
    expect(geometry([row(2)], 4, 900).height).toBeLessThan(geometry([written], 4, 900).height);
  });
});

describe("folding", () => {
  it("lays neighbours that are the same on one another, and only those", () => {
    const rows = [row(2), { ...row(2), bar: 2, first: 8 }, row(3), row(2)];
    expect(fold(rows).map(({ row, times }) => [row.events.length, times])).toEqual([
      [8, 2],
      [12, 1],
      [8, 1],
    ]);
  });
});
