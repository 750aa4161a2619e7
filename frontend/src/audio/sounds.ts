import type { Schemas } from "../api/client";
import type { Score } from "../api/unpack";

/** The sounds, made here from the server's recipes: three reference voices, drums, and the click by its role. */

export type Recipes = Schemas["Recipes"];
export type Voice = Schemas["PerformanceShape"]["voice"];
export type ClickRole = "strong" | "plain" | "division" | "count" | "pulse";
export type Drum = NonNullable<Score["backing"][number]["drum"]>;
export type Timbre = "beep" | "wood" | "tick";

/** How loud each role of the click is beside the others, and how it sounds if not as the rest of it. */
export type ClickRoles = Record<"strong" | "plain" | "division", { level: number; timbre: Timbre | null }>;

/** A note of up to so many seconds has faded out within its first part, in seconds too. */
const SOON_OVER = 0.35;
const FIRST_PART = 0.5;

/** Sounds of one audio context, each made once. */
export class Sounds {
  readonly #made = new Map<string, AudioBuffer>();

  constructor(
    private readonly context: BaseAudioContext,
    private readonly recipes: Recipes,
  ) {}

  /** A note; of one that is let go soon only its first half second is made, a third of the work. */
  note(voice: Voice, midi: number | null, seconds = Number.POSITIVE_INFINITY): AudioBuffer {
    const { note_seconds: whole, pluck, partials } = this.recipes;
    const length = seconds <= SOON_OVER ? Math.min(whole, FIRST_PART) : whole;
    return this.#once(`${voice} ${midi} ${length}`, length, (samples, rate) => {
      const hertz = 440 * 2 ** (((midi ?? 0) - 69) / 12);
      if (midi === null) clap(samples, rate, this.recipes);
      else if (voice === "pluck") plucked(samples, rate, hertz, pluck);
      else if (voice !== "struck" && partials[voice]) blown(samples, rate, hertz, partials[voice]);
    });
  }

  click(role: ClickRole, timbre: Timbre): AudioBuffer {
    const { seconds, rise, hertz, waves } = this.recipes.clicks;
    return this.#once(`${timbre} ${role}`, seconds, (samples, rate) => {
      for (let at = 0; at < samples.length; at++) {
        const time = at / rate;
        for (const { ratio, weight, fading } of waves[timbre] ?? [])
          samples[at] = (samples[at] ?? 0) + weight * wave(ratio * (hertz[role] ?? 0), time, fading);
        samples[at] = (samples[at] ?? 0) * Math.min(1, time * rise);
      }
    });
  }

  drum(drum: Drum): AudioBuffer {
    return this.#once(drum, this.recipes.drum_seconds, (samples, rate) => {
      const recipe = this.recipes.drums[drum];
      if (!recipe) return;
      const burst = noise(samples.length, 11);
      for (let at = 0; at < samples.length; at++) {
        const time = at / rate;
        const hertz = recipe.hertz + recipe.falls * Math.exp(-recipe.falling * time);
        const hiss = (burst[at] ?? 0) * Math.exp(-recipe.noise_fading * time);
        samples[at] = recipe.tone * wave(hertz, time, recipe.tone_fading) + recipe.noise * hiss;
      }
    });
  }

  #once(key: string, seconds: number, fill: (samples: Float32Array, rate: number) => void): AudioBuffer {
    let buffer = this.#made.get(key);
    if (!buffer) {
      const rate = this.context.sampleRate;
      buffer = this.context.createBuffer(1, Math.ceil(seconds * rate), rate);
      fill(buffer.getChannelData(0), rate);
      this.#made.set(key, buffer);
    }
    return buffer;
  }
}

const wave = (hertz: number, time: number, fading: number) =>
  Math.sin(2 * Math.PI * hertz * time) * Math.exp(-fading * time);

/** A plucked string: a burst of noise in a loop that loses its edge (Karplus and Strong 1983). */
function plucked(samples: Float32Array, rate: number, hertz: number, recipe: Schemas["Pluck"]): void {
  const period = Math.max(2, Math.round(rate / hertz));
  const string = noise(period, period);
  // The string swings about its place: what all of the noise has in common would be a push and no tone.
  const push = string.reduce((sum, one) => sum + one, 0) / period;
  for (let at = 0; at < period; at++) string[at] = (string[at] ?? 0) - push;
  let last = 0;
  let place = 0;
  for (let at = 0; at < samples.length; at++) {
    const now = string[place] ?? 0;
    string[place] = recipe.keeps * (now + last);
    last = now;
    samples[at] = now * recipe.gain;
    if (++place === period) place = 0;
  }
}

/** Partials that fade, the higher the sooner. */
function blown(samples: Float32Array, rate: number, hertz: number, recipe: Schemas["Partials"]): void {
  const { weights, fading, attack } = recipe;
  weights.forEach((weight, index) => {
    const partial = hertz * (index + 1);
    if (partial > rate / 2.2) return;
    const step = (2 * Math.PI * partial) / rate;
    const fade = Math.exp((-fading * (1 + index * 0.8)) / rate);
    // A swing that fades follows from the two samples before it: no sine for each of them.
    const [turn, loss] = [2 * fade * Math.cos(step), fade * fade];
    let [before, now] = [(-weight * 0.5 * Math.sin(step)) / fade, 0];
    for (let at = 0; at < samples.length; at++) {
      samples[at] = (samples[at] ?? 0) + now;
      const next = turn * now - loss * before;
      before = now;
      now = next;
    }
  });
  for (let at = 0; at < attack * rate; at++) samples[at] = ((samples[at] ?? 0) * at) / (attack * rate);
}

function clap(samples: Float32Array, rate: number, recipes: Recipes): void {
  const burst = noise(Math.ceil(rate * recipes.clap_seconds), 7);
  for (let at = 0; at < burst.length; at++)
    samples[at] = (burst[at] ?? 0) * Math.exp((-at / rate) * recipes.clap_fading);
}

/** The same noise each time for a seed (a linear congruential generator; Numerical Recipes' constants). */
function noise(length: number, seed: number): Float32Array {
  const found = new Float32Array(length);
  let state = seed >>> 0;
  for (let at = 0; at < length; at++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    found[at] = state / 2 ** 31 - 1;
  }
  return found;
}
