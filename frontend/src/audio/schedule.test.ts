import { describe, expect, it } from "vitest";
import examples from "../../soundings.json";
import {
  firstAt,
  HAIR,
  nextBarLine,
  opening,
  positionIn,
  type Score,
  type Sounding,
  soundings,
  takeOver,
} from "./schedule";
import { scoreOf } from "./testScore";

const score = scoreOf(0.5);
const started = opening(score, 10);

describe("soundings", () => {
  it("begins with the lead, and the drill right after it", () => {
    const clicks = soundings(started, 10, 13).filter((one) => one.kind === "click");
    expect(clicks.map((one) => one.at)).toEqual([10, 10.5, 11, 11.5, 12, 12.5]);
    expect(clicks.map((one) => one.role)).toEqual(["count", "count", "count", "count", "strong", "plain"]);
  });

  it("gives every onset once, however the time is cut", () => {
    const whole = soundings(started, 10, 30).map((one) => `${one.kind} ${one.at}`);
    const cut: string[] = [];
    for (let from = 10; from < 30; from += 0.17)
      cut.push(...soundings(started, from, Math.min(30, from + 0.17)).map((one) => `${one.kind} ${one.at}`));
    expect(cut.sort()).toEqual(whole.sort());
    expect(new Set(whole).size).toBe(whole.length);
  });

  it("goes round without a gap and without adding rounding up", () => {
    const notes = soundings(started, 12 + 4000, 12 + 4004).filter((one) => one.kind === "note");
    expect(notes.map((one) => one.at)).toEqual(score.tones.map((tone) => 12 + 4000 + tone.at));
  });
});

/** One sounding as the files' list has it: when, of what kind, and what it is. */
function told(one: Sounding): [number, string, string] {
  const at = Math.round(one.at * 1e6) / 1e6;
  switch (one.kind) {
    case "click":
      return [at, "click", one.role];
    case "word":
      return [at, "word", one.word];
    case "back":
      return [at, "back", one.drum ?? one.midis.join(" ")];
    case "note":
      return [
        at,
        "note",
        [
          one.level,
          one.loud,
          one.apart,
          ...(one.drum ? [one.drum] : one.midi === null ? [] : [one.midi, ...one.also]),
        ].join(" "),
      ];
  }
}

describe("what sounds is what a file holds", () => {
  it.each(examples.map((example) => [example.name, example] as const))("%s", (_, example) => {
    const score = example.performance as unknown as Score;
    const begun = opening(score, 0);
    const end = begun.base + example.passes * score.loop_seconds - HAIR;
    const sounds: Sounding[] = [];
    // As the player asks for it: a little at a time.
    for (let from = -HAIR; from < end; from += 0.37)
      sounds.push(...soundings(begun, from, Math.min(end, from + 0.37)));
    const key = ([at, kind, what]: [number, string, string]) => `${at.toFixed(4)} ${kind} ${what}`;
    expect(sounds.map(told).map(key).sort()).toEqual(
      example.sounds.map((one) => key(one as [number, string, string])).sort(),
    );
  });
});

