/** What the player has from outside its own code: here a worker of its own file, and words that the server sends. */
import { files } from "../api/client";

export const timer = (): Worker =>
  new Worker(new URL("./timer.worker.ts", import.meta.url), { type: "module" });
export const wordsAt = (): string => files.words;
export const ownWordAt = (word: string): string | null => files.ownWord(word);
