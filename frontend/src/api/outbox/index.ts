/** The outbox: what is on its way to the server lies here until the server has answered for it. */
export { type DraftEntry, type Entry, isAllHere, isUnkept, remove, useEntries } from "./entries";
export {
  adoptDraft,
  dropDraft,
  holdDraft,
  isDraftUnkept,
  isHeld,
  keepAsNewest,
  openOutbox,
  pause,
  putDraft,
  sendAgain,
  sendDraft,
  sendTake,
  type Undecided,
} from "./outbox";
export { PAGE } from "./pages";
