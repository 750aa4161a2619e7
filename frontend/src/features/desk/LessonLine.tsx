import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Staircase } from "../../ui/Staircase";
import { LessonWords } from "../students/NextLesson";

/** One student: when, the drill on the stand, the staircase in small, what comes next, one press to play. */
export function LessonLine({ lesson }: { lesson: Schemas["LessonShape"] }) {
  const { student, climb, words } = lesson;
  return (
    <li className="card-plain lesson-line grid items-center gap-x-4 gap-y-2 grid-cols-[3.5rem_1fr] md:grid-cols-[3.5rem_9.5rem_1fr_13.5rem]">
      <span className="text-lg font-bold">{lesson.time || "–"}</span>
      <div className="min-w-0">
        <Link to={`/students/${student.id}`} className="font-semibold text-lg leading-tight break-words">
          {student.name}
        </Link>
        <p className="text-soft leading-tight">{student.instrument_name}</p>
      </div>
      {climb ? (
        <div className="min-w-0 col-span-2 md:col-span-1">
          <Link to={`/climbs/${climb.id}`} className="font-semibold break-words">
            {climb.title}
          </Link>{" "}
          <span className="text-soft whitespace-nowrap">
            {climb.sign} = {climb.bpm_label}, {lesson.last_take}
          </span>
          <Staircase
            treads={climb.treads}
            label={`Rung ${climb.rung} of ${climb.treads.length}, ${climb.bpm_label} on the way to ${climb.target_label} bpm`}
          />
        </div>
      ) : (
        <p className="text-soft col-span-2 md:col-span-1">Nothing on the stand yet.</p>
      )}
      {words && (words.stood || words.broke || words.recap || words.asked.length > 0) && (
        <div className="col-span-2 md:col-span-full md:order-last text-sm md:pl-18">
          <LessonWords words={words} />
        </div>
      )}
      <div className="col-span-2 md:col-span-1 md:text-right">
        {climb ? (
          <>
            <p className="text-sm mb-1">
              {climb.nps} n/s, {climb.next_sentence}
            </p>
            <Link
              className="button"
              to={`/stand/climb/${climb.id}`}
              aria-label={`Open on the stand: ${climb.title}, ${student.name}`}
            >
              Open on the stand
            </Link>
          </>
        ) : (
          <Link className="button" to={`/climbs/new?student=${student.id}`}>
            Start a climb
          </Link>
        )}
      </div>
    </li>
  );
}
