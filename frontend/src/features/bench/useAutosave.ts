import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Drill, type Refusal } from "../../api/client";
import { queryClient } from "../../api/queries";
import { dropDraft, keepDraft } from "./drafts";

export type SaveState =
  | { kind: "kept"; version: number }
  | { kind: "saving"; version: number }
  | { kind: "lost"; version: number }
  | { kind: "refused"; version: number; message: string }
  | { kind: "conflict"; version: number; message: string };

const SETTLE_MS = 700;
const AGAIN_MS = 4000;

/**
 * Keeps a drill as its next version once it stands still. Until the server has answered for it, it lies in
 * this browser as a draft, so that neither a reload nor a lost server loses it.
 */
export function useAutosave(id: number, drill: Drill, startVersion: number, startKept: Drill) {
  const [state, setState] = useState<SaveState>({ kind: "kept", version: startVersion });
  const last = useRef({ drill: startKept, version: startVersion });
  const newest = useRef(drill);
  newest.current = drill;

  const save = useCallback(
    async (basedOn: number) => {
      const sent = newest.current;
      setState({ kind: "saving", version: basedOn });
      try {
        const saved = await api.saveDrill(id, sent, basedOn);
        last.current = { drill: sent, version: saved.version };
        if (newest.current === sent) dropDraft(id);
        setState({ kind: "kept", version: saved.version });
        queryClient.setQueryData(["drills", id, "latest"], saved);
        void queryClient.invalidateQueries({ queryKey: ["drills"], exact: true });
        void queryClient.invalidateQueries({ queryKey: ["drills", id, "versions"] });
      } catch (error) {
        const refusal = error as Refusal;
        const version = last.current.version;
        if (refusal.isLost) setState({ kind: "lost", version });
        else if (refusal.status === 409) setState({ kind: "conflict", version, message: refusal.message });
        else setState({ kind: "refused", version, message: refusal.message });
      }
    },
    [id],
  );

  useEffect(() => {
    if (drill === last.current.drill) return;
    keepDraft(id, { drill, basedOn: last.current.version });
    const timer = setTimeout(() => void save(last.current.version), SETTLE_MS);
    return () => clearTimeout(timer);
  }, [id, drill, save]);

  useEffect(() => {
    if (state.kind !== "lost") return;
    const timer = setTimeout(() => void save(last.current.version), AGAIN_MS);
    return () => clearTimeout(timer);
  }, [state, save]);

  /** After a conflict: keep this one as the newest, on top of theirs. */
  const keepMine = useCallback(async () => {
    const theirs = await api.drill(id);
    await save(theirs.version);
  }, [id, save]);

  /** Save at once, for what needs the version: the stand, a climb. Returns the version. */
  const saveNow = useCallback(async () => {
    if (newest.current !== last.current.drill) await save(last.current.version);
    return newest.current === last.current.drill ? last.current.version : null;
  }, [save]);

  // A change that has not been sent yet is not kept, however short the while.
  const shown: SaveState =
    state.kind === "kept" && drill !== last.current.drill
      ? { kind: "saving", version: state.version }
      : state;
  return { state: shown, keepMine, saveNow };
}
