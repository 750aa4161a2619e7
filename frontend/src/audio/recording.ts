/** A recording while it is made: what comes in goes to the server in pieces of a second, in order, each until it is there. */
import { api, type Refusal } from "../api/client";
import { freshId } from "../ui/freshId";
import type { Seconds } from "./schedule";

/** What a finished recording is known by, and the moment of its first sample on the clock of the sound. */
export type Recorded = { key: string; rate: number; begunAt: Seconds };

type Block = { at: Seconds; samples: Int16Array<ArrayBuffer>; peak: number };

const PIECE_SECONDS = 1;
const AGAIN_MS = 1000;
/** A server that does not answer for so long after the end loses the recording. */
const MOST_TRIES = 20;
const SILENT_DB = -90;

export class Recording {
  readonly key = freshId();
  readonly #node: AudioWorkletNode;
  #waiting: Int16Array<ArrayBuffer>[] = [];
  #count = 0;
  #pieces: Int16Array<ArrayBuffer>[] = [];
  #number = 0;
  #sending: Promise<void> | null = null;
  #begunAt: Seconds | null = null;
  #ended: (() => void) | null = null;
  #isDropped = false;
  /** Called with the loudest of each moment, in dB below full scale. */
  onLevel: ((db: number) => void) | null = null;

  private constructor(private readonly context: BaseAudioContext) {
    this.#node = new AudioWorkletNode(context, "recorder", { channelCount: 1 });
    // Silent, but played: what leads nowhere a browser leaves out now and then while it is busy.
    this.#node.connect(context.destination);
    this.#node.port.onmessage = (event: MessageEvent<Block | null>) => {
      if (event.data) this.#take(event.data);
      else this.#ended?.();
    };
  }

  /** Begin to record what comes out of a node. */
  static async begin(context: BaseAudioContext, from: AudioNode, worklet: string): Promise<Recording> {
    await context.audioWorklet.addModule(worklet);
    const recording = new Recording(context);
    from.connect(recording.#node);
    return recording;
  }

  /** End it; resolves when all of it is with the server. */
  async finish(): Promise<Recorded> {
    const ended = new Promise<void>((resolve) => {
      this.#ended = resolve;
    });
    this.#node.port.postMessage(null);
    await ended;
    this.#node.disconnect();
    this.#cut();
    await this.#send(MOST_TRIES);
    return { key: this.key, rate: this.context.sampleRate, begunAt: this.#begunAt ?? 0 };
  }

  /** End it, and let it go. */
  drop(): void {
    this.#isDropped = true;
    this.#node.port.postMessage(null);
    this.#node.disconnect();
  }

  #take({ at, samples, peak }: Block): void {
    this.#begunAt ??= at;
    this.#waiting.push(samples);
    this.#count += samples.length;
    this.onLevel?.(peak > 0 ? Math.max(SILENT_DB, 20 * Math.log10(peak)) : SILENT_DB);
    if (this.#count < PIECE_SECONDS * this.context.sampleRate) return;
    this.#cut();
    this.#sending ??= this.#send(1)
      .catch(() => undefined)
      .finally(() => {
        this.#sending = null;
      });
  }

  /** What has come is a piece. */
  #cut(): void {
    if (!this.#count) return;
    const piece = new Int16Array(this.#count);
    let place = 0;
    for (const samples of this.#waiting) {
      piece.set(samples, place);
      place += samples.length;
    }
    this.#waiting = [];
    this.#count = 0;
    this.#pieces.push(piece);
  }

  /** Send the pieces that are not there yet, in order; one that does not arrive is tried again. */
  async #send(tries: number): Promise<void> {
    if (tries > 1) await this.#sending;
    let failed = 0;
    for (let piece = this.#pieces[0]; piece && !this.#isDropped; piece = this.#pieces[0]) {
      try {
        await api.sendPiece(this.key, this.#number, piece);
        this.#pieces.shift();
        this.#number += 1;
        failed = 0;
      } catch (error) {
        failed += 1;
        if (!(error as Refusal).isLost || failed >= tries) throw error;
        await new Promise((next) => setTimeout(next, AGAIN_MS));
      }
    }
  }
}
