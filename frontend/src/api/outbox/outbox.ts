/**
 * The outbox: takes, and changes of drills, on their way to the server. Each is put here before it is sent and leaves
 * when the server has answered for it; what was refused stays, with its reason, until someone has decided. All tabs
 * share it, and one thing is sent at a time. The server keeps what arrives twice once.
 */
import { api, type Drill, type Judged, Refusal, type Schemas, type TakeBody } from "../client";
import { forgetWork, noteSaved } from "../queries";
import { anotherStudioAnswers, STUDIO } from "../studio";
import {
  bringAlong,
  type DraftEntry,
  type Entry,
  find,
  isUnkept,
  ownEntries,
  put,
  remove,
  WAITING,
} from "./entries";
import { inTurn, livingPages, PAGE } from "./pages";

type Saved = Schemas["DrillShape"];

const FIRST_AGAIN_MS = 4000;
const LONGEST_AGAIN_MS = 60_000;
/** A server that answers, and fails each time, will not do otherwise by itself. */
const MOST_FAILURES = 5;
/** The server’s own word that it cannot keep anything just now: a full disk, a locked file. */
const NOT_NOW = 503;

/** How long to wait after so many tries in a row: ever longer, up to a minute. */
export const pause = (tries: number): number => Math.min(LONGEST_AGAIN_MS, FIRST_AGAIN_MS * 2 ** tries);

/** Drafts that a bench in this page is working on, and sends itself. */
const held = new Set<string>();

/** Put a take here and send it; the answer, or why there is none yet. */
export async function sendTake(take: TakeBody): Promise<Judged> {
  put({ kind: "take", id: take.id, studio: STUDIO, at: Date.now(), state: WAITING, body: take });
  try {
    return (await inTurn(() => deliver(take.id, () => api.addTake(take)))) as Judged;
  } finally {
    waken();
  }
}

const draftId = (drill: number): string => `${drill}-${PAGE}`;

/** From whose climb a change was made, as long as nobody has said whom it is for: it is not sent before that. */
export type Undecided = { climb: number; why: string };

/** Put a change of a drill here, in the place of the last one from this page. */
export function putDraft(
  drillId: number,
  drill: Drill,
  basedOn: number,
  writer: string,
  undecided: Undecided | null = null,
): void {
  const body = { drill_id: drillId, drill, based_on: basedOn, writer };
  put({
    kind: "draft",
    id: draftId(drillId),
    studio: STUDIO,
    at: Date.now(),
    page: PAGE,
    state: undecided === null ? WAITING : { is: "refused", status: 0, why: undecided.why },
    ...(undecided && { climb: undecided.climb }),
    body,
  });
}

export const dropDraft = (drillId: number): void => remove({ id: draftId(drillId), studio: STUDIO });

/** Send the change that lies here as it is when its turn comes; `onSending` is called then. */
export function sendDraft(drillId: number, onSending: () => void): Promise<Saved> {
  const id = draftId(drillId);
  return inTurn(() => {
    onSending();
    return deliver(id, null) as Promise<Saved>;
  });
}

/** Whether this browser had no room for the change of a drill, so that it is lost with the page. */
export const isDraftUnkept = (drillId: number): boolean => {
  const found = find(draftId(drillId));
  return found !== null && isUnkept(found);
};

export const isHeld = (entry: Entry): boolean => held.has(entry.id);

/** Keep others from sending a draft that is being worked on; returns what lets go of it. */
export function holdDraft(drillId: number): () => void {
  held.add(draftId(drillId));
  return () => {
    held.delete(draftId(drillId));
    waken();
  };
}

/** The newest change of a drill that lies here and that nobody is working on, now this page’s own; null without one. */
export async function adoptDraft(drillId: number): Promise<DraftEntry | null> {
  const living = await livingPages();
  return inTurn(async () => {
    const found = ownEntries()
      .filter((one): one is DraftEntry => one.kind === "draft" && one.body.drill_id === drillId)
      .filter((one) => (one.page === PAGE ? !held.has(one.id) : !living.has(one.page)))
      .filter((one) => one.page !== "")
      .at(-1);
    if (!found) return null;
    const mine = { ...found, id: draftId(drillId), page: PAGE, state: WAITING };
    if (mine.id !== found.id) remove(found);
    put(mine);
    return mine;
  });
}

