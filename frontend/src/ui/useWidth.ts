import { type RefObject, useEffect, useRef, useState } from "react";

/** The width of an element in pixels, kept up to date; 0 until it is measured. */
export function useWidth<T extends HTMLElement>(): [RefObject<T | null>, number] {
  const box = useRef<T>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    setWidth(element.clientWidth);
    const watcher = new ResizeObserver(() => setWidth(element.clientWidth));
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return [box, width];
}
