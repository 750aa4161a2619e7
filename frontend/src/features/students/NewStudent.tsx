import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Refusal, type StudentDetails } from "../../api/client";
import { choicesQuery, forgetWork } from "../../api/queries";
import { Dialog } from "../../ui/Dialog";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";
import { FormField, FormSelect, LessonFields } from "./fields";

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
  const wrong = (add.error as Refusal | null)?.field ?? "";
  return (
    <Dialog title="New student" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <FormField
          label="Name"
          field="name"
          wrong={wrong}
          value={details.name}
          onChange={(name) => setDetails({ ...details, name })}
        />
        <FormSelect
          label="Instrument"
          field="instrument"
          wrong={wrong}
          value={details.instrument}
          choices={choices.data?.instruments ?? []}
          onChange={(instrument) => setDetails({ ...details, instrument })}
        />
        <div className="grid grid-cols-2 gap-3">
          <LessonFields
            details={details}
            wrong={wrong}
            weekdays={choices.data?.weekdays ?? []}
            onChange={setDetails}
          />
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
