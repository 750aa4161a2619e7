/** What lies in a practice file: all that is played and shown, compressed, as text. */
import type { Schemas } from "../api/client";
import { type Reading, type Score, unpackReading, unpackScore } from "../api/unpack";

export type PracticeRung = Omit<Schemas["PracticeRung"], "performance"> & { performance: Score };
export type PracticeClimb = Omit<Schemas["PracticeClimb"], "readings" | "rungs"> & {
  readings: Reading[];
  rungs: PracticeRung[];
};
export type Contents = Omit<Schemas["PracticeFileShape"], "climbs"> & { climbs: PracticeClimb[] };

/** Unpack what lies in this page. */
export async function contents(): Promise<Contents> {
  const text = document.getElementById("practice")?.textContent ?? "";
  const bytes = Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0));
  const unpacked = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("gzip"));
  return unpackContents((await new Response(unpacked).json()) as Schemas["PracticeFileShape"]);
}

export function unpackContents(sent: Schemas["PracticeFileShape"]): Contents {
  const climbs = sent.climbs.map((climb) => ({
    ...climb,
    readings: climb.readings.map(unpackReading),
    rungs: climb.rungs.map((rung) => ({ ...rung, performance: unpackScore(rung.performance) })),
  }));
  return { ...sent, climbs };
}
