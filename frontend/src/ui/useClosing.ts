import { type RefObject, useEffect, useRef } from "react";

/**
 * Closes what a button opened: a press elsewhere does, and Esc, which gives the focus back and closes nothing else.
 *
 * @param box - What holds the button and what it opened.
 * @param opener - What the button is, for the focus.
 */
export function useClosing(
  box: RefObject<HTMLElement | null>,
  isOpen: boolean,
  close: () => void,
  opener: string,
): void {
  const latest = useRef(close);
  latest.current = close;
  useEffect(() => {
    if (!isOpen) return;
    const away = (event: PointerEvent) => {
      if (!box.current?.contains(event.target as Node)) latest.current();
    };
    const byKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      latest.current();
      box.current?.querySelector<HTMLElement>(opener)?.focus();
    };
    document.addEventListener("pointerdown", away);
    document.addEventListener("keydown", byKey);
    return () => {
      document.removeEventListener("pointerdown", away);
      document.removeEventListener("keydown", byKey);
    };
  }, [box, isOpen, opener]);
}
