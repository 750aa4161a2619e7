import { useCallback, useState } from "react";
import type { Drill } from "../../api/client";

type History = { past: Drill[]; now: Drill; future: Drill[]; lastWord: string; lastAt: number };

/** Changes of one word within this time are one step of undo. */
const ONE_STEP_MS = 1200;
const MOST_STEPS = 200;

export type DrillHistory = {
  drill: Drill;
  /** Keep a change; `word` names what was changed, so that typing in one word is one step. */
  change: (next: Drill, word: string) => void;
  undo: () => void;
  redo: () => void;
  canUndo: boolean;
  canRedo: boolean;
};

/** A drill with its undo and redo. */
export function useHistory(start: Drill): DrillHistory {
  const [history, setHistory] = useState<History>({
    past: [],
    now: start,
    future: [],
    lastWord: "",
    lastAt: 0,
  });
  const change = useCallback((next: Drill, word: string) => {
    const at = Date.now();
    setHistory((old) => {
      const joins = old.lastWord === word && at - old.lastAt < ONE_STEP_MS && old.past.length > 0;
      const past = joins ? old.past : [...old.past, old.now].slice(-MOST_STEPS);
      return { past, now: next, future: [], lastWord: word, lastAt: at };
    });
  }, []);
  const undo = useCallback(() => {
    setHistory((old) => {
      const before = old.past.at(-1);
      if (!before) return old;
      return {
        past: old.past.slice(0, -1),
        now: before,
        future: [old.now, ...old.future],
        lastWord: "",
        lastAt: 0,
      };
    });
  }, []);
  const redo = useCallback(() => {
    setHistory((old) => {
      const [after, ...future] = old.future;
      if (!after) return old;
      return { past: [...old.past, old.now], now: after, future, lastWord: "", lastAt: 0 };
    });
  }, []);
  return {
    drill: history.now,
    change,
    undo,
    redo,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
  };
}