/** Try again what was refused. */
export function sendAgain(entry: Entry): void {
  put({ ...entry, state: WAITING });
  waken();
}

/** Keep a change that was made elsewhere too as the newest version; theirs stays among the versions. */
export async function keepAsNewest(entry: DraftEntry): Promise<void> {
  const theirs = await api.drill(entry.body.drill_id);
  sendAgain({ ...entry, body: { ...entry.body, based_on: theirs.version } });
}

/** Send one entry; it leaves, waits on, or is marked as refused. */
async function deliver(id: string, known: (() => Promise<Judged>) | null): Promise<Judged | Saved> {
  const entry = find(id);
  // Another tab has sent the take meanwhile: asked again, the server gives the same answer.
  if (!entry && known) return await known();
  if (!entry) throw new Refusal("This was sent from another tab already.", null, 409);
  try {
    const answer = await ask(entry);
    settle(entry, answer);
    if (entry.kind === "draft") noteSaved(answer as Saved);
    else forgetWork();
    return answer;
  } catch (error) {
    // Taken back or thrown away meanwhile, it does not come back.
    const now = find(id);
    if (now) put({ ...now, state: after(entry, error as Refusal) });
    throw error;
  }
}

const ask = (entry: Entry): Promise<Judged | Saved> => {
  if (entry.kind === "take") return api.addTake(entry.body);
  const { drill_id, drill, based_on, writer } = entry.body;
  return api.saveDrill(drill_id, drill, based_on, writer);
};

/** The entry leaves; a change that went on meanwhile stays, made from what has just been kept. */
function settle(sent: Entry, answer: Judged | Saved): void {
  const now = find(sent.id);
  if (
    now?.kind === "draft" &&
    JSON.stringify(now.body.drill) !== JSON.stringify((sent as DraftEntry).body.drill)
  )
    put({ ...now, state: WAITING, body: { ...now.body, based_on: (answer as Saved).version } });
  else remove(sent);
}

function after(entry: Entry, { message, status, isLost }: Refusal): Entry["state"] {
  const tries = entry.state.is === "waiting" ? entry.state.tries + 1 : 1;
  const goesOn = status === 0 || status === NOT_NOW || anotherStudioAnswers();
  if (goesOn || (isLost && tries < MOST_FAILURES))
    return { is: "waiting", tries, until: Date.now() + pause(tries - 1), why: message };
  const why = isLost ? `The server failed on it ${tries} times. ${message}` : message;
  return { is: "refused", status, why };
}

let sweeping = false;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Send what waits and is due, one after the other; what is being worked on is left to who works on it. */
async function sweep(): Promise<void> {
  if (sweeping) return;
  sweeping = true;
  try {
    const living = await livingPages();
    const idle = (one: Entry) =>
      one.kind === "take" || (one.page === PAGE ? !held.has(one.id) : !living.has(one.page));
    for (const { id } of ownEntries().filter((one) => one.state.is === "waiting" && idle(one))) {
      if (anotherStudioAnswers()) return;
      try {
        await inTurn(async () => {
          const now = find(id);
          if (now?.state.is === "waiting" && now.state.until <= Date.now()) await deliver(id, null);
        });
      } catch {
        // It waits on, or is marked as refused.
      }
    }
  } finally {
    sweeping = false;
    plan();
  }
}

/** Wake up when the next entry is due; with nothing to send, look now and then whether another page left something. */
function plan(): void {
  clearTimeout(timer);
  const waits = ownEntries().flatMap(({ state }) =>
    state.is === "waiting" ? [state.until - Date.now()] : [],
  );
  timer = setTimeout(() => void sweep(), Math.max(FIRST_AGAIN_MS, Math.min(LONGEST_AGAIN_MS, ...waits)));
}

function waken(): void {
  void sweep();
}

/** Begin: what an earlier page left is sent, and all is tried again when the computer is back on the network. */
export function openOutbox(): void {
  bringAlong();
  const atOnce = () => {
    for (const one of ownEntries())
      if (one.state.is === "waiting" && one.state.until) put({ ...one, state: { ...one.state, until: 0 } });
    waken();
  };
  window.addEventListener("online", atOnce);
  atOnce();
}
