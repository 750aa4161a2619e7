import { useMutation } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";

/** A drill of the shelf that any instrument can play at once. */
const FIRST = "Two decks";

/** The first quarter of an hour in an empty studio: hear a ready drill, add a student, start a climb. */
export function FirstQuarter({ onAdd }: { onAdd: () => void }) {
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
      forgetWork();
      void navigate(`/stand/drill/${drill.id}`);
    },
  });
  return (
    <div className="card-plain">
      <h2>A first quarter of an hour</h2>
      <ol className="list-decimal pl-6 space-y-3">
        <li>
          <p>Hear a ready drill: it goes on the stand, and Start plays it.</p>
          <button
            type="button"
            className="button button-first"
            disabled={hear.isPending}
            onClick={() => hear.mutate()}
          >
            Hear a ready drill
          </button>{" "}
          <Link className="button button-quiet" to="/bench/shelf">
            The whole shelf
          </Link>
        </li>
        <li>
          <p>Add your first student: a name and an instrument are enough.</p>
          <button type="button" className="button" onClick={onAdd}>
            Add a student
          </button>
        </li>
        <li>Start a climb: from the fastest tempo without a mistake to where the piece stands.</li>
        <li>
          <Link className="text-link" to="/guide">
            The guide of ten minutes
          </Link>{" "}
          goes through all of it in the order of the job.
        </li>
      </ol>
      {hear.isError && <Problem error={hear.error} />}
    </div>
  );
}
