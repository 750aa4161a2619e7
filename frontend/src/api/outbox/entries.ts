/**
 * What is on its way to the server, in the browser’s storage: one key an entry, so that no tab overwrites what another
 * one put there. Each entry carries its studio; those of another studio wait for it and are shown.
 */
import { useSyncExternalStore } from "react";
import { storageKey } from "../../ui/kept";
import type { Drill, TakeBody } from "../client";
import { STUDIO } from "../studio";

/** A change of a drill: what it was made from, and which open page made it. */
export type DraftBody = { drill_id: number; drill: Drill; based_on: number; writer: string };

type State =
  /** `why` is what stood in the way last; `until` the moment before which it is not tried again. */
  | { is: "waiting"; tries: number; until: number; why: string }
  | { is: "refused"; status: number; why: string };

type Common = { id: string; studio: string; at: number; state: State };
export type TakeEntry = Common & { kind: "take"; body: TakeBody };
/** `climb` is the one that it was made from, as long as it is not said whom it is for. */
export type DraftEntry = Common & { kind: "draft"; body: DraftBody; page: string; climb?: number };
export type Entry = TakeEntry | DraftEntry;

export const WAITING: State = { is: "waiting", tries: 0, until: 0, why: "" };

const OUT = "out.";
const KEY = /^ripresa\.([^.]+)\.out\.(.+)$/;
/** Where takes and drafts lay before studios had ids. */
const OLD_TAKES = "ripresa.outbox";
const OLD_DRAFT = /^ripresa\.draft\.(\d+)$/;

/** Entries for which this browser had no room: they live as long as the page does. */
const unkept = new Map<string, Entry>();
const listeners = new Set<() => void>();
let shown: readonly Entry[] | null = null;

function changed(): void {
  shown = null;
  for (const listener of listeners) listener();
}

if (typeof window !== "undefined") window.addEventListener("storage", changed);

/** Put an entry in, or in the place of the one with its id. */
export function put(entry: Entry): void {
  try {
    localStorage.setItem(storageKey(OUT + entry.id, entry.studio), JSON.stringify(entry));
    unkept.delete(entry.id);
  } catch {
    unkept.set(entry.id, entry);
  }
  changed();
}

export function remove(entry: Pick<Entry, "id" | "studio">): void {
  unkept.delete(entry.id);
  try {
    localStorage.removeItem(storageKey(OUT + entry.id, entry.studio));
  } catch {
    // Where nothing can be kept, nothing lies.
  }
  changed();
}

export function find(id: string): Entry | null {
  return unkept.get(id) ?? read(storageKey(OUT + id));
}

/** Every entry, of this studio and of others, the oldest first. */
export function entries(): readonly Entry[] {
  if (shown) return shown;
  const found = [...unkept.values()];
  for (const key of storedKeys()) {
    const entry = KEY.test(key) ? read(key) : null;
    if (entry && !unkept.has(entry.id)) found.push(entry);
  }
  shown = found.sort((one, other) => one.at - other.at);
  return shown;
}

export const ownEntries = (): Entry[] => entries().filter((one) => one.studio === STUDIO);

/** Whether this browser had no room for an entry, so that it is lost with the page. */
export const isUnkept = (entry: Entry): boolean => unkept.has(entry.id);

/** Whether this browser had room for all that is not sent yet. */
export const isAllHere = (): boolean => unkept.size === 0;

export const useEntries = (): readonly Entry[] =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, entries);

/** Bring along what lies there from before studios had ids: of which one it is, only a person can say. */
export function bringAlong(): void {
  const state: State = {
    is: "refused",
    status: 0,
    why: "Kept by an earlier Ripresa, which did not note for which studio. Send it if it is meant for this one.",
  };
  for (const key of storedKeys()) {
    const drill = OLD_DRAFT.exec(key)?.[1];
    try {
      if (key === OLD_TAKES)
        for (const body of JSON.parse(localStorage.getItem(key) ?? "[]") as TakeBody[])
          put({ kind: "take", id: body.id, studio: STUDIO, at: Date.parse(body.played_at), state, body });
      else if (drill) {
        const old = JSON.parse(localStorage.getItem(key) ?? "") as { drill: Drill; basedOn: number };
        const body = { drill_id: Number(drill), drill: old.drill, based_on: old.basedOn, writer: "" };
        put({ kind: "draft", id: `old-${drill}`, studio: STUDIO, at: Date.now(), page: "", state, body });
      } else continue;
      localStorage.removeItem(key);
    } catch {
      // What cannot be read stays where it lies.
    }
  }
}

function storedKeys(): string[] {
  try {
    return Array.from({ length: localStorage.length }, (_, index) => localStorage.key(index) ?? "");
  } catch {
    return [];
  }
}

function read(key: string): Entry | null {
  try {
    const entry = JSON.parse(localStorage.getItem(key) ?? "null") as Entry | null;
    return entry?.body && entry.state ? entry : null;
  } catch {
    return null;
  }
}
