import { useMutation } from "@tanstack/react-query";
import { useId } from "react";
import { api } from "../../api/client";
import { base64Of } from "../../ui/base64";
import { Problem } from "../../ui/Problem";

type Props = { onChosen: (dates: string[], time: string) => void };

/** Lessons out of a calendar file: its entries by name, of which one is this student’s. */
export function LessonsFromFile({ onChosen }: Props) {
  const id = useId();
  const find = useMutation({ mutationFn: async (file: File) => api.findLessons(await base64Of(file)) });
  return (
    <div className="sm:col-span-2">
      <label htmlFor={id}>Lessons from a calendar file (.ics)</label>
      <input
        id={id}
        className="field"
        type="file"
        accept=".ics,text/calendar"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) find.mutate(file);
        }}
      />
      {find.isError && <Problem error={find.error} />}
      {find.data && (
        <ul className="mt-1 space-y-1">
          {find.data.entries.length === 0 && <li>No entry in the year to come.</li>}
          {find.data.entries.slice(0, 30).map((entry) => (
            <li key={entry.title} className="flex flex-wrap gap-2 items-center">
              <button
                type="button"
                className="button button-small"
                onClick={() => onChosen(entry.dates.slice(0, 60), entry.time)}
              >
                {entry.title || "without a name"}
              </button>
              <span className="text-sm text-soft">
                {entry.dates.length} {entry.dates.length === 1 ? "day" : "days"}
                {entry.time && ` at ${entry.time}`}
              </span>
            </li>
          ))}
          {find.data.left_out.map((line) => (
            <li key={line} className="text-sm text-soft">
              {line}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
