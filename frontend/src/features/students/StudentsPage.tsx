import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { groupsQuery, putAwayQuery, studentsQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { NewGroup } from "../groups/NewGroup";
import { NewStudent } from "./NewStudent";

/** The roster: students, those who were put away, and groups. */
export function StudentsPage() {
  const [away, setAway] = useState(false);
  const [adding, setAdding] = useState<"student" | "group" | null>(null);
  const students = useQuery(away ? putAwayQuery : studentsQuery);
  const groups = useQuery(groupsQuery);
  if (students.isError) return <Problem error={students.error} onRetry={() => void students.refetch()} />;
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 mb-4">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1">Students</h1>
        <button type="button" className="button button-quiet" onClick={() => setAway(!away)}>
          {away ? "Those in use" : "Those put away"}
        </button>
        <button type="button" className="button" onClick={() => setAdding("group")}>
          New group
        </button>
        <button type="button" className="button button-first" onClick={() => setAdding("student")}>
          New student
        </button>
      </div>
      {students.isPending ? (
        <Loading what="the students" />
      ) : (
        <ul className="space-y-2" aria-label={away ? "Put away" : "Students"}>
          {students.data.students.length === 0 && (
            <li className="card-plain">
              {away ? "Nobody was put away." : "Nobody yet. Add your first student."}
            </li>
          )}
          {students.data.students.map((one) => (
            <li key={one.id} className="card-plain !py-2.5 flex flex-wrap items-baseline gap-x-4">
              <Link to={`/students/${one.id}`} className="font-semibold text-lg break-words min-w-0">
                {one.name}
              </Link>
              <span className="text-soft flex-1">{one.instrument_name}</span>
              <span className="text-soft">{one.lesson_words}</span>
            </li>
          ))}
        </ul>
      )}
      {groups.data && groups.data.groups.length > 0 && (
        <section className="mt-6">
          <h2 className="text-xl font-bold mb-2">Groups</h2>
          <ul className="space-y-2">
            {groups.data.groups.map((one) => (
              <li key={one.id} className="card-plain !py-2.5 flex flex-wrap items-baseline gap-x-4">
                <Link to={`/groups/${one.id}`} className="font-semibold text-lg break-words min-w-0">
                  {one.name}
                </Link>
                <span className="text-soft">
                  {one.members.length} {one.members.length === 1 ? "member" : "members"}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {adding === "student" && <NewStudent onClose={() => setAdding(null)} />}
      {adding === "group" && <NewGroup onClose={() => setAdding(null)} />}
    </div>
  );
}
