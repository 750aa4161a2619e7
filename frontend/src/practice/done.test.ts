// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from "vitest";
import type { Run } from "../features/stand/runs";
import type { Contents, PracticeClimb } from "./contents";
import { type Done, keepDone, keptDone, NOTHING, resultsOf, takeOf, tellable } from "./done";

const climb = { climb_id: 7, drill_id: 3, version: 2 } as PracticeClimb;
const file = { studio: "here", student_id: 5, student: "Runa Holt", climbs: [climb] } as unknown as Contents;
const run = (changed: Partial<Run> = {}): Run => ({
  bpm: "84",
  click: { kind: "named", plan: "every_beat" },
  rung: 4,
  part: null,
  remedyId: null,
  base: 0,
  start: 0,
  end: 8,
  notes: [{ at: 0.5, key: "f", pitch: null, level: null, until: null }],
  playedAt: "2026-05-06T15:00:00.000Z",
  slipped: false,
  ...changed,
});

describe("what was done with a practice file", () => {
  beforeEach(() => localStorage.clear());

  it("keeps of a run what the core needs, and measures nothing", () => {
    const take = takeOf(climb, run(), null);
    expect(take).toMatchObject({
      climb_id: 7,
      drill_id: 3,
      version: 2,
      rung: 4,
      bpm: "84",
      start: 0,
      end: 8,
    });
    expect(take.notes).toEqual([{ at: 0.5, key: "f" }]);
    expect(takeOf(climb, run(), null).id).not.toBe(take.id);
  });

  it("trusts no taps where the clocks slipped", () => {
    expect(takeOf(climb, run({ slipped: true }), null).notes).toEqual([]);
  });

  it("sends back what was tapped or marked, and not what nobody said anything of", () => {
    const tapped = takeOf(climb, run(), null);
    const silent = takeOf(climb, run({ notes: [] }), null);
    const marked = takeOf(climb, run({ notes: [] }), "shaky");
    const done: Done = { takes: [tapped, silent, marked], question: "Which finger?" };
    expect(tellable(done)).toEqual([tapped, marked]);
    expect(JSON.parse(resultsOf(file, done))).toMatchObject({
      format: "ripresa.results/1",
      studio: "here",
      student_id: 5,
      question: "Which finger?",
      takes: [{ id: tapped.id }, { id: marked.id }],
    });
  });

  it("is found again in the same browser, and never under another student’s file", () => {
    const done: Done = { takes: [takeOf(climb, run(), "clean")], question: "" };
    expect(keepDone(file, done)).toBe(true);
    expect(keptDone(file)).toEqual(done);
    expect(keptDone({ ...file, student_id: 6 })).toEqual(NOTHING);
  });

  it("begins anew where what was kept is damaged", () => {
    keepDone(file, NOTHING);
    localStorage.setItem(localStorage.key(0) ?? "", "{");
    expect(keptDone(file)).toEqual(NOTHING);
  });
});
