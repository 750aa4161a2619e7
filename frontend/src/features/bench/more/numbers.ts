/** Whole numbers parted by spaces or commas; null where one is none. */
export function wholeNumbers(text: string): number[] | null {
  const words = text.split(/[\s,]+/).filter(Boolean);
  return words.every((word) => /^\d{1,3}$/.test(word)) ? words.map(Number) : null;
}
