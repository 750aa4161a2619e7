/** Values for tests, in the shapes that the server sends. */
import type { Choice, Choices, Climb, Drill, Judged, Row, Tread } from "./client";

const choice = (value: string, label = value, why = ""): Choice => ({ value, label, why });

export const CHOICES: Choices = {
  is_demo: false,
  version: "0",
  tonics: [choice("C"), choice("Eb", "E♭")],
  scales: [choice("major"), choice("dorian"), choice("own", "own steps")],
  chords: [choice("major_triad", "major")],
  tone_sets: [choice("major")],
  figures: [choice("0 2", "thirds"), choice("0 1 2", "groups of three")],
  ways: [choice("up"), choice("there_and_back", "up and back")],
  patterns: [choice("1 2 3 4", "quarters"), choice("1 & 2 & 3 & 4 &", "eighths")],
  swings: [choice("1", "straight"), choice("2", "with a swing of 2:1")],
  mixes: [choice("all", "in every combination"), choice("drawn", "drawn by lot")],
  rhythms: [choice("legs", "one note a slot"), choice("own", "in its own rhythm")],
  afters: [choice("open", "left open"), choice("home", "again until it comes home")],
  shapes: [choice("there_and_back", "there and back", "It comes back."), choice("up")],
  octaves: [
    choice("match", "as many octaves as notes per beat"),
    choice("1", "1 octave"),
    choice("2", "2 octaves"),
  ],
  tops: [choice("once"), choice("twice")],
  closings: [choice("by_seam"), choice("own")],
  meters: [choice("4/4"), choice("3/4")],
  divisions: [choice("1/2", "½"), ...["1", "2", "3", "4"].map((one) => choice(one))],
  articulations: [choice("1", "full length"), choice("1/2", "short")],
  countings: [choice("numbers"), choice("syllables"), choice("own")],
  fingerings: [choice("none", "without fingering"), choice("usual", "with the usual fingering")],
  seams: [choice("hold", "hold to the bar line"), choice("straight_on", "straight on")],
  cycles: [choice("D U", "alternate picking (D U)"), choice("T K", "double tonguing (T K)")],
  restarts: [choice("never", "runs on"), choice("bar", "starts again each bar")],
  leads: [choice("down", "down on the beat"), choice("up", "up on the beat")],
  odd_schools: [choice("through"), choice("restart")],
  clicks: [choice("every_beat", "every beat"), choice("two_and_four", "2 and 4")],
  instruments: [choice("any", "any instrument"), choice("guitar")],
  settings: [choice("whole")],
  evenness: [choice("working")],
  weekdays: [choice("0", "Monday")],
  stand_ins: [],
};

export const DRILL: Drill = {
  title: "Stairs",
  material: {
    kind: "scale_run",
    tonic: "C",
    scale: "major",
    shape: "there_and_back",
    octaves: 2,
    top: "once",
    start: 1,
    own: "",
  },
  legs: [
    { division: "2", following: [] },
    { division: "4", following: [] },
  ],
  bpm: "84",
  meter: "4/4",
  seam: "hold",
  closing: "by_seam",
  hands: { kind: "none" },
  accents: { kind: "each_beat" },
  click: { kind: "named", plan: "every_beat" },
  instrument: "any",
  swing: { ratio: "1", on: 2 },
  counting: { system: "numbers", own: "" },
  articulation: "1",
  breath: "0",
  fingering: "none",
  folded: false,
  purpose: "",
};

export function tread(number: number, state: Tread["state"], marks: Tread["marks"] = []): Tread {
  const bpm = String(80 + 4 * number);
  return { number, bpm, bpm_label: bpm, nps: "5.6", gap_ms: "178.6", height: number / 3, state, marks };
}

export const CLIMB: Climb = {
  id: 7,
  student: {
    id: 1,
    name: "Mira Sund",
    instrument: "guitar",
    instrument_name: "guitar",
    lesson_weekday: 2,
    lesson_time: "15:30",
  },
  drill_id: 3,
  version: 1,
  title: "Stairs",
  sign: "♩",
  plan: {
    start: "84",
    target: { kind: "bpm", bpm: "92" },
    rule: { kind: "even", step: "4" },
    settings: "whole",
    clean_to_rise: 2,
    shaky_to_fall: 3,
    evenness: "working",
  },
  rung: 1,
  bpm: "84",
  bpm_label: "84",
  nps: "5.6",
  target_label: "92",
  treads: [tread(1, "now", ["shaky", "clean", "clean"]), tread(2, "ahead"), tread(3, "target")],
  word: { decision: "up", rung: 2, heading: "Up to 88", sentence: "Two clean takes in a row at 84." },
  waiting: null,
  next_sentence: "ready for 88",
  last_take_at: null,
};

export const JUDGED: Judged = {
  take: {
    id: "take-0001",
    student_id: 1,
    climb_id: 7,
    rung: 1,
    drill_id: 3,
    version: 1,
    bpm: "84",
    bpm_label: "84",
    source: "taps",
    played_at: "2026-05-06T15:00:00Z",
    seconds: "12.0",
    mark: "clean",
    reasons: ["Spread 9 ms (limit 16), 0 missed or extra of 48 (allowed 1)."],
    note: "",
    figures: null,
  },
  climb: CLIMB,
};

/** A bar of two notes a beat for one hand each. */
export function row(): Row {
  return {
    leg: 0,
    bar: 1,
    first: 40,
    bays: [0, 1, 2, 3].map((x) => ({ x, width: 1 })),
    events: [0, 1, 2, 3, 4, 5, 6, 7].map((index) => ({
      x: index / 2,
      width: 0.5,
      beat: 1 + (index >> 1),
      slot: index % 2,
      count: index % 2 ? "&" : String(1 + (index >> 1)),
      kind: index === 5 ? "hold" : index === 6 ? "air" : "note",
      pitch: null,
      touch: null,
      in_group: null,
      slurred: false,
      chord: null,
      stroke: index % 2 ? "U" : "D",
      accent: index === 0 ? "accent" : index === 3 ? "ghost" : "plain",
      group: null,
    })),
    clicks: [{ x: 0, level: "strong" }],
    groups: [{ x: 0, end: 2.5, number: 1 }],
    breaths: [],
    words: "1 D accent, & U",
  };
}
