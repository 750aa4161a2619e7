/** What lies in a practice file: all that is played and shown, compressed, as text. */
import type { Schemas } from "../api/client";

export type Contents = Schemas["PracticeFileShape"];
export type PracticeClimb = Schemas["PracticeClimb"];
export type PracticeRung = Schemas["PracticeRung"];

/** Unpack what lies in this page. */
export async function contents(): Promise<Contents> {
  const text = document.getElementById("practice")?.textContent ?? "";
  const bytes = Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0));
  const unpacked = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("gzip"));
  return (await new Response(unpacked).json()) as Contents;
}
