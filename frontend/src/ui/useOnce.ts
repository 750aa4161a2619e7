import { useRef } from "react";
import { freshId } from "./freshId";

/**
 * A key for a press that makes something, so that it is made once however often it arrives: the same as long as what
 * is asked for is the same and no answer has come, a new one after that.
 */
export function useOnce(): { key: (asked: unknown) => string; done: () => void } {
  const last = useRef<{ asked: string; key: string } | null>(null);
  return useRef({
    key: (asked: unknown) => {
      const text = JSON.stringify(asked) ?? "";
      if (last.current?.asked !== text) last.current = { asked: text, key: freshId() };
      return last.current.key;
    },
    done: () => {
      last.current = null;
    },
  }).current;
}
