import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Drill, type Refusal, type Schemas } from "../../api/client";
import {
  dropDraft,
  holdDraft,
  isDraftUnkept,
  PAGE,
  pause,
  putDraft,
  sendDraft,
  type Undecided,
} from "../../api/outbox";

export type SaveState =
  | { kind: "kept"; version: number }
  | { kind: "saving"; version: number }
  /** It lies here until it is said whom it is for. */
  | { kind: "undecided"; version: number }
  /** `isHere`: whether this browser had room for it. */
  | { kind: "lost"; version: number; tries: number; message: string; isHere: boolean }
  | { kind: "refused"; version: number; message: string }
  | { kind: "conflict"; version: number; message: string };

/** What the bench opened: the drill as it is kept, its version, and who wrote the draft that it goes on with. */
export type Opened = { drill: Drill; version: number; writer?: string };

const SETTLE_MS = 700;

/**
 * Keeps a drill as its next version once it stands still, one version after the other. Until the server has answered
 * for it, it lies in the outbox, so that neither a reload nor a lost server nor another tab loses it.
 *
 * Where `undecided` says what has to be said first, it lies there and is not sent.
 */
export function useAutosave(id: number, drill: Drill, opened: Opened, undecided: Undecided | null = null) {
  const [state, setState] = useState<SaveState>({ kind: "kept", version: opened.version });
  const last = useRef({ drill: opened.drill, version: opened.version });
  const writer = useRef(opened.writer ?? PAGE);
  /** The newest change, and the one that lies in the outbox, if any does. */
  const newest = useRef(drill);
  newest.current = drill;
  const lying = useRef<Drill | null>(null);
  const waitsFor = useRef(undecided);
  const running = useRef<Promise<void> | null>(null);
  const again = useRef(false);
  /** Tries in a row that did not get through. */
  const tries = useRef(0);

  const put = useCallback(
    (changed: Drill) => {
      lying.current = changed;
      waitsFor.current = undecided;
      putDraft(id, changed, last.current.version, writer.current, undecided);
    },
    [id, undecided],
  );

  const run = useCallback(async () => {
    while (undecided === null && newest.current !== last.current.drill) {
      again.current = false;
      setState({ kind: "saving", version: last.current.version });
      if (lying.current !== newest.current) put(newest.current);
      let sent = newest.current;
      try {
        const saved = await sendDraft(id, () => {
          sent = lying.current ?? sent;
        });
        last.current = { drill: sent, version: saved.version };
        tries.current = 0;
        setState({ kind: "kept", version: saved.version });
      } catch (error) {
        tries.current += 1;
        setState(stateAfter(error as Refusal, last.current.version, tries.current, !isDraftUnkept(id)));
        return;
      }
      // What has changed meanwhile is sent once it stands still too, unless someone needs it now.
      if (!again.current) return;
    }
  }, [id, put, undecided]);

  /** Send what is not kept yet; a second call meanwhile is done after the first, never beside it. */
  const save = useCallback(() => {
    again.current = true;
    running.current ??= run().finally(() => {
      running.current = null;
    });
    return running.current;
  }, [run]);

  useEffect(() => holdDraft(id), [id]);

  // Looked at again after each answer too: what was sent may have been taken back meanwhile.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the version is that of the last answer
  useEffect(() => {
    if (drill === last.current.drill) {
      if (lying.current) dropDraft(id);
      lying.current = null;
      return;
    }
    if (lying.current !== drill || waitsFor.current !== undecided) put(drill);
    if (undecided !== null) return;
    const timer = setTimeout(() => void save(), SETTLE_MS);
    return () => clearTimeout(timer);
  }, [id, drill, state.version, put, save, undecided]);

  useEffect(() => {
    if (state.kind !== "lost") return;
    const tryAgain = () => void save();
    const timer = setTimeout(tryAgain, pause(state.tries - 1));
    window.addEventListener("online", tryAgain);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("online", tryAgain);
    };
  }, [state, save]);

  /** What was kept elsewhere; null, and said, where it cannot be had now. */
  const askForTheirs = useCallback(async (): Promise<Schemas["DrillShape"] | null> => {
    try {
      return await api.drill(id);
    } catch (error) {
      setState({ kind: "conflict", version: last.current.version, message: (error as Refusal).message });
      return null;
    }
  }, [id]);

  /** After a conflict: keep this one as the newest, on top of theirs. */
  const keepMine = useCallback(async () => {
    const theirs = await askForTheirs();
    if (!theirs) return;
    last.current = { ...last.current, version: theirs.version };
    put(newest.current);
    await save();
  }, [askForTheirs, put, save]);

  /** After a conflict: go on with what was kept elsewhere; gives it to whoever shows it. */
  const takeTheirs = useCallback(async (): Promise<Drill | null> => {
    const theirs = await askForTheirs();
    if (!theirs) return null;
    last.current = { drill: theirs.drill, version: theirs.version };
    writer.current = PAGE;
    lying.current = null;
    dropDraft(id);
    setState({ kind: "kept", version: theirs.version });
    return theirs.drill;
  }, [id, askForTheirs]);

  /** Save at once, for what needs the version: the stand, a climb. Returns the version. */
  const saveNow = useCallback(async () => {
    for (;;) {
      const wanted = newest.current;
      await save();
      if (newest.current === last.current.drill) return last.current.version;
      // What changed while it was saved, a tool's answer, is part of what is needed; what is refused is not there.
      if (newest.current === wanted) return null;
    }
  }, [save]);

  /** What was changed here went somewhere else: nothing of it lies here any more. */
  const drop = useCallback(() => {
    lying.current = null;
    dropDraft(id);
  }, [id]);

  // A change that has not been sent yet is not kept, however short the while.
  const shown: SaveState =
    state.kind === "kept" && drill !== last.current.drill
      ? { kind: undecided === null ? "saving" : "undecided", version: state.version }
      : state;
  return { state: shown, keepMine, takeTheirs, saveNow, drop };
}

function stateAfter(
  { isLost, status, message }: Refusal,
  version: number,
  tries: number,
  isHere: boolean,
): SaveState {
  if (isLost) return { kind: "lost", version, tries, message, isHere };
  return status === 409 ? { kind: "conflict", version, message } : { kind: "refused", version, message };
}
