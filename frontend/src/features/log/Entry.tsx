import type { Schemas } from "../../api/client";
import { MARK_SIGNS } from "../../ui/marks";
import { moment } from "../../ui/moment";
import { TakeNote } from "../../ui/TakeNote";
import { JudgedAgain } from "./JudgedAgain";

/** One line of the log: a take with its note, or a change of rung with its reason. */
export function Entry({ entry }: { entry: Schemas["EntryShape"] }) {
  const isTake = entry.kind === "take" && entry.take_id !== null;
  return (
    <li className={isTake ? "card-plain" : "px-4 py-1"}>
      <div className="flex flex-wrap gap-x-4 gap-y-0.5 items-baseline">
        <span className="text-soft w-44">{moment(entry.at)}</span>
        <strong>
          {entry.mark ? <span aria-hidden="true">{MARK_SIGNS[entry.mark]} </span> : null}
          {entry.heading}
        </strong>
        <span className="flex-1 min-w-40">{entry.title}</span>
      </div>
      <p className={isTake ? "" : "text-soft"}>
        {entry.sentence} {entry.measured}
      </p>
      {entry.take_id !== null && isTake && (
        <>
          {entry.can_be_judged && <JudgedAgain takeId={entry.take_id} />}
          <TakeNote takeId={entry.take_id} note={entry.note} />
        </>
      )}
    </li>
  );
}
