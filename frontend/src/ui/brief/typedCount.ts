/** A typed whole number; what is not one goes to the server as 0, which refuses it with its sentence. */
export function typedCount(text: string): number {
  return /^\s*\d{1,6}\s*$/.test(text) ? Number(text) : 0;
}
