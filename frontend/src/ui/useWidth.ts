import type { RefObject } from "react";
import { useSize } from "./useSize";

/** The width of an element in pixels, kept up to date; 0 until it is measured. */
export function useWidth<T extends HTMLElement>(): [RefObject<T | null>, number] {
  const [box, { width }] = useSize<T>();
  return [box, width];
}
