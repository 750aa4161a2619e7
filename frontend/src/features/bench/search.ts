/** Whether a text holds every word that was typed, in any order. */
export function hasWords(text: string, wanted: string): boolean {
  const low = text.toLowerCase();
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((word) => low.includes(word));
}
