/**
 * Watches whether a microphone still gives anything: the quietest room is not nothing at all, a switched-off microphone
 * is. One that never gave anything is another matter, and told by its level.
 */
export class DeadWatch {
  #silent = 0;
  #hasSounded = false;
  isDead = false;

  /** @param most - looks in a row after which it is dead. */
  constructor(private readonly most: number) {}

  /** Look at a peak; returns whether the microphone is dead now. */
  look(peak: number): boolean {
    this.#silent = peak > 0 ? 0 : this.#silent + 1;
    this.#hasSounded ||= peak > 0;
    this.isDead = this.#hasSounded && this.#silent >= this.most;
    return this.isDead;
  }
}
