/** What the ear hears now, on the audio clock; and the same for a moment at which a key went down. */

/** A step of the two clocks against each other by more than this spoils a take. */
const LARGEST_SLIP = 0.005;

/** Audio time that is leaving the loudspeaker at a moment of `performance.now()`, in seconds. */
export function heardAt(context: AudioContext, momentMs: number): number {
  const stamp = context.getOutputTimestamp();
  if (!stamp.performanceTime || stamp.contextTime === undefined)
    return context.currentTime - (context.outputLatency || 0) + (momentMs - performance.now()) / 1000;
  return stamp.contextTime + (momentMs - stamp.performanceTime) / 1000;
}

/** Watches whether the audio clock and the clock of the screen keep together. */
export class SlipWatch {
  #offset: number | null = null;
  slipped = false;

  constructor(private readonly context: AudioContext) {}

  check(): void {
    const stamp = this.context.getOutputTimestamp();
    if (!stamp.performanceTime || stamp.contextTime === undefined) return;
    const offset = stamp.contextTime - stamp.performanceTime / 1000;
    if (this.#offset !== null && Math.abs(offset - this.#offset) > LARGEST_SLIP) this.slipped = true;
    this.#offset = offset;
  }
}
