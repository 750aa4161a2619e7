import { describe, expect, it } from "vitest";
import { Sounds } from "./sounds";
import { MADE } from "./testScore";

const RATE = 48_000;

/** As much of an audio context as sounds are made with. */
const context = {
  sampleRate: RATE,
  createBuffer: (_channels: number, length: number) => {
    const samples = new Float32Array(length);
    return { length, getChannelData: () => samples };
  },
} as unknown as BaseAudioContext;

const samplesOf = (buffer: AudioBuffer) => buffer.getChannelData(0);

describe("the sounds", () => {
  it("swing as the sine says that they follow from", () => {
    const made = samplesOf(new Sounds(context, MADE.recipes).note("keys", 69));
    const { weights, fading, attack } = MADE.recipes.partials.keys ?? { weights: [], fading: 0, attack: 0 };
    for (const at of [0, 1, 100, 4_321, 48_000, made.length - 1]) {
      const time = at / RATE;
      const swings = weights.map(
        (weight, index) =>
          0.5 *
          weight *
          Math.sin(2 * Math.PI * 440 * (index + 1) * time) *
          Math.exp(-fading * (1 + 0.8 * index) * time),
      );
      const wanted = swings.reduce((sum, one) => sum + one, 0) * Math.min(1, time / attack);
      expect(made[at]).toBeCloseTo(wanted, 5);
    }
  });

  it("are made as far as they are heard, and the same that far", () => {
    const sounds = new Sounds(context, MADE.recipes);
    for (const voice of ["keys", "pluck"] as const) {
      const [whole, part] = [samplesOf(sounds.note(voice, 60)), samplesOf(sounds.note(voice, 60, 0.3))];
      expect(part.length).toBeLessThan(whole.length / 3);
      expect([...part]).toEqual([...whole.slice(0, part.length)]);
    }
    expect(sounds.note("keys", 60, 0.3)).toBe(sounds.note("keys", 60, 0.2));
    expect(sounds.note("keys", 60, 1).length).toBe(Math.ceil(MADE.recipes.note_seconds * RATE));
  });
});
