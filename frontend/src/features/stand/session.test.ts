import { describe, expect, it } from "vitest";
import { nextBarLine, opening, type Stretch, takeOver } from "../../audio/schedule";
import { scoreOf } from "../../audio/testScore";
import {
  clicksOf,
  endsAt,
  IDLE_SESSION,
  isSameSegment,
  letGo,
  pending,
  reached,
  type Session,
  start,
  started,
  stop,
  taken,
  takenOver,
  tapped,
  type Wanted,
  want,
} from "./session";

const BEAT = { kind: "named", plan: "every_beat" } as const;
const BACK = { kind: "named", plan: "two_and_four" } as const;
const WHEN = "2026-01-01T10:00:00Z";

/** Two bars of four beats at 120, 80 …, two passes. */
function wanted(beat = 0.5, change: Partial<Wanted> = {}): Wanted {
  return {
    score: scoreOf(beat),
    click: BEAT,
    rung: 1,
    passes: 2,
    part: null,
    remedyId: null,
    isMeasured: true,
    ...change,
  };
}

/** A session that plays something from 0 on: its first note is due after four beats of counting in. */
function playing(what: Wanted): Session {
  return started(start(IDLE_SESSION, what), opening(what.score, 0), WHEN);
}

function stretchOf(session: Session): Stretch {
  if (session.phase !== "playing") throw new Error(session.phase);
  const last = session.segments.at(-1);
  if (!last) throw new Error("nothing plays");
  return last.stretch;
}

/** Something else is wanted at a moment, and takes over at the next bar line. */
function change(session: Session, what: Wanted, at: number): Session {
  const asked = want(session, what);
  const now = stretchOf(session);
  return takenOver(asked, takeOver(now, what.score, nextBarLine(now, at)), WHEN);
}

function runs(session: Session, at: number | null) {
  const ended = stop(session, at, false);
  if (ended.phase !== "ending") throw new Error(ended.phase);
  return ended.runs.map((run) => [run.bpm, run.rung, run.start, run.end]);
}

describe("starting", () => {
  it("is cancelled by Stop, though the sound begins afterwards", () => {
    const what = wanted();
    const cancelled = stop(start(IDLE_SESSION, what), null, false);
    expect(cancelled).toEqual(IDLE_SESSION);
    expect(started(cancelled, opening(what.score, 0), WHEN)).toEqual(IDLE_SESSION);
  });

  it("is one start, however often it is pressed", () => {
    const once = start(IDLE_SESSION, wanted());
    expect(start(once, wanted(0.75))).toBe(once);
  });

  it("does not lose what was chosen while the sound was being made ready", () => {
    const [first, later] = [wanted(0.5), wanted(0.75)];
    const begun = started(want(start(IDLE_SESSION, first), later), opening(first.score, 0), WHEN);
    expect(pending(begun)).toBe(later);
    expect(pending(change(begun, later, 0.1))).toBeNull();
  });
});

describe("playing", () => {
  it("gives the bars that were finished, and nothing of one that was not", () => {
    expect(runs(playing(wanted()), 5.9)).toEqual([["120", 1, 0, 2]]);
    const ended = stop(playing(wanted()), 3.9, false);
    expect(ended).toMatchObject({ phase: "ending", runs: [], short: true });
    expect(stop(playing(wanted()), 1, false)).toMatchObject({ short: false });
  });

  it("makes a take of each tempo", () => {
    const faster = change(playing(wanted(0.5)), wanted(0.25, { rung: 2 }), 5.5);
    // From bar 1 of the second pass on: two bars at 120, then three bars of a second each at 240.
    expect(runs(faster, 9.2)).toEqual([
      ["120", 1, 0, 4],
      ["240", 2, 0, 3],
    ]);
  });

  it("makes a take of each click at one tempo, and of each rung at one tempo and click", () => {
    const clicks = change(playing(wanted()), wanted(0.5, { click: BACK }), 5.5);
    expect(runs(clicks, 10.1).map(([, , begin, end]) => [begin, end])).toEqual([
      [0, 4],
      [0, 4],
    ]);
    const rungs = change(playing(wanted()), wanted(0.5, { rung: 2 }), 5.5);
    expect(runs(rungs, 10.1).map(([, rung]) => rung)).toEqual([1, 2]);
  });

  it("keeps the bars that were played where a change is stopped before its bar line", () => {
    const faster = change(playing(wanted(0.5)), wanted(0.25), 5.5);
    expect(runs(faster, 5.8)).toEqual([["120", 1, 0, 2]]);
  });

  it("forgets a change that another one overtook before its bar line", () => {
    const twice = change(change(playing(wanted(0.5)), wanted(0.25), 5.5), wanted(0.75), 5.6);
    expect(runs(twice, 9.1)).toEqual([
      ["120", 1, 0, 4],
      ["80", 1, 0, 3],
    ]);
    const back = change(change(playing(wanted(0.5)), wanted(0.25), 5.5), wanted(0.5), 5.6);
    expect(runs(back, 8.1)).toEqual([["120", 1, 0, 6]]);
  });

  it("goes on as one take where only the sound changes", () => {
    const louder = change(playing(wanted()), wanted(), 5.5);
    expect(runs(louder, 8.1)).toEqual([["120", 1, 0, 6]]);
    expect(isSameSegment(wanted(), wanted(0.5, { click: BACK }))).toBe(false);
  });

  it("makes no take of what cannot be measured, and keeps the one before it", () => {
    const part = change(playing(wanted()), wanted(0.5, { isMeasured: false, passes: null }), 5.5);
    expect(runs(part, 20)).toEqual([["120", 1, 0, 4]]);
    expect(stop(playing(wanted(0.5, { isMeasured: false })), 3, false)).toMatchObject({
      runs: [],
      short: false,
    });
  });

  it("gives each take the taps around it", () => {
    let session = change(playing(wanted(0.5)), wanted(0.25), 5.5);
    for (const at of [2, 3, 5.9, 6.1, 8]) session = tapped(session, at, "j");
    const ended = stop(session, 9.2, true);
    if (ended.phase !== "ending") throw new Error(ended.phase);
    expect(ended.runs.map((run) => run.notes.map(({ at }) => Math.round(at * 10) / 10))).toEqual([
      [0, 1, 3.9, 4.1],
      [-0.1, 0.1, 2],
    ]);
    expect(ended.runs.every((run) => run.slipped)).toBe(true);
    expect(ended.runs.flatMap((run) => run.notes).every((note) => note.key === "j")).toBe(true);
  });

  it("makes a take of a part of its own, which is no segment of the whole", () => {
    const part = { seam: 0 } as NonNullable<Wanted["part"]>;
    const session = change(playing(wanted()), wanted(0.5, { part, rung: null, remedyId: 4 }), 5.5);
    const ended = stop(session, 8.1, false);
    if (ended.phase !== "ending") throw new Error(ended.phase);
    expect(ended.runs.map((run) => [run.rung, run.part, run.remedyId])).toEqual([
      [1, null, null],
      [null, part, 4],
    ]);
  });

  it("ends by itself after its passes, of the segment that plays last", () => {
    const session = playing(wanted());
    expect(endsAt(session)).toBe(10);
    expect(endsAt(change(session, wanted(0.25), 5.5))).toBe(6 + 2 * 2);
    expect(endsAt(playing(wanted(0.5, { passes: null })))).toBe(Number.POSITIVE_INFINITY);
  });

  it("holds to what was heard, though the clocks slip back", () => {
    const session = reached(reached(playing(wanted()), 8.1), 7);
    expect(runs(session, null)).toEqual([["120", 1, 0, 6]]);
  });
});

