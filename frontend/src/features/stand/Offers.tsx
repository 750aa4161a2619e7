import { Link } from "react-router";
import { api, type Judged } from "../../api/client";
import { Problem } from "../../ui/Problem";
import { useMadeDrill } from "../../ui/useMadeDrill";

export type OffersProps = {
  /** Play the same once more; so many passes of it, where that is said. */
  onAgain: (passes: number | null) => void;
  /** Go to the tempo that was played; false where no rung has it. */
  onRung: ((bpm: string) => boolean) | null;
};

/** What fits better than what was asked, each in one press: the right rung, the other drill, once more. */
export function Offers({ judged, onAgain, onRung }: OffersProps & { judged: Judged }) {
  const { take, climb } = judged;
  const other = useMadeDrill(api.addDrill, (id) => `/stand/drill/${id}`);
  return (
    <div className="flex flex-wrap gap-2">
      {take.offers.map((offer) => {
        const { drill, bpm } = offer;
        if (offer.kind === "tempo" && bpm && onRung)
          return (
            <button key={offer.kind} type="button" className="button" onClick={() => onRung(bpm)}>
              {offer.label}
            </button>
          );
        if (offer.kind === "division" && drill)
          return (
            <button
              key={offer.kind}
              type="button"
              className="button"
              disabled={other.isPending}
              onClick={() => other.mutate(drill)}
            >
              {offer.label}: a drill of its own
            </button>
          );
        if (offer.kind === "again" || offer.kind === "first_note")
          return (
            <button key={offer.kind} type="button" className="button" onClick={() => onAgain(offer.passes)}>
              {offer.label}
            </button>
          );
        if (offer.kind === "evenness" && climb)
          return (
            <Link key={offer.kind} className="button" to={`/climbs/${climb.id}`}>
              {offer.label}
            </Link>
          );
        return null;
      })}
      {other.isError && <Problem error={other.error} />}
    </div>
  );
}
