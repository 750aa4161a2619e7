import { describe, expect, it } from "vitest";
import { opening, positionIn } from "../../audio/schedule";
import { scoreOf } from "../../audio/testScore";
import { IDLE, lastBarLine, momentOf, runStart } from "./runs";

const score = scoreOf(0.5);
const stretch = opening(score, 0);

describe("what is measured of a run", () => {
  it.each([
    ["nothing before the first note", 1, 0],
    ["nothing of a bar that was not finished", 3.9, 0],
    ["one bar", 4.2, 2],
    ["a whole pass", 6, 4],
    ["a pass and a bar", 8.7, 6],
  ])("%s", (_, at, end) => {
    expect(lastBarLine(stretch, at)).toBe(end);
  });

  it("loses no bar to rounding, wherever on the clock it began", () => {
    const odd = scoreOf(60 / 180);
    for (let begin = 0.1; begin < 40; begin += 0.137) {
      const played = opening(odd, begin);
      const end = played.base + 2 * odd.loop_seconds;
      expect(lastBarLine(played, end)).toBeCloseTo(2 * odd.loop_seconds, 9);
    }
  });

  it("begins at the first note, or at the bar line of a change", () => {
    expect(runStart(stretch)).toBe(0);
    expect(runStart({ score, base: 10, from: 12, withLead: false })).toBe(2);
  });
});

describe("what the screen says", () => {
  it.each([
    ["counts in", 0.6, { phase: "count", word: "two" }],
    ["counts bars from 1", 2, { phase: "play", bar: 1, pass: 1 }],
    ["is in the second bar on its line", 4, { phase: "play", bar: 2, pass: 1 }],
    ["counts passes", 6.1, { phase: "play", bar: 1, pass: 2 }],
  ])("%s", (_, at, moment) => {
    expect(momentOf(positionIn(stretch, at))).toEqual({
      ...IDLE,
      since: moment.phase === "play" ? stretch.base : 0,
      ...moment,
    });
  });

  it("says a division before it is played, and then counts", () => {
    const rehearsals = [{ at: 0, seconds: 1, division: "3" }];
    const saying = opening({ ...score, lead: { ...score.lead, rehearsals } }, 0);
    expect(momentOf(positionIn(saying, 0.6))).toMatchObject({ phase: "say", word: "two", division: "3" });
    expect(momentOf(positionIn(saying, 1.1))).toMatchObject({ phase: "count", word: "three" });
  });

  it("goes on counting to a pickup, in the first turn alone", () => {
    const words = [...score.lead.words, { at: 2, word: "go" }];
    const pickup = opening({ ...score, lead: { ...score.lead, words, until: 2.75 } }, 0);
    expect(momentOf(positionIn(pickup, 2.5))).toMatchObject({ phase: "count", word: "go" });
    expect(momentOf(positionIn(pickup, 2.8)).phase).toBe("play");
    expect(momentOf(positionIn(pickup, 6.5)).phase).toBe("play");
  });

  it("asks nobody to listen where there is nothing to listen to, though the sound is still on its way", () => {
    expect(momentOf(positionIn(stretch, -0.1))).toMatchObject({ phase: "count", word: "" });
  });

  it("listens before it counts", () => {
    const listening = { ...score, lead: { ...score.lead, listen_seconds: 2, seconds: 4 } };
    expect(momentOf(positionIn(opening(listening, 0), 1)).phase).toBe("listen");
  });
});
