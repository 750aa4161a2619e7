/** What the player has from outside its own code, where all of it lies in one file. */
import Timer from "./timer.worker.ts?worker&inline";

export const timer = (): Worker => new Timer();
export const wordsAt = (): string => document.getElementById("words")?.textContent ?? "";
/** Words of the teacher’s own lie in the file too, as far as the computer that made it could speak them. */
let own: Record<string, string> = {};
export const bringOwnWords = (words: Record<string, string>): void => {
  own = words;
};
export const ownWordAt = (word: string): string | null => own[word] ?? null;
