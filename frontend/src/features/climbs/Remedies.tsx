import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Climb } from "../../api/client";
import { remediesQuery } from "../../api/queries";
import { day } from "../../ui/moment";
import { Problem } from "../../ui/Problem";

/** The remedies that were taken on a climb: the one that it waits for, and those that are clean. */
export function Remedies({ climb }: { climb: Climb }) {
  const remedies = useQuery(remediesQuery(climb.id));
  if (remedies.isError) return <Problem error={remedies.error} onRetry={() => void remedies.refetch()} />;
  const found = remedies.data?.remedies ?? [];
  if (!found.length) return null;
  return (
    <section className="card-plain">
      <h2>Remedies</h2>
      {climb.remedy && <p className="mb-1">The climb waits for: {climb.remedy.name}.</p>}
      <ul className="space-y-1">
        {found.map((one) => (
          <li key={one.id}>
            <Link className="text-primary underline" to={`/stand/climb/${climb.id}?remedy=${one.id}`}>
              {one.name}
            </Link>{" "}
            <span className="text-soft text-sm">
              {day(one.made_at)}, against {one.against}: {one.is_clean ? "● clean" : "○ not clean yet"}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
