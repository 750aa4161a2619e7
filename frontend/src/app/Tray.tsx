import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { type DraftEntry, type Entry, keepAsNewest, remove, sendAgain } from "../api/outbox";
import { STUDIO } from "../api/studio";
import { Dialog } from "../ui/Dialog";
import { moment } from "../ui/moment";
import { Problem } from "../ui/Problem";

type Props = { entries: readonly Entry[]; onClose: () => void };

/** What the server did not take, each with its reason and with ways on: nothing leaves before someone has decided. */
export function Tray({ entries, onClose }: Props) {
  return (
    <Dialog title="Not kept yet" onClose={onClose}>
      {entries.length === 0 && <p>Nothing is left here.</p>}
      <ul className="divide-y divide-base-300">
        {entries.map((entry) => (
          <Lying key={`${entry.studio} ${entry.id}`} entry={entry} />
        ))}
      </ul>
    </Dialog>
  );
}

function Lying({ entry }: { entry: Entry }) {
  const isOwn = entry.studio === STUDIO;
  const newest = useMutation({ mutationFn: (draft: DraftEntry) => keepAsNewest(draft) });
  const isConflict =
    isOwn && entry.kind === "draft" && entry.state.is === "refused" && entry.state.status === 409;
  const name = nameOf(entry);
  return (
    <li className="py-3">
      <p className="font-bold break-words">{name}</p>
      <p>
        {isOwn
          ? entry.state.why
          : "It belongs to another studio, and is sent when that one is open here. If it never will be, as after a demo, throw it away."}
      </p>
      <div className="flex flex-wrap gap-2 mt-2">
        {isConflict && (
          <button
            type="button"
            className="button button-small"
            disabled={newest.isPending}
            onClick={() => newest.mutate(entry)}
          >
            Keep it as the newest
          </button>
        )}
        {isOwn && !isConflict && (
          <button type="button" className="button button-small" onClick={() => sendAgain(entry)}>
            Send it again
          </button>
        )}
        <button type="button" className="button button-small" onClick={() => saveFile(entry)}>
          Save it as a file
        </button>
        {isOwn && entry.kind === "draft" && (
          <Link className="button button-small" to={`/bench/${entry.body.drill_id}`}>
            To the drill
          </Link>
        )}
        <button
          type="button"
          className="button button-small button-quiet"
          aria-label={`Throw it away: ${name}`}
          onClick={() => remove(entry)}
        >
          Throw it away
        </button>
      </div>
      {newest.isError && <Problem error={newest.error} />}
    </li>
  );
}

function nameOf(entry: Entry): string {
  if (entry.kind === "draft")
    return `A change of “${entry.body.drill.title}”, ${moment(new Date(entry.at).toISOString())}`;
  return `A take at ${entry.body.bpm} bpm, ${moment(entry.body.played_at)}`;
}

/** A drill is saved as a drill file, which opens like any other; a take as it was to be sent. */
function saveFile(entry: Entry): void {
  const value = entry.kind === "draft" ? { format: "ripresa.drill/1", ...entry.body.drill } : entry.body;
  const link = document.createElement("a");
  link.href = URL.createObjectURL(
    new Blob([`${JSON.stringify(value, null, 2)}\n`], { type: "application/json" }),
  );
  link.download = `ripresa-${entry.kind}-${entry.id}.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}
