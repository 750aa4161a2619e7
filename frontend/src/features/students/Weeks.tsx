import type { Schemas, StudentPage } from "../../api/client";

const NAMES = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"];

/** The weeks around today as small squares with minutes in them: what a day is, its shape and its figure say. */
export function Weeks({ page }: { page: StudentPage }) {
  return (
    <section className="card-plain min-w-0" aria-label="The weeks">
      <h2>The weeks</h2>

      <table className="week-table">
        <thead>
          <tr>
            <th scope="col">
              <span className="sr-only">week of</span>
            </th>
            {NAMES.map((name) => (
              <th key={name} scope="col" className="font-normal text-soft text-sm">
                {name}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">in all</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {page.weeks.map((week) => (
            <tr key={week.name}>
              <th scope="row" className="font-normal text-soft text-sm whitespace-nowrap pr-2 text-left">
                {week.name}
              </th>
              {week.days.map((day) => (
                <td key={day.date}>
                  <Day day={day} time={page.student.lesson_time} />
                </td>
              ))}
              <td className="text-soft text-sm pl-1 whitespace-nowrap">{week.sentence}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {page.plan && <p className="text-soft text-sm mt-2">{page.plan.sentence} A day off is a day off.</p>}
    </section>
  );
}

function Day({ day, time }: { day: Schemas["PlannedDayShape"]; time: string }) {
  const shown = day.minutes && !day.planned ? day.minutes : day.planned || (day.lesson ? time || "L" : "");
  const isLesson = day.lesson && !day.minutes && !day.planned;
  return (
    <span
      className={`week-day week-${day.planned ? "planned" : day.minutes ? "done" : isLesson ? "lesson" : day.kind} ${day.is_today ? "week-today" : ""}`}
      title={day.words}
    >
      <span aria-hidden="true">{shown}</span>
      <span className="sr-only">{day.words}</span>
    </span>
  );
}
