import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Schemas } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { MARK_SIGNS } from "../../ui/marks";
import { moment } from "../../ui/moment";
import { TakeNote } from "../../ui/TakeNote";
import { JudgedAgain } from "./JudgedAgain";

/** One line of the log: a take with its note, or a change of rung with its reason. */
export function Entry({ entry, undoable = false }: { entry: Schemas["EntryShape"]; undoable?: boolean }) {
  const isTake = entry.kind === "take" && entry.take_id !== null;
  return (
    <li className={isTake ? "card-plain" : "px-4 py-1"}>
      <div className="flex flex-wrap gap-x-4 gap-y-0.5 items-baseline">
        <span className="text-soft w-36">{moment(entry.at)}</span>
        <strong>
          {entry.mark ? <span aria-hidden="true">{MARK_SIGNS[entry.mark]} </span> : null}
          {entry.heading}
        </strong>
        <span>{entry.title}</span>
        <span className={`flex-1 min-w-60 ${isTake ? "" : "text-soft"}`}>
          {entry.sentence} {entry.measured}
        </span>
        {entry.by === "student" && <span className="chip">the student’s own mark</span>}
        {isTake && (
          <Link
            className="text-link text-sm no-print"
            to={`/log/take/${entry.take_id}`}
            aria-label={`Open: ${entry.heading}, ${moment(entry.at)}`}
          >
            Open
          </Link>
        )}
        {undoable && entry.climb_id !== null && entry.move_id !== null && (
          <UndoMove climbId={entry.climb_id} moveId={entry.move_id} />
        )}
      </div>
      {entry.take_id !== null && isTake && (
        <div className="flex flex-wrap gap-x-6 text-sm items-baseline">
          <TakeNote takeId={entry.take_id} note={entry.note} />
          {entry.can_be_judged && <JudgedAgain takeId={entry.take_id} />}
        </div>
      )}
    </li>
  );
}

/** The last move of a climb, taken back: it stands where it stood before. */
function UndoMove({ climbId, moveId }: { climbId: number; moveId: number }) {
  const undo = useMutation({ mutationFn: () => api.undoMove(climbId, moveId), onSuccess: forgetWork });
  return (
    <button
      type="button"
      className="button button-small button-quiet no-print"
      disabled={undo.isPending}
      onClick={() => undo.mutate()}
    >
      {undo.isError ? undo.error.message : "Take back"}
    </button>
  );
}
