import type { ReactNode } from "react";
import { Link } from "react-router";
import { api } from "../../api/client";
import { keptChoice } from "../../ui/keptChoice";
import { Problem } from "../../ui/Problem";
import { useGuideRead } from "../../ui/useGuideRead";
import { useMadeDrill } from "../../ui/useMadeDrill";
import { useHear } from "../bench/useHear";

/** A drill of the shelf that any instrument can play at once. */
const FIRST = "two-decks";

type Props = {
  onAdd: () => void;
  /** The first student, once there is one. */
  student: number | null;
  hasClimb: boolean;
};

const useHeardFirst = keptChoice("heard first", false);

/** Whether a first step is left: they stay until each is done. */
export function useFirstSteps({ student, hasClimb }: Omit<Props, "onAdd">): boolean {
  const [isHeard] = useHeardFirst();
  const [isRead] = useGuideRead();
  return student === null || !hasClimb || !isHeard || !isRead;
}

/** The first quarter of an hour in a new studio: hear a ready drill, add a student, start a climb, read the guide. */
export function FirstQuarter({ onAdd, student, hasClimb }: Props) {
  const [isHeard, setHeard] = useHeardFirst();
  const [isRead] = useGuideRead();
  const hear = useHear();
  const take = useMadeDrill(
    async (which: string, key) => {
      const kept = await api.takeFromShelf(which, key);
      setHeard(true);
      return kept;
    },
    (id) => `/stand/drill/${id}`,
  );
  return (
    <div className="card-plain">
      <h2>A first quarter of an hour</h2>
      <ol className="list-decimal pl-6 space-y-3">
        <Step isDone={isHeard} what="Hear a ready drill, and put it on the stand to play it yourself.">
          <button
            type="button"
            className={isHeard ? "button" : "button button-first"}
            onClick={() => {
              setHeard(true);
              hear.toggle(FIRST);
            }}
          >
            {hear.now ? "Stop" : "Hear a ready drill"}
          </button>{" "}
          <button
            type="button"
            className="button"
            disabled={take.isPending}
            onClick={() => take.mutate(FIRST)}
          >
            Put it on the stand
          </button>{" "}
          <Link className="button button-quiet" to="/bench/shelf">
            The whole shelf
          </Link>
        </Step>
        <Step isDone={student !== null} what="Add your first student: a name and an instrument are enough.">
          <button type="button" className="button" onClick={onAdd}>
            Add a student
          </button>
        </Step>
        <Step
          isDone={hasClimb}
          what="Start a climb: from the fastest tempo without a mistake to where the piece stands."
        >
          {student !== null && (
            <Link className="button" to={`/climbs/new?student=${student}`}>
              Start a climb
            </Link>
          )}
        </Step>
        <Step isDone={isRead} what="Read how all of it goes together, in the order of the job.">
          <Link className="button button-quiet" to="/guide">
            The guide of ten minutes
          </Link>
        </Step>
      </ol>
      {(hear.error ?? take.error) && <Problem error={(hear.error ?? take.error) as Error} />}
    </div>
  );
}

type StepProps = { isDone: boolean; what: string; children: ReactNode };

function Step({ isDone, what, children }: StepProps) {
  return (
    <li>
      <p className={isDone ? "text-soft" : ""}>
        {isDone && <strong>✓ Done: </strong>}
        {what}
      </p>
      {children}
    </li>
  );
}
