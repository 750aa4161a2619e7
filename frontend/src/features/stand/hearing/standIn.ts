import { api, type Choices, type Drill, type Part } from "../../../api/client";
import type { Seconds } from "../../../audio/schedule";

/** What stands in for a person: who, what is to be played, and from when to when. */
export type StandInAsked = {
  player: Choices["stand_ins"][number]["player"];
  drill: Drill;
  bpm: string;
  part: Part | null;
  start: Seconds;
  end: Seconds;
};

/** Plays along once the first beat is known: where that lies on the clock of the sound. */
export type StandIn = (base: Seconds) => void;

/** A recording begins so long before its first beat, in seconds: as the server makes it. */
const BEFORE: Seconds = 0.5;
const TICK_MS = 15;
const NOTE_ON = 0x90;
const NOTE_OFF = 0x80;
const PAD = 76;
const USUAL_VELOCITY = 80;

const another = (asked: StandInAsked) => {
  const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 1;
  return { ...asked, player: { ...asked.player, seed: seed >>> 2 } };
};

/** The stand-in keyboard: what it plays is sent as a keyboard sends it, bytes at their moments. */
export async function standInKeyboard(
  asked: StandInAsked,
  send: (bytes: number[], at: Seconds) => void,
  now: () => Seconds,
  signal: AbortSignal,
): Promise<StandIn> {
  const { notes } = await api.standIn(another(asked));
  const pads = new Map<string, number>();
  const moments = notes.flatMap(({ at, key, pitch, level, until }) => {
    const pad = key ?? "";
    if (pitch === null && !pads.has(pad)) pads.set(pad, PAD + pads.size);
    const note = pitch ?? pads.get(pad) ?? PAD;
    const velocity = Math.min(127, Math.max(1, Math.round(level ?? USUAL_VELOCITY)));
    return [
      { at, bytes: [NOTE_ON, note, velocity] },
      { at: until ?? at, bytes: [NOTE_OFF, note, 0] },
    ];
  });
  moments.sort((one, other) => one.at - other.at);
  return (base) => {
    let next = 0;
    const timer = setInterval(() => {
      const since = now() - base;
      for (let one = moments[next]; one && one.at <= since; one = moments[++next])
        send(one.bytes, base + one.at);
      if (next >= moments.length) clearInterval(timer);
    }, TICK_MS);
    signal.addEventListener("abort", () => clearInterval(timer));
  };
}

/** The stand-in's recording, played into what records: nobody hears it. */
export async function standInRecording(
  asked: StandInAsked,
  context: AudioContext,
  into: AudioNode,
  signal: AbortSignal,
): Promise<StandIn> {
  const buffer = await context.decodeAudioData(await api.standInRecording(another(asked), signal));
  return (base) => {
    const source = new AudioBufferSourceNode(context, { buffer });
    source.connect(into);
    const late = Math.max(0, context.currentTime - (base - BEFORE));
    source.start(Math.max(0, base - BEFORE), late);
    signal.addEventListener("abort", () => source.stop());
  };
}
