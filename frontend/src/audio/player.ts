/** The player: puts a score on the audio clock. It is given times and works none out. */
import type { Schemas } from "../api/client";
import { heardAt, SlipWatch } from "./clock";
import { timer } from "./outside";
import {
  HAIR,
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
import { type ClickRole, type ClickRoles, type Recipes, Sounds, type Timbre, type Voice } from "./sounds";
import { Words } from "./words";

const LOOK_AHEAD = 0.5;
const TIMER_MS = 50;
/** Where the sound stood still for so long while time went on, the computer slept. */
const SLEPT_MS = 4000;
/** Room between the moment at which all is ready and the first sound, and before a change that is still to come. */
const BEFORE_START = 0.15;
const BEFORE_CHANGE = 0.05;
/** A beginning nearer than this is too near to be sure of; it is moved, each time by twice as much, at most so often. */
const TOO_NEAR = 0.01;
const MOST_MOVES = 5;
/** Clicks start soft and cannot be made dangerous: the gain of each channel is the server’s, a limiter behind them. */
const SOFT_START = 0.8;

const CHANNELS = ["click", "notes", "backing", "voice"] as const;
export type Channel = (typeof CHANNELS)[number];
/** Why the sound stopped by itself. */
export type Lost = "device" | "sleep";
/** What the player makes its sounds of. */
export type Made = { recipes: Recipes; voice: Schemas["VoiceChoice"] };
type Planned = { at: Seconds; source: AudioBufferSourceNode };

export class Player {
  readonly context: AudioContext;
  readonly #sounds: Sounds;
  readonly #words: Words;
  readonly #gains: Recipes["levels"];
  readonly #channels: Record<Channel, GainNode>;
  readonly #master: GainNode;
  readonly #timer: Worker;
  #stretches: Stretch[] = [];
  #planned: Planned[] = [];
  #until: Seconds = 0;
  /** How often it was stopped: a start that began before the last time is none. */
  #stops = 0;
  #voice: Voice = "keys";
  #watch: SlipWatch | null = null;
  readonly #levels: Record<Channel, number> = { click: 1, notes: 1, backing: 1, voice: 1 };
  /** When a channel is silenced, or let sound again. */
  readonly #switchesAt: Record<Channel, Seconds> = { click: 0, notes: 0, backing: 0, voice: 0 };
  readonly #muted: Record<Channel, boolean> = { click: false, notes: false, backing: false, voice: false };
  /** How the click sounds. */
  timbre: Timbre = "beep";
  /** How loud each of its roles is, and how that one sounds if not as the others; all alike unless said. */
  roles: ClickRoles | null = null;
  /** Whether the first click of a bar is left as any other, on purpose: the student has to know where it is. */
  isUnmarked = false;
  /** Nothing sounds from this moment of the audio clock on. */
  endAt: Seconds = Number.POSITIVE_INFINITY;
  /** Called when the sound stops by itself: the device was unplugged or failed, or the computer slept. */
  onLost: ((why: Lost) => void) | null = null;
  #ahead = 0;

  constructor({ recipes, voice }: Made) {
    this.#gains = recipes.levels;
    this.context = new AudioContext({ latencyHint: "interactive" });
    const limiter = new DynamicsCompressorNode(this.context, {
      threshold: -6,
      ratio: 20,
      attack: 0.002,
      knee: 0,
    });
    this.#master = new GainNode(this.context, { gain: 1 });
    const channel = (name: Channel) => {
      const node = new GainNode(this.context, { gain: recipes.levels[name] });
      node.connect(this.#master);
      return node;
    };
    this.#channels = {
      click: channel("click"),
      notes: channel("notes"),
      backing: channel("backing"),
      voice: channel("voice"),
    };
    this.#master.connect(limiter).connect(this.context.destination);
    this.#sounds = new Sounds(this.context, recipes);
    this.#words = new Words(this.context, voice);
    this.#timer = timer();
    this.#timer.onmessage = () => this.#tick();
    this.context.onstatechange = () => this.context.state !== "running" && this.#lose("device");
    this.context.addEventListener("error", () => this.#lose("device"));
    navigator.mediaDevices?.addEventListener("devicechange", this.#checkDevices);
  }

  get isPlaying(): boolean {
    return this.#stretches.length > 0;
  }

  /** Whether the clocks slipped since the start, so that taps cannot be trusted. */
  get slipped(): boolean {
    return this.#watch?.slipped ?? false;
  }

  /**
   * Start a score with its lead; returns the stretch that begins.
   *
   * Nothing is heard until the first half second is planned and still to come: where a busy computer took too long
   * over it, the beginning is moved, and what was planned for it never sounds. A stop meanwhile cancels it: null.
   */
  async start(score: Score, voice: Voice): Promise<Stretch | null> {
    this.stop();
    const asked = this.#stops;
    await Promise.all([this.context.resume(), this.#words.prepareSoon(score)]);
    if (asked !== this.#stops) return null;
    this.#voice = voice;
    const { gain } = this.#master;
    gain.cancelScheduledValues(0);
    gain.setValueAtTime(0, 0);
    let [first, room] = [this.#planFrom(score, BEFORE_START), BEFORE_START];
    for (let moves = 0; moves < MOST_MOVES; moves++) {
      // The clock of the sound may stand still for as long as one task of the screen lasts.
      await new Promise((next) => setTimeout(next));
      if (asked !== this.#stops) return null;
      if (this.context.currentTime + TOO_NEAR < first.from) break;
      for (const one of this.#planned) one.source.stop();
      room *= 2;
      first = this.#planFrom(score, room);
    }
    gain.setValueAtTime(0.35, first.from);
    gain.linearRampToValueAtTime(1, first.from + SOFT_START);
    this.#watch = new SlipWatch(this.context);
    this.#ahead = Date.now() - this.context.currentTime * 1000;
    this.#timer.postMessage(TIMER_MS);
    return first;
  }

  /** Begin a score so many seconds from now, and plan what sounds first. */
  #planFrom(score: Score, room: Seconds): Stretch {
    const begin = this.context.currentTime + room;
    const first = opening(score, begin);
    this.#planned = [];
    this.#stretches = [first];
    this.#until = begin - HAIR;
    this.endAt = Number.POSITIVE_INFINITY;
    this.#plan();
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
    // Words that are new are fetched while the rest goes on; until they are there they are left out.
    void this.#words.prepare(score);
    this.#plan();
    return next;
  }

  /** Silence a channel, or let it sound: at the next bar line while playing, else at once. */
  mute(channel: Channel, muted: boolean): void {
    const { gain } = this.#channels[channel];
    this.#muted[channel] = muted;
    const level = this.#gainOf(channel);
    const stretch = this.#stretches.at(-1);
    // What has changed its tempo goes on as it was up to the bar line on which it does.
    const at = stretch
      ? nextBarLine(stretch, Math.max(this.context.currentTime + BEFORE_CHANGE, stretch.from)).at
      : this.context.currentTime;
    // A hair before the line, so that the click on it already obeys.
    const from = Math.max(0, at - 100 * HAIR);
    this.#switchesAt[channel] = from;
    gain.cancelScheduledValues(from);
    gain.setValueAtTime(level, from);
  }

  /** How loud a channel is, as a share of the loudest that is safe; at once. */
  level(channel: Channel, share: number): void {
    this.#levels[channel] = Math.min(1, Math.max(0, share));
    const { gain } = this.#channels[channel];
    const now = this.context.currentTime;
    const at = this.#switchesAt[channel];
    if (at <= now) {
      gain.setTargetAtTime(this.#gainOf(channel), now, 0.03);
      return;
    }
    // It is silenced, or let sound again, at its bar line all the same.
    gain.cancelScheduledValues(now);
    gain.setTargetAtTime(this.#muted[channel] ? this.#loudOf(channel) : 0, now, 0.03);
    gain.setValueAtTime(this.#gainOf(channel), at);
  }

  #gainOf(channel: Channel): number {
    return this.#muted[channel] ? 0 : this.#loudOf(channel);
  }

  #loudOf(channel: Channel): number {
    return this.#levels[channel] * this.#gains[channel];
  }

  /** Stop; what sounds already rings out, what is still to come does not sound. */
  stop(): void {
    this.#stops += 1;
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
    navigator.mediaDevices?.removeEventListener("devicechange", this.#checkDevices);
    void this.context.close();
  }

  /** The moment on the audio clock that is heard at a moment of the screen's clock (ms). */
  heardAt(momentMs: number): Seconds {
    return heardAt(this.context, momentMs);
  }

  /** Where a moment of the audio clock lies in what is played; null when nothing is. */
  positionAt(at: Seconds): Position | null {
    const stretch = this.#stretches.findLast((one) => one.from <= at + HAIR) ?? this.#stretches[0];
    return stretch ? positionIn(stretch, at) : null;
  }

  #lose(why: Lost): void {
    if (this.isPlaying) this.onLost?.(why);
  }

  /** Where the browser says that no loudspeaker is left, nothing goes on unheard. */
  #checkDevices = async (): Promise<void> => {
    const devices = await navigator.mediaDevices.enumerateDevices();
    // Without a permission a browser may list nothing at all, and that says nothing.
    if (devices.length > 0 && !devices.some((one) => one.kind === "audiooutput")) this.#lose("device");
  };

  #tick(): void {
    // How far the clock of the wall has run ahead of that of the sound: a busy screen holds up neither.
    const ahead = Date.now() - this.context.currentTime * 1000;
    const slept = ahead - this.#ahead > SLEPT_MS;
    this.#ahead = ahead;
    if (slept) this.#lose("sleep");
    else this.#plan();
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
    const { chord } = this.#gains;
    switch (one.kind) {
      case "click": {
        const { role, timbre, level } = this.#clickOf(one.role);
        const loud = (one.loud ?? 1) * this.#clickGain(role) * level;
        this.#start("click", one.at, this.#sounds.click(role, timbre), loud);
        return;
      }
      case "word": {
        const sound = this.#words.sound(one.word);
        if (sound) this.#start("voice", one.at, sound, 1, one.seconds, this.#words.anchor);
        return;
      }
      case "back":
        if (one.drum) this.#start("backing", one.at, this.#sounds.drum(one.drum), 1);
        for (const midi of one.midis) {
          const share = one.midis.length ** -chord;
          this.#start("backing", one.at, this.#sounds.note("keys", midi, one.seconds), share, one.seconds);
        }
        return;
      case "note":
        if (one.drum) {
          this.#start("notes", one.at, this.#sounds.drum(one.drum), this.#gains[one.level] * one.loud);
          return;
        }
        // The tones of a chord together are a little louder than one note, not many times.
        pitches(one).forEach((midi, number) => {
          const share = this.#gains[one.level] * one.loud * (1 + one.also.length) ** -chord;
          // A rolled chord: its tones come one after the other, from the lowest.
          const at = one.at + number * one.apart;
          this.#start("notes", at, this.#sounds.note(this.#voice, midi, one.seconds), share, one.seconds);
        });
    }
  }

  /** As what a click is heard: its role may have a level and a sound of its own, a bar’s first one may be unmarked. */
  #clickOf(asked: ClickRole): { role: ClickRole; timbre: Timbre; level: number } {
    const role = asked === "strong" && this.isUnmarked ? "plain" : asked;
    const own = role === "strong" || role === "plain" || role === "division" ? this.roles?.[role] : null;
    return { role, timbre: own?.timbre ?? this.timbre, level: own?.level ?? 1 };
  }

  #clickGain(role: ClickRole): number {
    if (role === "plain") return this.#gains.plain_click;
    return role === "division" ? this.#gains.division_click : 1;
  }

  /** Start a sound so that what lies `anchor` seconds into it is heard at a moment; it ends with its length, if given. */
  #start(
    channel: Channel,
    at: Seconds,
    buffer: AudioBuffer,
    loud: number,
    seconds?: Seconds,
    anchor: Seconds = 0,
  ): void {
    const source = new AudioBufferSourceNode(this.context, { buffer });
    const gain = new GainNode(this.context, { gain: loud });
    source.connect(gain).connect(this.#channels[channel]);
    // A word that is planned too late for its consonant begins inside it, so that its vowel is in time.
    const late = anchor ? Math.max(0, this.context.currentTime - (at - anchor)) : 0;
    source.start(at - anchor + late, late);
    if (seconds !== undefined) {
      const ends = at + seconds * 0.95;
      gain.gain.setTargetAtTime(0, ends, 0.015);
      source.stop(ends + 0.12);
    }
    this.#planned.push({ at, source });
  }
}

/** Every pitch of a note: more than one where it is a chord, null where it has none. */
function pitches(tone: { midi: number | null; also: number[] }): (number | null)[] {
  return [tone.midi, ...tone.also];
}
