/** Which studio this page belongs to: the server writes it into the page, everything that is kept or asked carries it. */
import { useSyncExternalStore } from "react";

const written = typeof document === "undefined" ? "" : (document.documentElement.dataset.studio ?? "");

/** Its id; a page that no server wrote, as while developing, has none. */
export const STUDIO = written || "none";
export const STUDIO_HEADER: Record<string, string> = written ? { "X-Ripresa-Studio": written } : {};

/** An address that says to which studio it belongs, for what is fetched or saved without a header. */
export const ofStudio = (address: string): string =>
  written ? `${address}${address.includes("?") ? "&" : "?"}studio=${written}` : address;

let isAnother = false;
const listeners = new Set<() => void>();

/** The server that answers now has another studio: nothing of this page is meant for it. */
export function noteAnotherStudio(): void {
  isAnother = true;
  for (const listener of listeners) listener();
}

export const anotherStudioAnswers = (): boolean => isAnother;

export const useAnotherStudio = (): boolean =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, anotherStudioAnswers);
