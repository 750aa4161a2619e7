import { useMutation } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import { api } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { keptChoice } from "../../ui/keptChoice";
import { Problem } from "../../ui/Problem";
import { useGuideRead } from "../../ui/useGuideRead";
import { useOnce } from "../../ui/useOnce";

/** A drill of the shelf that any instrument can play at once. */
const FIRST = "Two decks";

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
  const navigate = useNavigate();
  const once = useOnce();
  const hear = useMutation({
    mutationFn: async () => {
      const shelf = await api.shelf();
      const entry = shelf.drills.find((one) => one.title === FIRST) ?? shelf.drills[0];
      if (!entry) throw new Error("The shelf is empty.");
      return api.takeFromShelf(entry.key, once.key(entry.key));
    },
    onSuccess: (drill) => {
      once.done();
      setHeard(true);
      forgetWork();
      void navigate(`/stand/drill/${drill.id}`);
    },
  });
  return (
    <div className="card-plain">
      <h2>A first quarter of an hour</h2>
      <ol className="list-decimal pl-6 space-y-3">
        <Step isDone={isHeard} what="Hear a ready drill: it goes on the stand, and Start plays it.">
          <button
            type="button"
            className={isHeard ? "button" : "button button-first"}
            disabled={hear.isPending}
            onClick={() => hear.mutate()}
          >
            Hear a ready drill
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
      {hear.isError && <Problem error={hear.error} />}
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
