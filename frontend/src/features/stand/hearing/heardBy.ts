import { keep, kept } from "../../../ui/kept";

/** By what a take is heard: its source; the name of the device; who stands in for a person at it, if one does. */
export type HeardBy = { source: string; device: string; standIn: string | null };

const KEY = "heard by";
export const BY_TAPS: HeardBy = { source: "taps", device: "", standIn: null };

export const keptHeardBy = (): HeardBy => ({ ...BY_TAPS, ...kept<HeardBy>(KEY) });
export const keepHeardBy = (by: HeardBy): void => void keep(KEY, by);

/** Sources that have a device of their own to choose. */
export const hasDevice = (source: string): boolean => source === "midi" || source === "microphone";

/** The browser and the computer, as far as they say it: what was measured on one holds on no other. */
export function placeName(): string {
  const known = (navigator as { userAgentData?: { platform?: string; brands?: { brand: string }[] } })
    .userAgentData;
  const brand = known?.brands?.find((one) => !/not/i.test(one.brand))?.brand ?? "";
  return [brand, known?.platform ?? navigator.platform].filter(Boolean).join(" on ").slice(0, 200);
}
