/** What the player has from outside its own code, where all of it lies in one file. */
import Timer from "./timer.worker.ts?worker&inline";

export const timer = (): Worker => new Timer();
export const wordsAt = (): string => document.getElementById("words")?.textContent ?? "";
/** Words of the teacher’s own are made by a server: here they are said as “ta”. */
export const ownWordAt = (_word: string): string | null => null;
