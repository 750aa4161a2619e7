/** A typed whole number, below 0 where it may be; what is not one goes to the server as 0, which refuses it with its sentence. */
export function typedCount(text: string, signed = false): number {
  const digits = text.trim().replace(signed ? /^[-−]/ : "", "");
  if (!/^\d{1,6}$/.test(digits)) return 0;
  return digits === text.trim() ? Number(digits) : -Number(digits);
}
