/** What was done with a practice file: kept in this browser, and saved as a file that goes back to the teacher. */
import type { Run } from "../features/stand/runs";
import { freshId } from "../ui/freshId";
import type { Contents, PracticeClimb } from "./contents";

export type Mark = "clean" | "shaky";
/** A take as it goes back; who made it measures nothing of it here. */
export type DoneTake = {
  id: string;
  climb_id: number;
  drill_id: number;
  version: number;
  rung: number;
  bpm: string;
  click: Run["click"];
  part: Run["part"];
  played_at: string;
  start: number;
  end: number;
  notes: { at: number; key: string | null }[];
  mark: Mark | null;
};
export type Done = { takes: DoneTake[]; question: string };

export const NOTHING: Done = { takes: [], question: "" };
const FORMAT = "ripresa.results/1";

/** The key in the browser’s storage: files of other students, and of other climbs, keep theirs apart. */
const keyOf = ({ studio, student_id, climbs }: Contents) =>
  `ripresa.practice.${studio}.${student_id}.${climbs.map((climb) => climb.climb_id).join("-")}`;

/** What was done with this file before, in this browser. */
export function keptDone(file: Contents): Done {
  try {
    const text = localStorage.getItem(keyOf(file));
    return text === null ? NOTHING : { ...NOTHING, ...(JSON.parse(text) as Done) };
  } catch {
    return NOTHING;
  }
}

/** Keep what was done; says whether it could: some browsers keep nothing for a file from a disk. */
export function keepDone(file: Contents, done: Done): boolean {
  try {
    localStorage.setItem(keyOf(file), JSON.stringify(done));
    return true;
  } catch {
    return false;
  }
}

/** What is kept and what is shown, each take once: the file may be open twice. */
export function together(kept: Done, shown: Done): Done {
  const ids = new Set(shown.takes.map((take) => take.id));
  const takes = [...shown.takes, ...kept.takes.filter((take) => !ids.has(take.id))];
  return {
    takes: takes.sort((one, other) => one.played_at.localeCompare(other.played_at)),
    question: shown.question,
  };
}

/** Call whenever another page of this file keeps something; returns what ends that. */
export function watchDone(file: Contents, onChange: (done: Done) => void): () => void {
  const key = keyOf(file);
  const changed = (event: StorageEvent) => {
    if (event.key === key || event.key === null) onChange(keptDone(file));
  };
  window.addEventListener("storage", changed);
  return () => window.removeEventListener("storage", changed);
}

/** A run as a take: what was tapped, or what the student says of it. */
export function takeOf(climb: PracticeClimb, run: Run, mark: Mark | null): DoneTake {
  const tapped = run.slipped ? [] : run.notes;
  return {
    id: freshId(),
    climb_id: climb.climb_id,
    drill_id: climb.drill_id,
    version: climb.version,
    rung: run.rung ?? 1,
    bpm: run.bpm,
    click: run.click,
    part: run.part,
    played_at: run.playedAt,
    start: run.start,
    end: run.end,
    notes: tapped.map(({ at, key }) => ({ at, key: key ?? null })),
    mark,
  };
}

/** Takes that can go back: one without a tap needs a word of the student. */
export const tellable = (done: Done): DoneTake[] =>
  done.takes.filter((take) => take.notes.length > 0 || take.mark !== null);

/** The results as they are saved, or pasted into a message. */
export function resultsOf(file: Contents, done: Done): string {
  const { studio, student_id, student } = file;
  const takes = tellable(done);
  return JSON.stringify({ format: FORMAT, studio, student_id, student, takes, question: done.question });
}
