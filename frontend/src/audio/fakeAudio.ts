/** An audio device for tests: a clock that is moved by hand, and a list of what was asked to sound. */

export class FakeParam {
  readonly settings: { value: number; at: number }[] = [];
  cancelScheduledValues(from: number): void {
    this.settings.splice(0, this.settings.length, ...this.settings.filter((one) => one.at < from));
  }
  setValueAtTime(value: number, at: number): void {
    if (at < 0) throw new RangeError("times are not negative");
    this.settings.push({ value, at });
  }
  linearRampToValueAtTime(): void {}
  setTargetAtTime(value: number, at: number): void {
    this.settings.push({ value, at });
  }
}

export class FakeNode {
  /** Every node, in the order in which they were made. */
  static readonly made: FakeNode[] = [];
  readonly gain = new FakeParam();
  /** How loud it was made, where that was said. */
  readonly loud: number | null;
  constructor(_context?: unknown, options?: { gain?: number }) {
    this.loud = options?.gain ?? null;
    FakeNode.made.push(this);
  }
  connect<T>(next: T): T {
    return next;
  }
}

export class FakeSource extends FakeNode {
  startedAt = -1;
  stoppedAt = Number.POSITIVE_INFINITY;
  /** Whether it was planned when it was due already. */
  late = false;
  constructor(
    readonly context: FakeContext,
    readonly options: { buffer: { name: string } },
  ) {
    super();
    context.sources.push(this);
    context.meanwhile?.();
  }
  start(at: number): void {
    if (at < 0) throw new RangeError("times are not negative");
    this.startedAt = at;
    this.late = this.context.currentTime > at;
  }
  stop(at = 0): void {
    this.stoppedAt = at;
  }
}

export class FakeContext {
  static newest: FakeContext;
  currentTime = 0;
  sampleRate = 8000;
  outputLatency = 0.02;
  state = "running";
  onstatechange: (() => void) | null = null;
  readonly destination = new FakeNode();
  readonly sources: FakeSource[] = [];
  /** What a busy computer does meanwhile: called with each source that is made. */
  meanwhile: (() => void) | null = null;
  constructor() {
    FakeContext.newest = this;
  }
  createBuffer(_channels: number, length: number): { getChannelData: () => Float32Array } {
    const samples = new Float32Array(length);
    return { getChannelData: () => samples };
  }
  getOutputTimestamp() {
    return {
      contextTime: this.currentTime - this.outputLatency,
      performanceTime: this.currentTime * 1000 + 5,
    };
  }
  addEventListener(): void {}
  async resume(): Promise<void> {}
  async decodeAudioData(): Promise<{ name: string; getChannelData: () => Float32Array }> {
    return { name: "decoded", getChannelData: () => new Float32Array(80_000) };
  }
  async close(): Promise<void> {}
  /** What will sound, in order: everything started and not stopped before it starts. */
  due(): number[] {
    return this.sources
      .filter((one) => one.stoppedAt > one.startedAt)
      .map((one) => one.startedAt)
      .sort((a, b) => a - b);
  }
}

export class FakeWorker {
  static newest: FakeWorker;
  onmessage: (() => void) | null = null;
  running = false;
  constructor() {
    FakeWorker.newest = this;
  }
  postMessage(every: number | null): void {
    this.running = every !== null;
  }
  terminate(): void {}
}

/** Put the fakes in place of the browser's own; give the test back what moves the clock. */
export function fakeGlobals() {
  return {
    AudioContext: FakeContext,
    GainNode: FakeNode,
    DynamicsCompressorNode: FakeNode,
    AudioBufferSourceNode: FakeSource,
    Worker: FakeWorker,
    navigator: {},
  };
}

/** Let the clock go on in steps of the timer. */
export function advance(seconds: number, step = 0.05): void {
  const ends = FakeContext.newest.currentTime + seconds;
  while (FakeContext.newest.currentTime < ends) {
    FakeContext.newest.currentTime = Math.min(ends, FakeContext.newest.currentTime + step);
    if (FakeWorker.newest.running) FakeWorker.newest.onmessage?.();
  }
}
