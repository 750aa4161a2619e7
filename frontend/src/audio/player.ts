/** The player: puts a score on the audio clock. It is given times and works none out. */
import { heardAt, SlipWatch } from "./clock";
import {
  nextBarLine,
  opening,
  type Position,
  positionIn,
  type Score,
  type Seconds,
  type Sounding,
  type Stretch,
  soundings,
  takeOver,
} from "./schedule";
import { Sounds, type Timbre, type Voice } from "./sounds";

const LOOK_AHEAD = 0.5;
const TIMER_MS = 50;
/** Room between the press of Start and the first sound, and before a change that is still to come. */
const BEFORE_START = 0.15;
const BEFORE_CHANGE = 0.05;
/** Clicks start soft and cannot be made dangerous: gain of each channel, and a limiter behind them. */
const CLICK_GAIN = 0.4;
const NOTE_GAIN = 0.28;
const GAINS: Record<Channel, number> = { click: CLICK_GAIN, notes: NOTE_GAIN, backing: 0.16 };
const SOFT_START = 0.8;
/** What begins on an edge belongs to what begins there, whatever the last bit of its time says. */
const HAIR = 1e-6;

type Channel = "click" | "notes" | "backing";
type Planned = { at: Seconds; source: AudioBufferSourceNode };

export class Player {
  readonly context: AudioContext;
  readonly #sounds: Sounds;
  readonly #channels: Record<Channel, GainNode>;
  readonly #master: GainNode;
  readonly #timer: Worker;
  #stretches: Stretch[] = [];
  #planned: Planned[] = [];
  #until: Seconds = 0;
  #voice: Voice = "keys";
  #watch: SlipWatch | null = null;
  readonly #levels: Record<Channel, number> = { click: 1, notes: 1, backing: 1 };
  readonly #muted: Record<Channel, boolean> = { click: false, notes: false, backing: false };
  /** How the click sounds. */
  timbre: Timbre = "beep";
  /** Nothing sounds from this moment of the audio clock on. */
  endAt: Seconds = Number.POSITIVE_INFINITY;
  /** Called when the sound device stops by itself: unplugged, or the computer slept. */
  onLost: (() => void) | null = null;

