const PARTS = /[^\p{L}\p{N}♯♭#/+→]+/u;

/** Whether a text has every word that was typed, in any order, as the beginning of a word: “strum” is no instrument. */
export function hasWords(text: string, wanted: string): boolean {
  const words = text.toLowerCase().split(PARTS);
  return wanted
    .toLowerCase()
    .split(PARTS)
    .filter(Boolean)
    .every((one) => words.some((word) => word.startsWith(one)));
}
