/** Takes what comes in, on the thread of the sound: samples of 16 bits, with the moment of the first of them. */

/** What the scope of a worklet has, as far as it is used here. */
declare const currentTime: number;
declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Samples of a message, some of the 128 that come at once: an eighth of a second, so that the level moves. */
const BLOCK = 47 * 128;
const FULL = 32_767;

class Recorder extends AudioWorkletProcessor {
  #block = new Int16Array(BLOCK);
  #count = 0;
  #at = 0;
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
    // Where nothing is connected yet it is silent, and the clock goes on.
    const channel = input?.[0];
    const length = channel?.length ?? 128;
    if (this.#count === 0) this.#at = currentTime;
    for (let index = 0; index < length; index++) {
      const sample = Math.max(-1, Math.min(1, channel?.[index] ?? 0));
      this.#peak = Math.max(this.#peak, Math.abs(sample));
      this.#block[this.#count++] = Math.round(sample * FULL);
      if (this.#count === BLOCK) this.#send();
    }
    return true;
  }

  #send(): void {
    const samples = this.#block.slice(0, this.#count);
    this.port.postMessage({ at: this.#at, samples, peak: this.#peak }, [samples.buffer]);
    this.#count = 0;
    this.#peak = 0;
  }
}

registerProcessor("recorder", Recorder);
