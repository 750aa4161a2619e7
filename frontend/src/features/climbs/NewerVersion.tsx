import { useMutation, useQuery } from "@tanstack/react-query";
import { api, type Climb } from "../../api/client";
import { forgetWork, versionsQuery } from "../../api/queries";
import { Problem } from "../../ui/Problem";

/** A newer version of the drill is offered, never forced; takes stay with the version that they were played of. */
export function NewerVersion({ climb }: { climb: Climb }) {
  const { newer_version: newer } = climb;
  const take = useMutation({
    mutationFn: (version: number) => api.takeVersion(climb.id, version, climb.revision),
    onSuccess: forgetWork,
  });
  const versions = useQuery({ ...versionsQuery(climb.drill_id), enabled: newer !== null });
  if (newer === null) return null;
  const since = versions.data?.versions.filter((one) => one.version > climb.version).reverse() ?? [];
  const changed = since.flatMap((one) => one.changed).join("; ");
  return (
    <div className="card-plain mt-4 flex flex-wrap items-center gap-3">
      <p className="flex-1 min-w-60">
        This climb goes with version {climb.version} of the drill; version {newer} is newer
        {changed && `: ${changed}`}. Takes stay with theirs.
      </p>
      <button type="button" className="button" disabled={take.isPending} onClick={() => take.mutate(newer)}>
        Go on with version {newer}
      </button>
      {take.isError && <Problem error={take.error} />}
    </div>
  );
}
