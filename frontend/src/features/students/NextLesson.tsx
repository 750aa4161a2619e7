import { Link } from "react-router";
import type { Schemas, StudentPage } from "../../api/client";
import { day } from "../../ui/moment";

/** What matters in the next lesson: what stood, what broke, what was asked. */
export function NextLesson({ page }: { page: StudentPage }) {
  const { lesson, stands, student } = page;
  const remedy = stands.find((one) => one.climb.remedy !== null)?.climb;
  return (
    <section className="card-plain" aria-label="The next lesson">
      <h2>{lesson.day ? `For the lesson on ${lesson.day}` : "Since last week"}</h2>
      <LessonWords words={lesson} />
      {remedy?.remedy && (
        <Link
          className="button button-small mt-2"
          to={`/stand/climb/${remedy.id}?remedy=${remedy.remedy.id}`}
        >
          {remedy.remedy.name}
        </Link>
      )}
      <p className="mt-2 no-print">
        <Link to={`/log/${student.id}`} className="text-link text-sm">
          All that happened
        </Link>
      </p>
    </section>
  );
}

/** The three sentences of a lesson. */
export function LessonWords({ words }: { words: Schemas["LessonWordsShape"] }) {
  if (!words.stood && !words.broke && !words.recap && !words.asked.length)
    return <p>Nothing was played since.</p>;
  return (
    <>
      {words.recap && (
        <p>
          <strong>Today:</strong> {words.recap}
        </p>
      )}
      {words.stood && (
        <p>
          <strong>Stood:</strong> {words.stood}
        </p>
      )}
      {words.broke && (
        <p>
          <strong>Broke:</strong> {words.broke}
        </p>
      )}
      {words.asked.map((one) => (
        <p key={one.at} className="text-soft">
          {one.by === "student" ? "Asked" : "Written"} on {day(one.at)}: “{one.note}”
        </p>
      ))}
    </>
  );
}
