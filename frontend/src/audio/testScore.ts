import type { Score } from "./schedule";

/** A score for tests: two bars of four beats, two notes a beat, at so many seconds a beat. */
export function scoreOf(beat: number): Score {
  const bars = 2;
  const beats = Array.from({ length: bars * 4 }, (_, number) => number * beat);
  const lead = Array.from({ length: 4 }, (_, number) => number * beat);
  return {
    bpm: String(60 / beat),
    loop_seconds: bars * 4 * beat,
    bars: [
      { at: 0, number: 1, begin: 0, end: 4 },
      { at: 4 * beat, number: 2, begin: 0, end: 4 },
    ],
    click_seconds: bars * 4 * beat,
    yours_from: null,
    pulse: [],
    backing: [],
    tones: Array.from({ length: bars * 8 }, (_, number) => ({
      event: number,
      at: (number * beat) / 2,
      seconds: beat / 2,
      midi: 60,
      also: [],
      accented: number % 8 === 0,
    })),
    ticks: beats.map((at) => ({ at, level: at === 0 ? ("strong" as const) : ("plain" as const) })),
    lead: {
      listen_seconds: 0,
      seconds: 4 * beat,
      ticks: lead.map((at) => ({ at, level: "count" as const })),
      words: ["one", "two", "three", "four"].map((word, number) => ({ at: number * beat, word })),
    },
  };
}
