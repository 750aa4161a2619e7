import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Schemas } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";

type Props = { drills: readonly Schemas["DrillLine"][]; archived: boolean };

/** Drills as lines, each with the press that puts it away or takes it back. */
export function DrillList({ drills, archived }: Props) {
  const archive = useMutation({
    mutationFn: (id: number) => api.archiveDrill(id, !archived),
    onSuccess: forgetWork,
  });
  return (
    <>
      {archive.isError && <Problem error={archive.error} />}
      <ul className="space-y-2">
        {drills.map((one) => (
          <li key={one.id} className="card-plain drill-line flex flex-wrap items-center gap-x-5 gap-y-1">
            <div className="flex-1 min-w-60">
              <Link to={`/bench/${one.id}`} className="font-semibold text-lg break-words">
                {one.title}
              </Link>
              <p className="text-soft">
                {one.material}, {one.divisions}, {one.tempo}, {one.instrument}
              </p>
              {one.tags.length > 0 && <p className="text-soft text-sm">{one.tags.join(" · ")}</p>}
            </div>
            <span className="text-soft">
              version {one.version}, {moment(one.saved_at)}
            </span>
            <button
              type="button"
              className="text-primary font-semibold cursor-pointer"
              aria-label={`${archived ? "Take back" : "Put away"}: ${one.title}`}
              disabled={archive.isPending}
              onClick={() => archive.mutate(one.id)}
            >
              {archived ? "Take back" : "Put away"}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
