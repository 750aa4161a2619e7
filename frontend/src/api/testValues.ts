import kinds from "../../kinds.json";
import { MADE } from "../audio/testScore";
/** Values for tests, in the shapes that the server sends. */
import type { Choices, Climb, Drill, Judged, Row, Tread } from "./client";

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
  body: { movement: "none", every: "1" },
  voice: "silent",
  reduce: { part: "everything", hand: "" },
  way_in: [],
  tags: [],
  fingering: "none",
  register: 0,
  folded: false,
  purpose: "",
};

/** What the server offers, as it does. */
export const CHOICES = { ...kinds.choices, ...MADE } as unknown as Choices;

export function tread(number: number, state: Tread["state"], marks: Tread["marks"] = []): Tread {
  const bpm = String(80 + 4 * number);
  return {
    number,
    bpm,
    bpm_label: bpm,
    nps: "5.6",
    gap_ms: "178.6",
    height: number / 3,
    state,
    marks,
    click: null,
    click_words: "",
  };
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
    clicks: [],
    revision: 1,
  },
  revision: 1,
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
    but: [],
    clicks: [],
    click_order: "with_tempo",
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
  remedy: null,
  held_to: "evenness working",
  limits: [],
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
    machine: "clean",
    ear: null,
    ear_by: null,
    ease: null,
    part_name: "",
    faults: [],
    offers: [],
    remedies: [],
    held_to: "evenness working",
    reasons: ["Even: spread 9 ± 1 ms (limit 16)."],
    note: "",
    is_measured: false,
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
      words: "1 D",
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
    lines: [],
    words: "1 D accent, & U",
  };
}
