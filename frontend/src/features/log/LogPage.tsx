import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { files, type LogFilter, type Schemas } from "../../api/client";
import { logQuery, studentsQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Menu } from "../../ui/Menu";
import { Problem } from "../../ui/Problem";
import { Entry } from "./Entry";
import { FilesOnLog } from "./FilesOnLog";
import { Filters } from "./Filters";
import { Glance } from "./Glance";
import { ReadLog } from "./ReadLog";
import { ReadResults } from "./ReadResults";
import { SpeedPlot } from "./SpeedPlot";

/** The log of one student: what happened, and the speed over time. */
export function LogPage() {
  const asked = useParams().studentId;
  const students = useQuery(studentsQuery);
  if (students.isPending) return <Loading what="the students" />;
  if (students.isError) return <Problem error={students.error} onRetry={() => void students.refetch()} />;
  const first = students.data.students[0];
  if (!first)
    return (
      <div className="card-plain max-w-xl">
        <h2>Nothing has happened yet</h2>
        <p className="mb-3">The log fills with takes. Add a student first.</p>
        <Link className="button" to="/students">
          To the students
        </Link>
      </div>
    );
  return <StudentLog id={asked ? Number(asked) : first.id} students={students.data.students} />;
}

function StudentLog({ id, students }: { id: number; students: Schemas["StudentShape"][] }) {
  const navigate = useNavigate();
  const [filter, setFilter] = useState<LogFilter>({ student_id: id });
  const log = useQuery({ ...logQuery({ ...filter, student_id: id }), placeholderData: keepPreviousData });
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 mb-4">
        <h1 className="text-2xl sm:text-3xl font-extrabold">Log of</h1>
        <select
          className="brief-word text-xl font-bold"
          aria-label="student"
          value={id}
          onChange={(event) => void navigate(`/log/${event.target.value}`)}
        >
          {students.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
        <span className="flex-1" />
        <Link className="button button-quiet no-print" to={`/students/${id}`}>
          The student
        </Link>
        <Menu>
          <button type="button" className="button no-print" onClick={() => window.print()}>
            Print
          </button>
          <a className="button no-print" href={files.log(id)} download>
            Save as CSV
          </a>
          <a className="button no-print" href={files.log()} download>
            Everyone’s as CSV
          </a>
        </Menu>
        <ReadLog studentId={id} />
        <ReadResults studentId={id} />
        {log.data && <FilesOnLog key={id} studentId={id} climbs={log.data.climbs} />}
      </div>
      {log.isPending && <Loading what="the log" />}
      {log.isError && <Problem error={log.error} onRetry={() => void log.refetch()} />}
      {log.data && (
        <>
          <section className="card-plain mb-4" aria-label="Speed over time">
            <h2>Speed over time</h2>
            {log.data.points.length ? (
              <>
                <p>
                  {log.data.takes} {log.data.takes === 1 ? "take" : "takes"}.{" "}
                  {log.data.last_clean && <>The last clean one: {log.data.last_clean}.</>}
                </p>
                <SpeedPlot points={log.data.points} />
              </>
            ) : (
              <p>No take yet. Put a drill on the stand and play it.</p>
            )}
          </section>
          <Glance log={log.data} />
          {log.data.parts.length > 0 && (
            <section className="card-plain mb-4">
              <h2>Parts practised by themselves</h2>
              <ul>
                {log.data.parts.map((part) => (
                  <li key={`${part.title} ${part.name}`}>
                    {part.title}: <strong>{part.name}</strong>, {part.takes}{" "}
                    {part.takes === 1 ? "take" : "takes"},{" "}
                    {part.last_clean ? `last clean at ${part.last_clean}` : "not clean yet"}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <Filters
            filter={filter}
            climbs={log.data.climbs}
            onChange={(changed) => setFilter({ ...changed, student_id: id })}
          />
          {log.data.entries.length === 0 && <p className="card-plain">Nothing of this kind.</p>}
          <ol className="space-y-2">
            {log.data.entries.map((entry) => (
              <Entry
                key={`${entry.at} ${entry.kind} ${entry.take_id} ${entry.move_id}`}
                entry={entry}
                undoable={isLastMove(entry, log.data.entries)}
              />
            ))}
          </ol>
        </>
      )}
    </div>
  );
}

/** Whether an entry is the last move of its climb, which can be taken back. */
function isLastMove(entry: Schemas["EntryShape"], entries: readonly Schemas["EntryShape"][]): boolean {
  return (
    entry.move_id !== null &&
    entries.find((one) => one.move_id !== null && one.climb_id === entry.climb_id)?.move_id === entry.move_id
  );
}
