import { STUDIO } from "../api/studio";

const PREFIX = "ripresa.";

/** The key in the browser’s storage: everything on one port shares it, so each key carries its studio. */
export const storageKey = (name: string, studio = STUDIO): string => `${PREFIX}${studio}.${name}`;

/** Keep a small thing in this browser; says whether it could: storage may be full or forbidden. */
export function keep(name: string, value: unknown): boolean {
  try {
    if (value === null) localStorage.removeItem(storageKey(name));
    else localStorage.setItem(storageKey(name), JSON.stringify(value));
    return true;
  } catch {
    // What is on the screen still works.
    return false;
  }
}

/** What was kept under a name, or null; a setting of before studios had ids is of this computer, and counts. */
export function kept<T>(name: string, fromBefore = false): T | null {
  try {
    const text =
      localStorage.getItem(storageKey(name)) ?? (fromBefore ? localStorage.getItem(PREFIX + name) : null);
    return text === null ? null : (JSON.parse(text) as T);
  } catch {
    return null;
  }
}
