import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Scrolling } from "../../ui/Scrolling";
import { Staircase } from "../../ui/Staircase";

type Props = { stands: readonly Schemas["StandsShape"][]; studentId: number; shown: number | null };

/** What stands, by drill, variant and click, each with its small staircase and its weakest place. */
export function StandsTable({ stands, studentId, shown }: Props) {
  return (
    <section className="card-plain mt-4 min-w-0" aria-label="What stands">
      <div className="flex flex-wrap items-center gap-3 mb-1">
        <h2 className="text-primary font-bold flex-1">What stands, by drill, variant and click</h2>
        <Link className="button button-small no-print" to={`/climbs/new?student=${studentId}`}>
          Start a climb
        </Link>
      </div>
      {stands.length === 0 ? (
        <p>Nothing yet: a climb leads from a tempo to a target.</p>
      ) : (
        <Scrolling name="What stands, drill by drill">
          <table className="stands-table">
            <thead>
              <tr>
                <th scope="col">drill</th>
                <th scope="col">
                  <span className="sr-only">staircase</span>
                </th>
                <th scope="col">last clean</th>
                <th scope="col">n/s</th>
                <th scope="col">click</th>
                <th scope="col">where it is weak</th>
              </tr>
            </thead>
            <tbody>
              {stands.map(({ climb, clean, nps, click, weak }) => (
                <tr key={climb.id}>
                  <th scope="row">
                    <Link to={`/climbs/${climb.id}`} className="font-semibold break-words">
                      {climb.title}
                    </Link>
                    {climb.newer_version !== null && (
                      <span className="block text-sm text-soft font-normal">a newer version waits</span>
                    )}
                    <Link
                      className="block text-link text-sm font-normal no-print"
                      to={`/students/${studentId}?climb=${climb.id}`}
                      aria-current={climb.id === shown ? "true" : undefined}
                    >
                      {climb.id === shown ? "shown above" : "show its way"}
                      <span className="sr-only">: {climb.title}</span>
                    </Link>
                  </th>
                  <td className="w-40 min-w-32">
                    <Staircase
                      treads={climb.treads}
                      label={`Rung ${climb.rung} of ${climb.treads.length}, towards ${climb.target_words}`}
                    />
                  </td>
                  <td className="whitespace-nowrap font-bold">{clean || "not yet"}</td>
                  <td>{nps}</td>
                  <td className="text-soft">{click}</td>
                  <td>{weak[0] ?? (clean ? "nothing that shows" : "")}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scrolling>
      )}
    </section>
  );
}
