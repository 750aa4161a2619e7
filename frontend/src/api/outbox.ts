/**
 * Takes on their way to the server. A take is put here before it is sent and leaves when the server has
 * answered for it, so that neither a lost server nor a closed page loses one. The server keeps a take
 * that arrives twice once.
 */
import { useSyncExternalStore } from "react";
import { keep, kept } from "../ui/kept";
import { api, type Judged, type Refusal, type TakeBody } from "./client";
import { forgetWork } from "./queries";

const KEY = "ripresa.outbox";
const AGAIN_MS = 4000;

let waiting: readonly TakeBody[] = kept<TakeBody[]>(KEY) ?? [];
const listeners = new Set<() => void>();

function set(next: readonly TakeBody[]): void {
  waiting = next;
  keep(KEY, next.length ? next : null);
  for (const listener of listeners) listener();
}

function drop(id: string): void {
  set(waiting.filter((take) => take.id !== id));
}

/** Keep a take here, then send it; refused ones leave, lost ones stay for later. */
export async function sendTake(take: TakeBody): Promise<Judged> {
  set([...waiting.filter((one) => one.id !== take.id), take]);
  try {
    const judged = await api.addTake(take);
    drop(take.id);
    forgetWork();
    return judged;
  } catch (error) {
    if (!(error as Refusal).isLost) drop(take.id);
    throw error;
  }
}

let sending = false;

async function sendWaiting(): Promise<void> {
  if (sending || !waiting.length) return;
  sending = true;
  try {
    for (const take of waiting) await sendTake(take);
  } catch {
    // Still lost: it stays in the outbox, and the next round tries again.
  } finally {
    sending = false;
  }
}

setInterval(() => void sendWaiting(), AGAIN_MS);
void sendWaiting();

export const waitingTakes = {
  useCount: () =>
    useSyncExternalStore(
      (listener) => {
        listeners.add(listener);
        return () => listeners.delete(listener);
      },
      () => waiting.length,
    ),
};
