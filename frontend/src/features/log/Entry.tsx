import type { Schemas } from "../../api/client";
import { moment } from "../../ui/moment";
import { TakeNote } from "../../ui/TakeNote";

const SIGNS = { clean: "●", shaky: "○", unclear: "×" } as const;

/** One line of the log: a take with its note, or a change of rung with its reason. */
export function Entry({ entry }: { entry: Schemas["EntryShape"] }) {
  const isTake = entry.kind === "take" && entry.take_id !== null;
  return (
    <li className={isTake ? "card-plain" : "px-4 py-1"}>
      <div className="flex flex-wrap gap-x-4 gap-y-0.5 items-baseline">
        <span className="text-soft w-44">{moment(entry.at)}</span>
        <strong>
          {entry.mark ? <span aria-hidden="true">{SIGNS[entry.mark]} </span> : null}
          {entry.heading}
        </strong>
        <span className="flex-1 min-w-40">{entry.title}</span>
      </div>
      <p className={isTake ? "" : "text-soft"}>
        {entry.sentence} {entry.measured}
      </p>
      {entry.take_id !== null && isTake && <TakeNote takeId={entry.take_id} note={entry.note} />}
    </li>
  );
}
