import { beforeEach, describe, expect, it, vi } from "vitest";
import { advance, FakeContext, FakeNode, fakeGlobals } from "./fakeAudio";
import { Player } from "./player";
import type { Stretch } from "./schedule";
import { MADE, scoreOf } from "./testScore";

const score = scoreOf(0.5);

beforeEach(() => {
  for (const [name, fake] of Object.entries(fakeGlobals())) vi.stubGlobal(name, fake);
});

/** Everything that would sound of one stretch: lead, then clicks and notes of a turn. */
function expected(base: number): number[] {
  return [
    ...score.lead.ticks.map((tick) => base - score.lead.seconds + tick.at),
    ...score.ticks.map((tick) => base + tick.at),
    ...score.tones.map((tone) => base + tone.at),
  ].sort((a, b) => a - b);
}

/** The stretch of a start that nobody cancelled. */
async function begin(starting: Promise<Stretch | null>): Promise<Stretch> {
  const stretch = await starting;
  if (!stretch) throw new Error("cancelled");
  return stretch;
}

describe("the player", () => {
  it("sounds nothing of a start that was stopped before it was ready", async () => {
    const player = new Player(MADE);
    const starting = player.start(score, "pluck");
    player.stop();
    expect(await starting).toBeNull();
    advance(8);
    expect(FakeContext.newest.due()).toEqual([]);
    expect(player.isPlaying).toBe(false);
  });

  it("puts every time of the plan on the clock unchanged", async () => {
    const player = new Player(MADE);
    const stretch = await begin(player.start(score, "pluck"));
    player.endAt = stretch.base + score.loop_seconds;
    advance(8);
    expect(FakeContext.newest.due()).toEqual(expected(stretch.base));
  });

  it("moves its beginning, before anything sounds, when planning it took too long", async () => {
    const before = FakeNode.made.length;
    const player = new Player(MADE);
    const context = FakeContext.newest;
    // The context makes its destination first, the player its limiter, then the gain behind everything.
    const master = FakeNode.made[before + 2];
    let holdUps = 2;
    // The first two tries are held up until their beginning is over.
    context.meanwhile = () => {
      if (holdUps-- > 0) context.currentTime += 0.7;
    };
    const stretch = await begin(player.start(score, "pluck"));
    expect(holdUps).toBeLessThanOrEqual(0);
    expect(stretch.from).toBeGreaterThan(context.currentTime + 0.1);
    player.endAt = stretch.base + score.loop_seconds;
    advance(9);
    expect(context.due()).toEqual(expected(stretch.base));
    expect(context.sources.filter((one) => one.stoppedAt > one.startedAt && one.late)).toEqual([]);
    // Silent until then: whatever was planned too late is not heard.
    expect(master?.gain.settings).toEqual([
      { value: 0, at: 0 },
      { value: 0.35, at: stretch.from },
    ]);
  });

  it("does not begin when it is stopped before anything sounded", async () => {
    const player = new Player(MADE);
    const starting = player.start(score, "pluck");
    await Promise.resolve();
    await vi.waitFor(() => expect(player.isPlaying).toBe(true), { interval: 0 });
    player.stop();
    await starting;
    expect(player.isPlaying).toBe(false);
    advance(3);
    expect(FakeContext.newest.due()).toEqual([]);
  });

  it("holds every time when the timer comes late", async () => {
    const player = new Player(MADE);
    const stretch = await begin(player.start(score, "keys"));
    player.endAt = stretch.base + score.loop_seconds;
    advance(8, 0.4);
    expect(FakeContext.newest.due()).toEqual(expected(stretch.base));
  });

  it("has not drifted by a sample after ten minutes", async () => {
    const beat = 60 / 97;
    const player = new Player(MADE);
    const { base } = await begin(player.start({ ...scoreOf(beat), tones: [] }, "keys"));
    player.endAt = base + 600;
    advance(605);
    const clicks = FakeContext.newest.due().filter((at) => at >= base);
    expect(clicks).toHaveLength(Math.ceil(600 / beat));
    const off = clicks.map((at, number) => Math.abs(at - base - (number * 60) / 97));
    expect(Math.max(...off)).toBeLessThan(1 / 48_000);
  });

  it("changes the tempo on the next bar line, and what was planned beyond it never sounds", async () => {
    const player = new Player(MADE);
    const stretch = await begin(player.start(score, "wind"));
    advance(3);
    const next = player.change(scoreOf(1));
    const line = stretch.base + 2;
    expect(next?.from).toBeCloseTo(line, 9);
    if (next) player.endAt = next.from + 4;
    advance(8);
    const after = FakeContext.newest.due().filter((at) => at >= line - 1e-9);
    const clicks = [0, 1, 2, 3].map((beat) => line + beat);
    const notes = [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5].map((half) => line + half);
    expect(after.map((at) => at.toFixed(6))).toEqual(
      [...clicks, ...notes].sort((a, b) => a - b).map((at) => at.toFixed(6)),
    );
  });

  it("says where a moment of the clock lies, before and after a change", async () => {
    const player = new Player(MADE);
    const stretch = await begin(player.start(score, "keys"));
    expect(player.positionAt(stretch.base + 4.25)).toMatchObject({ turn: 1, within: 0.25 });
    advance(3);
    player.change(scoreOf(1));
    expect(player.positionAt(stretch.base + 1.5)).toMatchObject({ turn: 0, within: 1.5 });
    expect(player.positionAt(stretch.base + 3)?.within).toBeCloseTo(5, 9);
  });

  it("stops what is still to come", async () => {
    const player = new Player(MADE);
    await player.start(score, "keys");
    advance(1);
    player.stop();
    const { currentTime } = FakeContext.newest;
    expect(FakeContext.newest.due().every((at) => at <= currentTime)).toBe(true);
    expect(player.isPlaying).toBe(false);
  });

  it("says when the device stops by itself", async () => {
    const player = new Player(MADE);
    const lost = vi.fn();
    player.onLost = lost;
    await player.start(score, "keys");
    FakeContext.newest.state = "interrupted";
    FakeContext.newest.onstatechange?.();
    expect(lost).toHaveBeenCalledExactlyOnceWith("device");
  });

  it("says when the computer slept, and plans nothing more", async () => {
    vi.useFakeTimers({ now: 0, toFake: ["Date"] });
    const player = new Player(MADE);
    const lost = vi.fn(() => player.stop());
    player.onLost = lost;
    await player.start(score, "keys");
    advance(1);
    expect(lost).not.toHaveBeenCalled();
    const before = FakeContext.newest.sources.length;
    vi.setSystemTime(10_000);
    advance(1);
    expect(lost).toHaveBeenCalledExactlyOnceWith("sleep");
    expect(FakeContext.newest.sources.length).toBe(before);
    vi.useRealTimers();
  });

  it("says when no loudspeaker is left", async () => {
    const devices = Object.assign(new EventTarget(), {
      enumerateDevices: async () => [{ kind: "audioinput" }],
    });
    vi.stubGlobal("navigator", { mediaDevices: devices });
    const player = new Player(MADE);
    const lost = vi.fn();
    player.onLost = lost;
    await player.start(score, "keys");
    devices.dispatchEvent(new Event("devicechange"));
    await vi.waitFor(() => expect(lost).toHaveBeenCalledExactlyOnceWith("device"));
  });

  it("sets how loud a channel is, never above what is its most, and a muted one stays silent", () => {
    const player = new Player(MADE);
    const click = FakeNode.made.at(-4);
    const now = () => click?.gain.settings.at(-1)?.value;
    player.level("click", 0.5);
    const half = now() ?? 0;
    player.level("click", 7);
    expect(now()).toBeCloseTo(2 * half, 9);
    player.mute("click", true);
    player.level("click", 1);
    expect(now()).toBe(0);
    player.mute("click", false);
    expect(now()).toBeCloseTo(2 * half, 9);
  });

  it("mutes at the bar line on which a new tempo begins, not at one of a tempo that is not there yet", async () => {
    const player = new Player(MADE);
    const click = FakeNode.made.at(-4);
    const stretch = await begin(player.start(scoreOf(1), "keys"));
    advance(5);
    expect(FakeContext.newest.currentTime).toBeLessThan(stretch.base + 1.8);
    const next = player.change(score);
    expect(next?.from).toBeCloseTo(stretch.base + 4, 9);
    player.mute("click", true);
    expect(click?.gain.settings.at(-1)?.at).toBeCloseTo(stretch.base + 4, 3);
  });

  it("keeps a mute that is to come when a level is moved before it", async () => {
    const player = new Player(MADE);
    const click = FakeNode.made.at(-4);
    await begin(player.start(score, "keys"));
    advance(3);
    player.mute("click", true);
    const at = click?.gain.settings.at(-1)?.at ?? 0;
    player.level("click", 0.5);
    const [level, mute] = click?.gain.settings.slice(-2) ?? [];
    expect(level?.at).toBeCloseTo(FakeContext.newest.currentTime, 6);
    expect(level?.value).toBeGreaterThan(0);
    expect(mute).toEqual({ value: 0, at });
  });

  it("lets the backing sound beside the notes, each drum and each tone of a chord", async () => {
    const player = new Player(MADE);
    const backing = [
      { at: 0, seconds: 1, midis: [48, 52, 55], drum: null },
      { at: 0.5, seconds: 0.1, midis: [], drum: "kick" as const },
    ];
    const bare = { ...score, tones: [], ticks: [], lead: { ...score.lead, ticks: [] } };
    const stretch = await begin(player.start({ ...bare, backing }, "keys"));
    player.endAt = stretch.base + score.loop_seconds;
    advance(8);
    const due = [0, 0, 0, 0.5].map((at) => stretch.base + at);
    expect(FakeContext.newest.due()).toEqual(due);
  });

  it("strikes what has no pitch with a sound of its own, and leaves a bar unmarked where that is wanted", async () => {
    const player = new Player(MADE);
    const drum = "drum_low" as const;
    const tones = [
      {
        event: 0,
        at: 0,
        seconds: 0.2,
        midi: null,
        also: [],
        level: "accent" as const,
        loud: 1,
        apart: 0,
        drum,
      },
    ];
    const ticks = [{ at: 0, level: "strong" as const }];
    const bare = { ...score, tones, ticks, lead: { ...score.lead, ticks: [] } };
    const stretch = await begin(player.start(bare, "struck"));
    player.endAt = stretch.base + score.loop_seconds;
    advance(8);
    expect(FakeContext.newest.due()).toEqual([stretch.base, stretch.base]);
    player.stop();
    player.isUnmarked = true;
    player.roles = {
      strong: { level: 1, timbre: null },
      plain: { level: 0.5, timbre: "wood" },
      division: { level: 1, timbre: null },
    };
    const again = await begin(player.start(bare, "struck"));
    player.endAt = again.base + score.loop_seconds;
    advance(8);
    // The bar's first click is as loud as any other, at the level of those; the drum keeps its own.
    const louds = FakeNode.made.slice(-4).map((node) => node.loud);
    expect(louds).toContain(MADE.recipes.levels.plain_click * 0.5);
    expect(louds).toContain(MADE.recipes.levels.accent);
  });

  it("lets the vowel of a word, not its consonant, sound in time; one that is unknown is said as “ta”", async () => {
    vi.stubGlobal("fetch", async (address: string) => ({
      ok: !address.includes("own"),
      arrayBuffer: async () => new ArrayBuffer(0),
    }));
    const player = new Player(MADE);
    const said = [
      { at: 0, seconds: 1, word: "1" },
      { at: 1, seconds: 1, word: "und" },
    ];
    const lead = { ...score.lead, ticks: [], said: [{ at: 1, seconds: 1, word: "1" }] };
    const stretch = await begin(player.start({ ...score, tones: [], ticks: [], said, lead }, "keys"));
    player.endAt = stretch.base + score.loop_seconds;
    advance(8);
    const due = [1 - score.lead.seconds, 0, 1].map((at) => stretch.base + at - MADE.voice.anchor);
    expect(FakeContext.newest.due().map((at) => at.toFixed(9))).toEqual(due.map((at) => at.toFixed(9)));
  });

  it("does not wait for words of a server that does not answer", async () => {
    vi.useFakeTimers({ toFake: ["setTimeout"] });
    vi.stubGlobal("fetch", () => new Promise(() => {}));
    const player = new Player(MADE);
    const starting = player.start({ ...score, said: [{ at: 0, seconds: 1, word: "1" }] }, "keys");
    await vi.advanceTimersByTimeAsync(2000);
    await starting;
    expect(player.isPlaying).toBe(true);
    vi.useRealTimers();
  });

  it("can be muted before it plays", () => {
    expect(() => new Player(MADE).mute("click", true)).not.toThrow();
  });

  it("notices when the two clocks slip against each other", async () => {
    const player = new Player(MADE);
    await player.start(score, "keys");
    advance(1);
    expect(player.slipped).toBe(false);
    FakeContext.newest.outputLatency += 0.02;
    advance(0.1);
    expect(player.slipped).toBe(true);
  });
});
