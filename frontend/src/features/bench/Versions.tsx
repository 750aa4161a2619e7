import { useQuery } from "@tanstack/react-query";
import type { Drill } from "../../api/client";
import { versionsQuery } from "../../api/queries";
import { Dialog } from "../../ui/Dialog";
import { Loading } from "../../ui/Loading";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";

type Props = { id: number; onClose: () => void; onTake: (drill: Drill) => void };

/** Earlier versions of a drill; taking one makes it the newest, and loses none. */
export function Versions({ id, onClose, onTake }: Props) {
  const versions = useQuery(versionsQuery(id));
  return (
    <Dialog title="Versions" onClose={onClose}>
      {versions.isPending && <Loading what="the versions" />}
      {versions.isError && <Problem error={versions.error} onRetry={() => void versions.refetch()} />}
      <ol className="divide-y divide-base-300">
        {versions.data?.versions.map((one, index) => (
          <li key={one.version} className="flex items-center gap-3 py-2">
            <span className="font-bold w-24">Version {one.version}</span>
            <span className="flex-1 min-w-0">
              <span className="block">{one.changed.join("; ") || one.drill.title}</span>
              <span className="text-soft">{moment(one.saved_at)}</span>
            </span>
            {index === 0 ? (
              <span className="text-soft">the newest</span>
            ) : (
              <button type="button" className="button button-small" onClick={() => onTake(one.drill)}>
                Take this one
              </button>
            )}
          </li>
        ))}
      </ol>
    </Dialog>
  );
}
