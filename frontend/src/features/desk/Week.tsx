import type { Schemas } from "../../api/client";

const TALL = 72;

/** Minutes played on each day of this week. */
export function Week({ days }: { days: Schemas["DayShape"][] }) {
  const most = Math.max(10, ...days.map((day) => day.minutes));
  return (
    <section className="card-plain" aria-label="This week">
      <h2>This week</h2>
      <ul className="flex gap-2 items-end">
        {days.map((day) => (
          <li key={day.name} className="flex-1 text-center text-sm">
            <svg width="100%" height={TALL} aria-hidden="true">
              <rect className="fill-bay" x="18%" width="64%" height={TALL} rx={5} />
              <rect
                className="fill-primary"
                x="18%"
                width="64%"
                y={TALL - (day.minutes / most) * TALL}
                height={(day.minutes / most) * TALL}
                rx={5}
              />
            </svg>
            <span className={day.is_today ? "font-bold" : "text-soft"}>{day.name}</span>
            <span className="sr-only">{day.label}</span>
          </li>
        ))}
      </ul>
      <p className="text-soft text-sm mt-1">Minutes of kept takes; a day off is a day off.</p>
    </section>
  );
}
