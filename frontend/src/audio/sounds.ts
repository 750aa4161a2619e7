/** The sounds, made here from nothing: three reference voices and the click by its role. */

export type Voice = "pluck" | "keys" | "wind";
export type ClickRole = "strong" | "plain" | "count" | "pulse";
export type Drum = "kick" | "snare" | "hat";
export type Timbre = "beep" | "wood" | "tick";

const SECONDS = 1.6;
const CLICK_HERTZ: Record<ClickRole, number> = { strong: 1760, plain: 1175, count: 880, pulse: 587 };

/** Sounds of one audio context, each made once. */
export class Sounds {
  readonly #made = new Map<string, AudioBuffer>();

  constructor(private readonly context: BaseAudioContext) {}

  note(voice: Voice, midi: number | null): AudioBuffer {
    return this.#once(`${voice} ${midi}`, SECONDS, (samples, rate) => {
      if (midi === null) clap(samples, rate);
      else VOICES[voice](samples, rate, 440 * 2 ** ((midi - 69) / 12));
    });
  }

  click(role: ClickRole, timbre: Timbre): AudioBuffer {
    return this.#once(`${timbre} ${role}`, 0.08, (samples, rate) => {
      for (let at = 0; at < samples.length; at++) {
        const time = at / rate;
        samples[at] = CLICKS[timbre](CLICK_HERTZ[role], time) * Math.min(1, time * 2000);
      }
    });
  }

  drum(drum: Drum): AudioBuffer {
    return this.#once(drum, 0.25, (samples, rate) => {
      const burst = noise(samples.length, 11);
      for (let at = 0; at < samples.length; at++) samples[at] = DRUMS[drum](at / rate, burst[at] ?? 0);
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

/** A click at a moment of its 80 ms. */
const CLICKS: Record<Timbre, (hertz: number, time: number) => number> = {
  beep: (hertz, time) => wave(hertz, time, 70),
  wood: (hertz, time) => 0.8 * wave(0.6 * hertz, time, 110) + 0.6 * wave(1.51 * hertz, time, 260),
  tick: (hertz, time) => 1.2 * wave(2.3 * hertz, time, 420),
};

/** A drum at a moment, with the noise that it may use. */
const DRUMS: Record<Drum, (time: number, hiss: number) => number> = {
  kick: (time) => wave(55 + 60 * Math.exp(-40 * time), time, 14),
  snare: (time, hiss) => 0.5 * hiss * Math.exp(-28 * time) + 0.3 * wave(190, time, 30),
  hat: (time, hiss) => 0.35 * hiss * Math.exp(-90 * time),
};

type Fill = (samples: Float32Array, rate: number, hertz: number) => void;

const VOICES: Record<Voice, Fill> = {
  /** A plucked string: a burst of noise in a loop that loses its edge (Karplus and Strong 1983). */
  pluck: (samples, rate, hertz) => {
    const period = Math.max(2, Math.round(rate / hertz));
    const string = noise(period, period);
    // The string swings about its place: what all of the noise has in common would be a push and no tone.
    const push = string.reduce((sum, one) => sum + one, 0) / period;
    for (let at = 0; at < period; at++) string[at] = (string[at] ?? 0) - push;
    let last = 0;
    for (let at = 0; at < samples.length; at++) {
      const place = at % period;
      const now = string[place] ?? 0;
      string[place] = 0.497 * (now + last);
      last = now;
      samples[at] = now * 0.8;
    }
  },
  /** A struck key: partials that fade, the higher the sooner. */
  keys: (samples, rate, hertz) => partials(samples, rate, hertz, [1, 0.5, 0.28, 0.14, 0.07], 2.6, 0.003),
  /** A blown note: odd partials, a soft beginning, no fading. */
  wind: (samples, rate, hertz) => partials(samples, rate, hertz, [1, 0.12, 0.42, 0.06, 0.18], 0.25, 0.014),
};

function partials(
  samples: Float32Array,
  rate: number,
  hertz: number,
  weights: readonly number[],
  fading: number,
  attack: number,
): void {
  weights.forEach((weight, index) => {
    const partial = hertz * (index + 1);
    if (partial > rate / 2.2) return;
    const step = (2 * Math.PI * partial) / rate;
    const fade = Math.exp((-fading * (1 + index * 0.8)) / rate);
    let level = weight * 0.5;
    for (let at = 0; at < samples.length; at++) {
      samples[at] = (samples[at] ?? 0) + Math.sin(step * at) * level;
      level *= fade;
    }
  });
  for (let at = 0; at < attack * rate; at++) samples[at] = ((samples[at] ?? 0) * at) / (attack * rate);
}

function clap(samples: Float32Array, rate: number): void {
  const burst = noise(Math.ceil(rate * 0.12), 7);
  for (let at = 0; at < burst.length; at++) samples[at] = (burst[at] ?? 0) * Math.exp((-at / rate) * 45);
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
