import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api } from "../../api/client";
import { drillsQuery, shelfQuery } from "../../api/queries";
import { useMadeDrill } from "../../ui/useMadeDrill";
import { hasWords } from "./search";

const MOST = 4;

/** One’s own drills and ready ones that have all the words of a line; nothing where none has. */
export function Fitting({ text }: { text: string }) {
  const own = useQuery(drillsQuery);
  const shelf = useQuery(shelfQuery);
  const take = useMadeDrill(api.takeFromShelf);
  const mine = (own.data?.drills ?? []).filter((one) =>
    hasWords(`${one.title} ${one.material} ${one.instrument} ${one.tags.join(" ")}`, text),
  );
  const ready = (shelf.data?.drills ?? []).filter((one) =>
    hasWords(`${one.what} ${one.title} ${one.purpose} ${one.instrument} ${one.aim} ${one.finds}`, text),
  );
  if (mine.length + ready.length === 0) return null;
  return (
    <ul aria-label="Drills that fit" className="say-fitting">
      {mine.slice(0, MOST).map((one) => (
        <li key={one.id}>
          <Link className="text-link" to={`/bench/${one.id}`}>
            {one.title}
          </Link>{" "}
          <span className="text-soft text-sm">your own, {one.material}</span>
        </li>
      ))}
      {ready.slice(0, MOST).map((one) => (
        <li key={one.key}>
          <button
            type="button"
            className="text-link"
            disabled={take.isPending}
            onClick={() => take.mutate(one.key)}
          >
            {one.what}
          </button>{" "}
          <span className="text-soft text-sm">ready, “{one.title}”</span>
        </li>
      ))}
    </ul>
  );
}