describe("ending", () => {
  it("is over once what was played has been taken", () => {
    const ended = stop(playing(wanted()), 6, false);
    expect(stop(ended, 9, false)).toBe(ended);
    expect(taken(ended)).toEqual(IDLE_SESSION);
    expect(start(ended, wanted())).toBe(ended);
  });
});

describe("what a device tells of a take", () => {
  it("ends the last note of a pitch that still sounds, and no other", () => {
    let session = playing(wanted());
    session = tapped(session, 2.1, "R", { pitch: 60, level: 80 });
    session = tapped(session, 2.6, null, { pitch: 62, level: 70 });
    session = letGo(session, 2.7, 60);
    session = letGo(session, 2.8, 64);
    session = tapped(session, 3.1, "R", { pitch: 60, level: 90 });
    const ended = stop(session, 10, false);
    const notes = ended.phase === "ending" ? (ended.runs[0]?.notes ?? []) : [];
    expect(notes.map((one) => [one.at, one.key, one.pitch, one.level, one.until])).toEqual([
      [expect.closeTo(0.1), "R", 60, 80, expect.closeTo(0.7)],
      [expect.closeTo(0.6), null, 62, 70, null],
      [expect.closeTo(1.1), "R", 60, 90, null],
    ]);
  });

  it("begins where the counting that was begun again ends", () => {
    // At 1 s of the count-in, two seconds long, another tempo is asked for: counted in again from 2 to 5 s.
    const changed = change(playing(wanted()), wanted(0.75), 1);
    expect(stretchOf(changed)).toMatchObject({ from: 2, base: 5, withLead: true });
    const { clicks, alone } = clicksOf(changed, 6);
    expect(clicks).toEqual([0, 0.5, 1, 1.5, 2, 2.75, 3.5, 4.25, 5, 5.75].map((at) => expect.closeTo(at)));
    expect(alone).toBe(8);
    expect(runs(changed, 8)).toEqual([["80", 1, 0, 3]]);
    // Stopped while it is counted again, nothing was begun; within the first bar, less than a bar.
    expect(stop(changed, 4, false)).toMatchObject({ runs: [], short: false });
    expect(stop(changed, 6, false)).toMatchObject({ runs: [], short: true });
  });

  it("tells the clicks up to a moment, and which come before the first note", () => {
    const session = playing(wanted());
    const score = wanted().score;
    const { clicks, alone } = clicksOf(session, 4);
    expect(alone).toBe(score.lead.ticks.length);
    expect(clicks.slice(0, alone)).toEqual(score.lead.ticks.map((tick) => expect.closeTo(tick.at)));
    expect(clicks.every((at) => at < 4)).toBe(true);
    // After a change the clicks of both tempi are told, each up to where the other takes over.
    const changed = change(session, wanted(0.75), 5);
    const all = clicksOf(changed, 9).clicks;
    expect(all).toEqual([...all].sort((one, other) => one - other));
    expect(new Set(all.map((at) => at.toFixed(4))).size).toBe(all.length);
  });
});
