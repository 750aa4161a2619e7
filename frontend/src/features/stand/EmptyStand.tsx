import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { climbsQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";

/** The stand with nothing on it: what could be. */
export function EmptyStand() {
  const climbs = useQuery(climbsQuery());
  if (climbs.isPending) return <Loading what="the climbs" />;
  if (climbs.isError) return <Problem error={climbs.error} onRetry={() => void climbs.refetch()} />;
  return (
    <div className="max-w-2xl">
      <h1 className="text-2xl sm:text-3xl font-extrabold mb-3">What goes on the stand?</h1>
      {climbs.data.climbs.length === 0 && (
        <p className="card-plain">
          No climb yet. <Link to="/climbs/new">Start one</Link>, or put a drill on the stand from the{" "}
          <Link to="/bench">bench</Link>.
        </p>
      )}
      <ul className="space-y-2">
        {climbs.data.climbs.map((climb) => (
          <li key={climb.id}>
            <Link to={`/stand/climb/${climb.id}`} className="card-plain flex flex-wrap gap-x-4 no-underline">
              <strong className="flex-1 min-w-48">{climb.student.name}</strong>
              <span>{climb.title}</span>
              <span>
                {climb.sign} = {climb.bpm_label}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}
