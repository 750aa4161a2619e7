// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Run } from "../features/stand/runs";
import type { Contents, PracticeClimb } from "./contents";
import {
  type Done,
  type DoneTake,
  keepDone,
  keptDone,
  NOTHING,
  resultsOf,
  takeOf,
  tellable,
  together,
  watchDone,
} from "./done";

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

  it("keeps each take once where the file is open twice", () => {
    const [one, two, three] = ["2026-05-06T15:00", "2026-05-06T15:01", "2026-05-06T15:02"].map((at) =>
      takeOf(climb, run({ playedAt: at }), null),
    ) as [DoneTake, DoneTake, DoneTake];
    const kept: Done = { takes: [one, two], question: "Old?" };
    const marked: DoneTake = { ...one, mark: "clean" };
    expect(together(kept, { takes: [marked, three], question: "New?" })).toEqual({
      takes: [marked, two, three],
      question: "New?",
    });
  });

  it("is told what another page of the file keeps, and of no other file", () => {
    const seen: Done[] = [];
    const end = watchDone(file, (done) => seen.push(done));
    const done: Done = { takes: [takeOf(climb, run(), "clean")], question: "" };
    keepDone(file, done);
    const key = localStorage.key(0);
    window.dispatchEvent(new StorageEvent("storage", { key }));
    window.dispatchEvent(new StorageEvent("storage", { key: "another" }));
    end();
    window.dispatchEvent(new StorageEvent("storage", { key }));
    expect(seen).toEqual([done]);
  });

  it("has an id for a take where a browser holds the page for unsafe", () => {
    vi.stubGlobal("crypto", { getRandomValues: (bytes: Uint8Array) => bytes.map((_, index) => index) });
    expect(takeOf(climb, run(), null).id).toBe("000102030405060708090a0b0c0d0e0f");
    vi.unstubAllGlobals();
  });

  it("begins anew where what was kept is damaged", () => {
    keepDone(file, NOTHING);
    localStorage.setItem(localStorage.key(0) ?? "", "{");
    expect(keptDone(file)).toEqual(NOTHING);
  });
});
