/** Takes what comes in, on the thread of the sound: samples of 16 bits, with the moment of the first of them. */

/** What the scope of a worklet has, as far as it is used here. */
declare const currentFrame: number;
declare const sampleRate: number;
declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Samples of a message, an eighth of a second, so that the level moves. */
const BLOCK = 6000;
const FULL = 32_767;
/** Samples that come at once. */
const QUANTUM = 128;

class Recorder extends AudioWorkletProcessor {
  #block = new Int16Array(BLOCK);
  #count = 0;
  /** The frame of the first sample of the block, and the one that comes next. */
  #first = 0;
  #next: number | null = null;
  #peak = 0;
  #ended = false;

  constructor() {
    super();
    this.port.onmessage = () => {
      this.#ended = true;
      this.#send();
      this.port.postMessage(null);
    };
  }

  process([input]: Float32Array[][]): boolean {
    if (this.#ended) return false;
    // What a busy browser left out is silent: each sample stays where it was on the clock of the sound.
    for (this.#next ??= currentFrame; this.#next < currentFrame; ) this.#put(0);
    const channel = input?.[0];
    const length = channel?.length ?? QUANTUM;
    for (let index = 0; index < length; index++) this.#put(channel?.[index] ?? 0);
    return true;
  }

  #put(value: number): void {
    const sample = Math.max(-1, Math.min(1, value));
    if (this.#count === 0) this.#first = this.#next ?? 0;
    this.#next = (this.#next ?? 0) + 1;
    this.#peak = Math.max(this.#peak, Math.abs(sample));
    this.#block[this.#count++] = Math.round(sample * FULL);
    if (this.#count === BLOCK) this.#send();
  }

  #send(): void {
    const samples = this.#block.slice(0, this.#count);
    this.port.postMessage({ at: this.#first / sampleRate, samples, peak: this.#peak }, [samples.buffer]);
    this.#count = 0;
    this.#peak = 0;
  }
}

registerProcessor("recorder", Recorder);
