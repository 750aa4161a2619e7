import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { deskQuery } from "../../api/queries";
import { Key } from "../../ui/Key";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { useNewDrill } from "../../ui/useNewDrill";
import { SayDrill } from "../bench/SayDrill";
import { NewStudent } from "../students/NewStudent";
import { FirstQuarter, useFirstSteps } from "./FirstQuarter";
import { LessonLine } from "./LessonLine";
import { QuickSum } from "./QuickSum";
import { Waiting } from "./Waiting";
import { Week } from "./Week";

const COUNTS = [
  "no lesson",
  "one lesson",
  "two lessons",
  "three lessons",
  "four lessons",
  "five lessons",
  "six lessons",
];

/** Today: each student with the drill on the stand, the climb so far, what comes next; and what waits. */
export function DeskPage() {
  const newDrill = useNewDrill();
  const desk = useQuery(deskQuery);
  const [adding, setAdding] = useState(false);
  if (desk.isPending) return <Loading what="today’s lessons" />;
  if (desk.isError) return <Problem error={desk.error} onRetry={() => void desk.refetch()} />;
  const { lessons, groups, others, more, waiting, week, weekday, unread } = desk.data;
  return (
    <div className="grid gap-5 lg:grid-cols-[1fr_19rem]">
      <div className="min-w-0">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2 mb-4">
          <h1 className="text-2xl sm:text-3xl font-extrabold flex-1">
            {weekday}, {COUNTS[lessons.length] ?? `${lessons.length} lessons`}
          </h1>
          <button type="button" className="button" onClick={() => setAdding(true)}>
            New student
          </button>
          <button type="button" className="button button-first" onClick={() => newDrill.mutate()}>
            New drill <Key name="N" />
          </button>
        </div>
        <SayDrill />
        {newDrill.isError && <Problem error={newDrill.error} />}
        {unread.length > 0 && (
          <section role="alert" className="card-plain border-l-4 border-error mb-4">
            <h2>Some of the data cannot be read</h2>
            <p>
              {unread.join("; ")}. The rest goes on without. A backup may hold it whole: “ripresa restore”
              puts one in place, and keeps what is there now beside it.
            </p>
          </section>
        )}
        <FirstSteps lessons={[...lessons, ...others]} onAdd={() => setAdding(true)} />
        <ul className="space-y-2.5">
          {lessons.map((lesson) => (
            <LessonLine key={lesson.student.id} lesson={lesson} />
          ))}
        </ul>
        {groups.length > 0 && (
          <ul className="space-y-2.5 mt-2.5" aria-label="Groups today">
            {groups.map((one) => (
              <li key={one.id} className="card-plain flex flex-wrap items-baseline gap-x-4">
                <span className="text-lg font-bold">{one.time || "–"}</span>
                <Link to={`/groups/${one.id}`} className="font-semibold text-lg break-words min-w-0">
                  {one.name}
                </Link>
                <span className="text-soft">a group of {one.members}</span>
              </li>
            ))}
          </ul>
        )}
        {others.length > 0 && (
          <section className="mt-6">
            <h2 className="text-xl font-bold mb-2">On other days</h2>
            <ul className="space-y-2.5">
              {others.map((lesson) => (
                <LessonLine key={lesson.student.id} lesson={lesson} />
              ))}
            </ul>
            {more > 0 && (
              <p className="mt-2">
                <Link className="text-link" to="/students">
                  And {more} more
                </Link>
              </p>
            )}
          </section>
        )}
      </div>
      <aside className="space-y-4 min-w-0" aria-label="Beside the lessons">
        {waiting.length > 0 && <Waiting climbs={waiting} />}
        <Week days={week} />
        <QuickSum />
      </aside>
      {adding && <NewStudent onClose={() => setAdding(false)} />}
    </div>
  );
}

type StepsProps = { lessons: readonly Schemas["LessonShape"][]; onAdd: () => void };

/** The first steps, until each is done; who has two students needs them no more. */
function FirstSteps({ lessons, onAdd }: StepsProps) {
  const [first] = lessons;
  const at = { student: first?.student.id ?? null, hasClimb: lessons.some((one) => one.climb) };
  const isLeft = useFirstSteps(at);
  if (!isLeft || lessons.length > 1) return null;
  return (
    <div className="mb-3">
      <FirstQuarter {...at} onAdd={onAdd} />
    </div>
  );
}