  constructor() {
    this.context = new AudioContext({ latencyHint: "interactive" });
    const limiter = new DynamicsCompressorNode(this.context, {
      threshold: -6,
      ratio: 20,
      attack: 0.002,
      knee: 0,
    });
    this.#master = new GainNode(this.context, { gain: 1 });
    this.#channels = {
      click: new GainNode(this.context, { gain: CLICK_GAIN }),
      notes: new GainNode(this.context, { gain: NOTE_GAIN }),
      backing: new GainNode(this.context, { gain: GAINS.backing }),
    };
    for (const channel of Object.values(this.#channels)) channel.connect(this.#master);
    this.#master.connect(limiter).connect(this.context.destination);
    this.#sounds = new Sounds(this.context);
    this.#timer = new Worker(new URL("./timer.worker.ts", import.meta.url), { type: "module" });
    this.#timer.onmessage = () => this.#plan();
    this.context.onstatechange = () => {
      if (this.isPlaying && this.context.state !== "running") this.onLost?.();
    };
  }

  get isPlaying(): boolean {
    return this.#stretches.length > 0;
  }

  /** Whether the clocks slipped since the start, so that taps cannot be trusted. */
  get slipped(): boolean {
    return this.#watch?.slipped ?? false;
  }

  /** Start a score with its lead; returns the stretch that begins. */
  async start(score: Score, voice: Voice): Promise<Stretch> {
    this.stop();
    await this.context.resume();
    this.#voice = voice;
    for (const tone of score.tones) for (const midi of pitches(tone)) this.#sounds.note(voice, midi);
    const begin = this.context.currentTime + BEFORE_START;
    const first = opening(score, begin);
    this.#stretches = [first];
    this.#until = begin - HAIR;
    this.endAt = Number.POSITIVE_INFINITY;
    this.#watch = new SlipWatch(this.context);
    this.#master.gain.cancelScheduledValues(0);
    this.#master.gain.setValueAtTime(0.35, begin);
    this.#master.gain.linearRampToValueAtTime(1, begin + SOFT_START);
    this.#timer.postMessage(TIMER_MS);
    return first;
  }

  /** Go over to a changed score at the next bar line; returns the stretch that begins there. */
  change(score: Score): Stretch | null {
    const now = this.#stretches.at(-1);
    if (!now) return null;
    const line = nextBarLine(now, Math.max(this.context.currentTime + BEFORE_CHANGE, now.from));
    const next = takeOver(now, score, line);
    this.#stretches = [...this.#stretches.filter((one) => one.from < next.from), next].slice(-8);
    for (const one of this.#planned) if (one.at >= next.from - HAIR) one.source.stop();
    this.#planned = this.#planned.filter((one) => one.at < next.from - HAIR);
    this.#until = Math.min(this.#until, next.from - HAIR);
    this.#plan();
    return next;
  }

  /** Silence a channel, or let it sound: at the next bar line while playing, else at once. */
  mute(channel: Channel, muted: boolean): void {
    const { gain } = this.#channels[channel];
    this.#muted[channel] = muted;
    const level = this.#gainOf(channel);
    const stretch = this.#stretches.at(-1);
    const at = stretch
      ? nextBarLine(stretch, this.context.currentTime + BEFORE_CHANGE).at
      : this.context.currentTime;
    // A hair before the line, so that the click on it already obeys.
    const from = Math.max(0, at - 1e-4);
    gain.cancelScheduledValues(from);
    gain.setValueAtTime(level, from);
  }

  /** How loud a channel is, as a share of the loudest that is safe; at once. */
  level(channel: Channel, share: number): void {
    this.#levels[channel] = Math.min(1, Math.max(0, share));
    this.#channels[channel].gain.setTargetAtTime(this.#gainOf(channel), this.context.currentTime, 0.03);
  }

  #gainOf(channel: Channel): number {
    if (this.#muted[channel]) return 0;
    return this.#levels[channel] * GAINS[channel];
  }

  /** Stop; what sounds already rings out, what is still to come does not sound. */
  stop(): void {
    this.#timer.postMessage(null);
    const now = this.context.currentTime;
    for (const one of this.#planned) one.source.stop(one.at > now ? 0 : now + 0.25);
    this.#planned = [];
    this.#stretches = [];
  }

  /** Give the device and the worker back. */
  close(): void {
    this.stop();
    this.#timer.terminate();
    void this.context.close();
  }

  /** The moment on the audio clock that is heard at a moment of the screen's clock (ms). */
  heardAt(momentMs: number): Seconds {
    return heardAt(this.context, momentMs);
  }

  /** Where a moment of the audio clock lies in what is played; null when nothing is. */
  positionAt(at: Seconds): Position | null {
    const stretch = this.#stretches.findLast((one) => one.from <= at + 1e-9) ?? this.#stretches[0];
    return stretch ? positionIn(stretch, at) : null;
  }

  #plan(): void {
    if (!this.isPlaying) return;
    this.#watch?.check();
    const now = this.context.currentTime;
    const horizon = now + LOOK_AHEAD;
    if (horizon <= this.#until) return;
    this.#stretches.forEach((stretch, index) => {
      const ends = (this.#stretches[index + 1]?.from ?? Number.POSITIVE_INFINITY) - HAIR;
      const after = Math.max(this.#until, stretch.from - HAIR);
      const before = Math.min(horizon, ends, this.endAt - HAIR);
      if (after < before) for (const one of soundings(stretch, after, before)) this.#sound(one);
    });
    this.#until = horizon;
    this.#planned = this.#planned.filter((one) => one.at > now - 2);
  }

  #sound(one: Sounding): void {
    if (one.kind === "click") this.#start(one, this.#sounds.click(one.role, this.timbre), 1);
    else if (one.kind === "back") {
      if (one.drum) this.#start(one, this.#sounds.drum(one.drum), 1);
      for (const midi of one.midis)
        this.#start(one, this.#sounds.note("keys", midi), one.midis.length ** -0.7);
    }
    // The tones of a chord together are a little louder than one note, not many times.
    else
      for (const midi of pitches(one))
        this.#start(one, this.#sounds.note(this.#voice, midi), (1 + one.also.length) ** -0.7);
  }

  #start(one: Sounding, buffer: AudioBuffer, share: number): void {
    const lasts = one.kind === "note" || (one.kind === "back" && one.drum === null);
    const source = new AudioBufferSourceNode(this.context, { buffer });
    const gain = new GainNode(this.context, { gain: loudness(one) * share });
    source.connect(gain).connect(this.#channels[CHANNEL_OF[one.kind]]);
    source.start(one.at);
    if (lasts) {
      const ends = one.at + one.seconds * 0.95;
      gain.gain.setTargetAtTime(0, ends, 0.015);
      source.stop(ends + 0.12);
    }
    this.#planned.push({ at: one.at, source });
  }
}

const CHANNEL_OF: Record<Sounding["kind"], Channel> = { click: "click", note: "notes", back: "backing" };

function loudness(one: Sounding): number {
  switch (one.kind) {
    case "note":
      return one.accented ? 1 : 0.55;
    case "click":
      return (one.loud ?? 1) * (one.role === "plain" ? 0.75 : 1);
    case "back":
      return 1;
  }
}

/** Every pitch of a note: more than one where it is a chord, null where it has none. */
function pitches(tone: { midi: number | null; also: number[] }): (number | null)[] {
  return [tone.midi, ...tone.also];
}
