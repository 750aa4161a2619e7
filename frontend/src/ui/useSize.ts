import { type RefObject, useEffect, useRef, useState } from "react";

type Size = { width: number; height: number };

/** The inner size of an element in pixels, kept up to date; 0 until it is measured. */
export function useSize<T extends HTMLElement>(): [RefObject<T | null>, Size] {
  const box = useRef<T>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const measure = () =>
      setSize((old) =>
        old.width === element.clientWidth && old.height === element.clientHeight
          ? old
          : { width: element.clientWidth, height: element.clientHeight },
      );
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return [box, size];
}
