import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { files, type StudentPage as Page } from "../../api/client";
import { studentQuery } from "../../api/queries";
import { Key } from "../../ui/Key";
import { Loading } from "../../ui/Loading";
import { Menu } from "../../ui/Menu";
import { Problem } from "../../ui/Problem";
import { useLetters } from "../../ui/useLetters";
import { Going } from "./Going";
import { NextLesson } from "./NextLesson";
import { PlanWords } from "./PlanWords";
import { Recap } from "./Recap";
import { StandsTable } from "./StandsTable";
import { StudentForm } from "./StudentForm";
import { Today } from "./Today";
import { Weeks } from "./Weeks";
import { WhatIf } from "./WhatIf";

/** Climbs that a practice file holds. */
const MOST_CLIMBS = 6;

/** One student: the plan and its weeks, what stands, where it is going, what matters in the next lesson. */
export function StudentPage() {
  const id = Number(useParams().studentId);
  const [search] = useSearchParams();
  const page = useQuery(studentQuery(id, Number(search.get("climb")) || undefined));
  if (page.isPending) return <Loading what="the student" />;
  if (page.isError) return <Problem error={page.error} onRetry={() => void page.refetch()} />;
  return <OneStudent key={id} page={page.data} />;
}

function OneStudent({ page }: { page: Page }) {
  const { student, stands, going } = page;
  const [editing, setEditing] = useState(false);
  const [recapping, setRecapping] = useState(false);
  const navigate = useNavigate();
  const first = page.tasks.find((task) => task.climb_id !== null)?.climb_id ?? stands[0]?.climb.id;
  useLetters("p", () => first && void navigate(`/stand/climb/${first}`));
  const about = [student.instrument_name, student.lesson_words, breathOf(student.details.breath)];
  return (
    <div className="grid gap-5 lg:grid-cols-[1fr_19rem] printable">
      <div className="min-w-0">
        <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 mb-2">
          <h1 className="text-2xl sm:text-3xl font-extrabold break-words min-w-0">{student.name}</h1>
          <p className="text-soft flex-1 min-w-40">{about.filter(Boolean).join(", ")}</p>
          <Menu>
            <button type="button" className="button no-print" onClick={() => setRecapping(true)}>
              Recap
            </button>
            <Link className="button no-print" to={`/log/${student.id}`}>
              The log
            </Link>
            {stands.length > 0 && (
              <a
                className="button no-print"
                href={files.practice(stands.slice(0, MOST_CLIMBS).map((one) => one.climb.id))}
              >
                Practice file
              </a>
            )}
            <button type="button" className="button no-print" onClick={() => setEditing(true)}>
              Details
            </button>
          </Menu>
          {first && (
            <Link className="button button-first no-print" to={`/stand/climb/${first}`}>
              Open on the stand <Key name="P" />
            </Link>
          )}
        </div>
        {student.is_put_away && (
          <p className="bg-care text-care-text rounded-lg px-3 py-2 mb-3">
            Put away: not on the desk. Take {student.name} back under Details.
          </p>
        )}
        <PlanWords page={page} />
        <div className="grid gap-4 xl:grid-cols-2">
          <Weeks page={page} />
          <Going page={page} />
        </div>
        <StandsTable stands={stands} studentId={student.id} shown={going?.climb_id ?? null} />
      </div>
      <aside className="space-y-4 min-w-0" aria-label="Beside the plan">
        <NextLesson page={page} />
        <Today tasks={page.tasks} planned={page.plan !== null} />
        {going && <WhatIf studentId={student.id} climbId={going.climb_id} title={going.title} />}
        <section
          className={`card-plain ${page.is_too_much ? "border-l-4 border-warning" : ""} bg-care text-care-text`}
        >
          <h2 className="!text-care-text">Care</h2>
          {page.load && <p className="mb-1">{page.load}</p>}
          <ul className="text-sm space-y-1">
            {page.care.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </section>
      </aside>
      {recapping && <Recap studentId={student.id} onClose={() => setRecapping(false)} />}
      {editing && <StudentForm student={student} onClose={() => setEditing(false)} />}
    </div>
  );
}

const breathOf = (seconds: string) => (seconds === "0" ? "" : `breath ${seconds} s`);
