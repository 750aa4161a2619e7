/** What was typed with spaces or commas between, or with another sign, as a list; nothing between two signs is left out. */
export function listed(text: string, between?: string): string[] {
  return text
    .split(between ?? /[\s,;]+/)
    .map((one) => one.trim())
    .filter(Boolean);
}
