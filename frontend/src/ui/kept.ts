/** Small things kept in this browser; a browser that keeps nothing is no reason to fail. */
export function keep(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // Storage may be full or forbidden; what is on the screen still works.
  }
}

/** What was kept under a key, or null. */
export function kept<T>(key: string): T | null {
  try {
    const text = localStorage.getItem(key);
    return text === null ? null : (JSON.parse(text) as T);
  } catch {
    return null;
  }
}
