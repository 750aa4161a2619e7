/** Open pages: each holds a lock of its own for as long as it lives, so that others know what is still being worked on. */

import { freshId } from "../../ui/freshId";
import { STUDIO } from "../studio";

const NAME = `ripresa.${STUDIO}.page.`;
const locks = typeof navigator === "undefined" ? undefined : navigator.locks;

/** This open page; a reload is another one, and so is a tab that was doubled. */
export const PAGE: string = freshId();

void locks?.request(NAME + PAGE, () => new Promise(() => {}));

/** The open pages of this studio, this one in. */
export async function livingPages(): Promise<Set<string>> {
  const held = (await locks?.query())?.held ?? [];
  const names = held.flatMap(({ name }) => (name?.startsWith(NAME) ? [name.slice(NAME.length)] : []));
  return new Set([PAGE, ...names]);
}

let last: Promise<unknown> = Promise.resolve();

/** Do something while no other page of this studio does it, and nothing else here. */
export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (locks) return locks.request(`ripresa.${STUDIO}.outbox`, work) as Promise<T>;
  const mine = last.then(work, work);
  last = mine.catch(() => {});
  return mine;
}
