import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Climb } from "../../api/client";
import { climbSetQuery } from "../../api/queries";

/** The set of variants that a climb belongs to, in its order, each with where it stands; the next one a press away. */
export function SetOf({ climb }: { climb: Climb }) {
  const set = useQuery(climbSetQuery(climb.set_key));
  if (!set.data) return null;
  const { climbs } = set.data;
  const next = climbs[(climb.set_place + 1) % climbs.length];
  return (
    <section className="card-plain mt-4" aria-label="The set">
      <div className="flex flex-wrap items-center gap-3 mb-1">
        <h2 className="text-primary font-bold flex-1">
          {climb.set_place + 1} of a set of {climbs.length}
        </h2>
        {next && (
          <Link className="button button-small" to={`/climbs/${next.id}`}>
            Next: {next.differs.join(", ") || "as written"}
          </Link>
        )}
      </div>
      <ol className="list-decimal pl-6">
        {climbs.map((one) => (
          <li key={one.id} aria-current={one.id === climb.id ? "true" : undefined}>
            <Link to={`/climbs/${one.id}`} className={one.id === climb.id ? "font-bold" : "text-link"}>
              {one.differs.join(", ") || "as written"}
            </Link>{" "}
            <span className="text-soft">
              {one.sign} = {one.bpm_label}, {one.next_sentence}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
