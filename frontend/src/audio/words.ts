import type { Schemas } from "../api/client";
import { ownWordAt, wordsAt } from "./outside";
import type { Score } from "./schedule";

type Placed = Schemas["VoiceChoice"];

/** Spoken where a word has no sound of its own. */
const INSTEAD = "ta";
/** How long a start waits for the words. */
const PATIENCE_MS = 1500;

/** The spoken words: fetched when they are first needed, each cut out of the file that holds them all. */
export class Words {
  readonly #made = new Map<string, AudioBuffer>();
  #all: Promise<AudioBuffer> | null = null;

  constructor(
    private readonly context: BaseAudioContext,
    private readonly placed: Placed,
  ) {}

  /** Seconds from the beginning of a word's sound to its vowel. */
  get anchor(): number {
    return this.placed.anchor;
  }

  /** Make every word of a score ready; what cannot be had is said as “ta”, and nothing fails. */
  async prepare(score: Score): Promise<void> {
    const words = new Set([...score.said, ...score.lead.said].map((one) => one.word));
    if (words.size === 0) return;
    try {
      this.#all ??= fetched(this.context, wordsAt());
      const all = await this.#all;
      for (const word of [INSTEAD, ...words]) {
        const place = this.placed.words[word];
        if (place && !this.#made.has(word)) this.#made.set(word, this.#cut(all, place.start, place.seconds));
      }
    } catch {
      // A failed fetch is tried again with the next start.
      this.#all = null;
    }
    const own = [...words].filter((word) => !this.placed.words[word] && !this.#made.has(word));
    await Promise.all(
      own.map(async (word) => {
        try {
          const address = ownWordAt(word);
          if (address === null) throw new Error("no server makes this word");
          this.#made.set(word, await fetched(this.context, address));
        } catch {
          const instead = this.#made.get(INSTEAD);
          if (instead) this.#made.set(word, instead);
        }
      }),
    );
  }

  /** As `prepare`, but nobody waits for a server that does not answer: the words then come when they come. */
  async prepareSoon(score: Score): Promise<void> {
    await Promise.race([this.prepare(score), new Promise((after) => setTimeout(after, PATIENCE_MS))]);
  }

  /** The sound of a word that was prepared. */
  sound(word: string): AudioBuffer | null {
    return this.#made.get(word) ?? null;
  }

  #cut(all: AudioBuffer, start: number, seconds: number): AudioBuffer {
    const rate = this.context.sampleRate;
    const first = Math.round(start * rate);
    const part = this.context.createBuffer(1, Math.round(seconds * rate), rate);
    part.getChannelData(0).set(all.getChannelData(0).subarray(first, first + part.length));
    return part;
  }
}

async function fetched(context: BaseAudioContext, address: string): Promise<AudioBuffer> {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error(`no sound at ${address}`);
  return context.decodeAudioData(await answer.arrayBuffer());
}