describe("bar lines", () => {
  it.each([
    ["during the lead it is the first note", 11, { bar: 0, at: 12 }],
    ["in the first bar it is the second", 12.3, { bar: 1, at: 14 }],
    ["on a bar line it is that line", 14, { bar: 1, at: 14 }],
    ["in the last bar it is the next turn", 14.01, { bar: 0, at: 16 }],
  ])("%s", (_, at, line) => {
    expect(nextBarLine(started, at)).toEqual(line);
  });

  it("does not move when the tempo changes on it", () => {
    const slower = scoreOf(0.75);
    const next = takeOver(started, slower, nextBarLine(started, 12.3));
    expect(next.base + (slower.bars[1]?.at ?? 0)).toBe(14);
    expect(soundings(next, 14, 15).map((one) => one.at)).toContain(14);
    expect(positionIn(next, 14)).toMatchObject({ turn: 0, within: 3 });
  });

  it("counts in again where the tempo changes while it is counted in", () => {
    const slower = scoreOf(0.75);
    const next = takeOver(started, slower, nextBarLine(started, 11));
    expect([next.from, next.base, next.withLead]).toEqual([12, 15, true]);
    expect(soundings(next, 12 - HAIR, 15).map((one) => one.at)).toEqual([12, 12.75, 13.5, 14.25]);
    // Where only what sounds with it changes, the count goes on.
    const other = takeOver(started, scoreOf(0.5), nextBarLine(started, 11));
    expect([other.from, other.base, other.withLead]).toEqual([12, 12, true]);
  });

  it("changes the tempo at the next bar line of the listening, and counts at the new one", () => {
    const listens = (beat: number) => {
      const made = scoreOf(beat);
      const lines = [0, 4 * beat, 8 * beat];
      const ticks = Array.from({ length: 12 }, (_, number) => ({
        at: number * beat,
        level: "plain" as const,
      }));
      const words = made.lead.words.map((one) => ({ ...one, at: one.at + 8 * beat }));
      return {
        ...made,
        lead: {
          ...made.lead,
          listen_seconds: 8 * beat,
          lines,
          ticks,
          words,
          seconds: 12 * beat,
          until: 12 * beat,
        },
      };
    };
    // Two bars of listening and one of counting, of 2 s each: the drill is due at 16.
    const old = opening(listens(0.5), 10);
    expect(nextBarLine(old, 10.5)).toEqual({ bar: 0, at: 12, leads: 1 });
    expect(nextBarLine(old, 12)).toEqual({ bar: 0, at: 12, leads: 1 });
    const next = takeOver(old, listens(0.75), nextBarLine(old, 10.5));
    // One bar of listening is left, and the bar of counting: 3 s each.
    expect([next.from, next.base, next.withLead]).toEqual([12, 18, true]);
    expect(positionIn(next, 12).stretch.score.bpm).toBe("80");
    expect(soundings(next, 12 - HAIR, 18).map((one) => one.at)).toEqual([
      12, 12.75, 13.5, 14.25, 15, 15.75, 16.5, 17.25,
    ]);
    // In the last bar of it, the counting is at the new tempo.
    const last = takeOver(old, listens(0.75), nextBarLine(old, 13));
    expect([last.from, last.base]).toEqual([14, 17]);
    // While it is counted in, it is counted in again, and not listened to again.
    const again = takeOver(old, listens(0.75), nextBarLine(old, 14.5));
    expect([again.from, again.base]).toEqual([16, 19]);
    // A shorter listening than what is left of this one is all of it.
    const short = takeOver(old, scoreOf(0.75), nextBarLine(old, 10.5));
    expect([short.from, short.base]).toEqual([12, 15]);
  });
});

describe("firstAt", () => {
  it("finds the first item at or after a time", () => {
    const items = [0, 1, 1, 2].map((at) => ({ at }));
    expect([-1, 0, 0.5, 1, 2, 3].map((at) => firstAt(items, at))).toEqual([0, 0, 1, 1, 3, 4]);
  });
});

describe("taking over with a part that goes round", () => {
  it("goes on in the bar of the same number, and begins where there is none", () => {
    const old = opening(score, 10);
    const line = { bar: 1, at: 15 };
    const part = { ...score, bars: [{ at: 0, number: 2, begin: 0, end: 4, cue: "" }] };
    expect(takeOver(old, part, line).base).toBe(15);
    expect(takeOver(old, score, line).base).toBe(15 - (score.bars[1]?.at ?? 0));
    const other = { ...part, bars: [{ at: 0, number: 9, begin: 0, end: 4, cue: "" }] };
    expect(takeOver(old, other, line).base).toBe(15);
  });
});

describe("a click that is longer than the drill", () => {
  it("goes round by itself, and is not begun anew with each turn", () => {
    const one = { at: 0, level: "strong" as const };
    const long = { ...score, ticks: [one], click_seconds: 4 * score.loop_seconds };
    const clicks = soundings(opening(long, 0), 0, 9 * score.loop_seconds).filter(
      (sounding) => sounding.kind === "click" && sounding.role === "strong",
    );
    const base = score.lead.seconds;
    expect(clicks.map((click) => click.at)).toEqual(
      [0, 4, 8].map((turn) => base + turn * score.loop_seconds),
    );
  });
});

describe("the inner pulse", () => {
  it("is heard once, from the first bar line, and fades as the server says", () => {
    const pulse = [
      { at: 0, loud: 1 },
      { at: 0.5, loud: 0.3 },
    ];
    const heard = soundings(opening({ ...score, pulse }, 0), 0, 4 * score.loop_seconds).filter(
      (one) => one.kind === "click" && one.role === "pulse",
    );
    expect(heard).toEqual(
      pulse.map(({ at, loud }) => ({ kind: "click", at: score.lead.seconds + at, role: "pulse", loud })),
    );
  });
});
