/** What this browser lacks to play, in a sentence; empty where it lacks nothing. */
export function lacking(): string {
  const missing = [
    typeof AudioContext === "undefined" && "make sound by itself (Web Audio)",
    typeof Worker === "undefined" && "keep the beat while it draws (Web Workers)",
  ].filter(Boolean);
  if (missing.length === 0) return "";
  return `This browser cannot ${missing.join(" or ")}, so that nothing can be played. Open this page in a newer one.`;
}
