import { keep, kept } from "../../ui/kept";

/** The measured delay of taps on this computer and its half-width, in ms, and how it is said. */
export type Latency = { ms: number; half?: number; label: string };

const KEY = "latency";

export const keptLatency = (): Latency | null => kept<Latency>(KEY, true);
export const keepLatency = (latency: Latency): void => void keep(KEY, latency);
