import { Link } from "react-router";
import type { Schemas } from "../../api/client";

type Props = { tasks: readonly Schemas["TaskShape"][]; planned: boolean };

/** The tasks of today; each that is of a climb is one press away from the stand. */
export function Today({ tasks, planned }: Props) {
  if (!planned) return null;
  return (
    <section className="card-plain" aria-label="Today">
      <h2>Today</h2>
      {tasks.length === 0 ? (
        <p>Nothing is planned for today.</p>
      ) : (
        <ol className="space-y-2">
          {tasks.map((task) => (
            <li key={task.kind}>
              <strong>{task.minutes} min</strong> {task.name}
              <p className="text-sm">{task.words}</p>
              {task.climb_id !== null && (
                <Link className="button button-small no-print" to={`/stand/climb/${task.climb_id}`}>
                  Open on the stand<span className="sr-only">: {task.words}</span>
                </Link>
              )}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
