import { Link } from "react-router";
import type { Schemas } from "../../api/client";

/** At a glance: what is weak, with how often, and what the weeks came to. */
export function Glance({ log }: { log: Schemas["LogShape"] }) {
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
                  <td>{week.minutes}</td>
                  <td>{week.takes}</td>
                  <td>{week.clean}</td>
                  <td>{week.shaky}</td>
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
