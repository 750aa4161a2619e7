/** An id of its own for what is made here; a browser gives `randomUUID` only to pages that it holds safe, no file. */
export function freshId(): string {
  if ("randomUUID" in crypto) return crypto.randomUUID();
  const bytes = (crypto as Crypto).getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
