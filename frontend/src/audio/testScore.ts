import type { Made } from "./player";
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
      { at: 0, number: 1, begin: 0, end: 4, cue: "" },
      { at: 4 * beat, number: 2, begin: 0, end: 4, cue: "" },
    ],
    click_seconds: bars * 4 * beat,
    yours_from: null,
    pulse: [],
    said: [],
    told: [],
    backing: [],
    tones: Array.from({ length: bars * 8 }, (_, number) => ({
      event: number,
      at: (number * beat) / 2,
      seconds: beat / 2,
      midi: 60,
      also: [],
      loud: 1,
      apart: 0,
      drum: null,
      level: number % 8 === 0 ? ("accent" as const) : ("plain" as const),
    })),
    ticks: beats.map((at) => ({ at, level: at === 0 ? ("strong" as const) : ("plain" as const) })),
    lead: {
      listen_seconds: 0,
      rehearsals: [],
      lines: [0],
      said: [],
      until: 4 * beat,
      seconds: 4 * beat,
      ticks: lead.map((at) => ({ at, level: "count" as const })),
      words: ["one", "two", "three", "four"].map((word, number) => ({ at: number * beat, word })),
    },
  };
}

/** What sounds are made of, for tests: every channel as loud as it gets, and two words. */
export const MADE: Made = {
  recipes: {
    note_seconds: 1.6,
    clap_seconds: 0.12,
    clap_fading: 45,
    drum_seconds: 0.25,
    pluck: { keeps: 0.497, gain: 0.8 },
    partials: {
      keys: { weights: [1, 0.5], fading: 2.6, attack: 0.003 },
      wind: { weights: [1], fading: 0.25, attack: 0.014 },
    },
    clicks: {
      seconds: 0.08,
      rise: 2000,
      hertz: { strong: 1760, plain: 1175, count: 880, pulse: 587 },
      waves: { beep: [{ ratio: 1, weight: 1, fading: 70 }], wood: [], tick: [] },
    },
    drums: {},
    levels: {
      click: 0.4,
      notes: 0.28,
      backing: 0.16,
      voice: 0.5,
      accent: 1,
      plain: 0.5,
      ghost: 0.22,
      plain_click: 0.75,
      division_click: 0.4,
      chord: 0.7,
    },
  },
  voice: { words: { ta: { start: 0, seconds: 0.2 }, "1": { start: 0.2, seconds: 0.3 } }, anchor: 0.12 },
};
