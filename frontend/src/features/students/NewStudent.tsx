import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Refusal, type StudentDetails } from "../../api/client";
import { choicesQuery, forgetWork } from "../../api/queries";
import { Dialog } from "../../ui/Dialog";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";

/** A new student: no more than lessons need. */
export function NewStudent({ onClose }: { onClose: () => void }) {
  const choices = useQuery(choicesQuery);
  const [typed, setTyped] = useState<Partial<StudentDetails>>({ name: "", instrument: "guitar" });
  const details = { ...choices.data?.student, ...typed } as StudentDetails;
  const setDetails = (changed: StudentDetails) => setTyped(changed);
  const once = useOnce();
  const add = useMutation({
    mutationFn: () => api.addStudent(details, once.key(details)),
    onSuccess: () => {
      once.done();
      forgetWork();
      onClose();
    },
  });
  const wrong = (field: string) =>
    (add.error as Refusal | null)?.field?.endsWith(field) ? { "aria-invalid": true as const } : {};
  return (
    <Dialog title="New student" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <label>
          Name
          <input
            className="field"
            value={details.name}
            {...wrong("name")}
            onChange={(event) => setDetails({ ...details, name: event.target.value })}
          />
        </label>
        <label>
          Instrument
          <select
            className="field"
            value={details.instrument}
            onChange={(event) => setDetails({ ...details, instrument: event.target.value })}
          >
            {choices.data?.instruments.map((one) => (
              <option key={one.value} value={one.value}>
                {one.label}
              </option>
            ))}
          </select>
        </label>
        <div className="grid grid-cols-2 gap-3">
          <label>
            Lesson on
            <select
              className="field"
              value={details.lesson_weekday ?? ""}
              onChange={(event) =>
                setDetails({
                  ...details,
                  lesson_weekday: event.target.value === "" ? null : Number(event.target.value),
                })
              }
            >
              <option value="">no fixed day</option>
              {choices.data?.weekdays.map((one) => (
                <option key={one.value} value={one.value}>
                  {one.label}
                </option>
              ))}
            </select>
          </label>
          <label>
            At
            <input
              className="field"
              placeholder="15:30"
              value={details.lesson_time}
              {...wrong("lesson_time")}
              onChange={(event) => setDetails({ ...details, lesson_time: event.target.value })}
            />
          </label>
        </div>
        {add.isError && <Problem error={add.error} />}
        <div className="flex gap-2">
          <button type="submit" className="button button-first" disabled={add.isPending}>
            Add
          </button>
          <button type="button" className="button button-quiet" onClick={onClose}>
            Not now
          </button>
        </div>
      </form>
    </Dialog>
  );
}
