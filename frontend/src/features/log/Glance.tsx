import { Link } from "react-router";
import type { Schemas } from "../../api/client";

/** At a glance: what is weak, with how often, and what the weeks came to. */
export function Glance({ log }: { log: Schemas["LogShape"] }) {
  const most = Math.max(1, ...log.weeks.map((week) => Number(week.minutes)));
  return (
    <div className="grid gap-4 lg:grid-cols-2 mb-4">
      <section className="card-plain min-w-0">
        <h2>Weak places, over the last takes</h2>
        {log.weak.length === 0 ? (
          <p>Nothing that shows in measured takes.</p>
        ) : (
          <ul className="space-y-1">
            {log.weak.map((one) => (
              <li key={`${one.title} ${one.words}`}>
                <strong>{one.title}</strong>: {one.words}
                {one.before && <span className="text-soft"> ({one.before})</span>}
              </li>
            ))}
          </ul>
        )}
        <p className="mt-2 no-print">
          <Link className="text-link" to={`/students/${log.student.id}`}>
            What stands, and where it is going
          </Link>
        </p>
      </section>
      <section className="card-plain min-w-0">
        <h2>The weeks</h2>
        {log.weeks.length === 0 ? (
          <p>Nothing in the last twelve weeks.</p>
        ) : (
          <table className="figures-table w-full">
            <thead>
              <tr>
                <th scope="col">week of</th>
                <th scope="col">min</th>
                <th scope="col">takes</th>
                <th scope="col">clean</th>
                <th scope="col">shaky</th>
                <th scope="col">notes</th>
              </tr>
            </thead>
            <tbody>
              {log.weeks.map((week) => (
                <tr key={week.name}>
                  <th scope="row">{week.name}</th>
                  <td>
                    {/* The week as a bar, beside its minutes. */}
                    <svg width={64} height={10} aria-hidden="true" className="inline-block mr-2">
                      <rect className="fill-bay" width={64} height={10} rx={4} />
                      <rect
                        className="fill-primary"
                        width={(Number(week.minutes) / most) * 64}
                        height={10}
                        rx={4}
                      />
                    </svg>
                    {week.minutes}
                  </td>
                  <td>{week.takes}</td>
                  <td>
                    <span aria-hidden="true">{"●".repeat(Math.min(5, week.clean))} </span>
                    {week.clean}
                  </td>
                  <td>
                    <span aria-hidden="true">{"○".repeat(Math.min(5, week.shaky))} </span>
                    {week.shaky}
                  </td>
                  <td>{week.notes.toLocaleString("en-GB")}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
    </div>
  );
}
