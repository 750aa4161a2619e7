import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Choices, type Refusal, type Student, type StudentDetails } from "../../api/client";
import { choicesQuery, forgetWork } from "../../api/queries";
import { listed } from "../../ui/brief/listed";
import { Dialog } from "../../ui/Dialog";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { AwayAndGone } from "./AwayAndGone";
import { FormField, FormSelect, LessonFields } from "./fields";
import { LessonsFromFile } from "./LessonsFromFile";

type Props = { student: Student; onClose: () => void };

/** What is written down about a student; putting away and deleting are here too. */
export function StudentForm({ student, onClose }: Props) {
  const choices = useQuery(choicesQuery);
  return (
    <Dialog title={student.name} onClose={onClose}>
      {choices.data ? (
        <Form student={student} choices={choices.data} onClose={onClose} />
      ) : (
        <Loading what="the details" />
      )}
    </Dialog>
  );
}

function Form({ student, choices, onClose }: Props & { choices: Choices }) {
  const [details, setDetails] = useState<StudentDetails>(student.details);
  const set = (changed: Partial<StudentDetails>) => setDetails({ ...details, ...changed });
  const save = useMutation({
    mutationFn: () => api.changeStudent(student.id, details, student.revision),
    onSuccess: () => {
      forgetWork();
      onClose();
    },
  });
  const wrong = (save.error as Refusal | null)?.field ?? "";
  const { guardian } = details;
  return (
    <form
      className="grid gap-3 sm:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <FormField
        label="Name"
        field="name"
        wrong={wrong}
        value={details.name}
        onChange={(name) => set({ name })}
      />
      <FormSelect
        label="Instrument"
        field="instrument"
        wrong={wrong}
        value={details.instrument}
        choices={choices.instruments}
        onChange={(instrument) => set({ instrument })}
      />
      <LessonFields details={details} wrong={wrong} weekdays={choices.weekdays} onChange={setDetails} />
      <FormField
        label="Every two weeks instead, from"
        field="lesson_from"
        wrong={wrong}
        placeholder="2026-10-07"
        value={details.lesson_from}
        onChange={(text) => set({ lesson_from: text.trim() })}
      />
      <FormField
        label="Single lessons"
        field="lesson_dates"
        wrong={wrong}
        placeholder="2026-11-28, 2026-12-05"
        value={details.lesson_dates.join(", ")}
        onChange={(text) => set({ lesson_dates: listed(text) })}
      />
      <LessonsFromFile
        onChosen={(dates, time) =>
          set({
            lesson_dates: dates,
            ...(time ? { lesson_time: time } : {}),
            lesson_weekday: null,
            lesson_from: "",
          })
        }
      />
      <FormSelect
        label="Leading hand"
        field="leading_hand"
        wrong={wrong}
        value={details.leading_hand}
        choices={[
          { value: "right", label: "right" },
          { value: "left", label: "left" },
        ]}
        onChange={(hand) => set({ leading_hand: hand as StudentDetails["leading_hand"] })}
      />
      <FormSelect
        label="Level"
        field="level"
        wrong={wrong}
        value={details.level}
        choices={[{ value: "", label: "not said" }, ...choices.presets]}
        onChange={(level) => set({ level: level as StudentDetails["level"] })}
      />
      <FormField
        label="Lowest note"
        field="lowest"
        wrong={wrong}
        placeholder="E3"
        value={details.lowest}
        onChange={(text) => set({ lowest: text.trim() })}
      />
      <FormField
        label="Highest note"
        field="highest"
        wrong={wrong}
        placeholder="C6"
        value={details.highest}
        onChange={(text) => set({ highest: text.trim() })}
      />
      <FormField
        label="A breath lasts, seconds"
        field="breath"
        wrong={wrong}
        value={details.breath === "0" ? "" : details.breath}
        onChange={(text) => set({ breath: text.trim() || "0" })}
      />
      <FormSelect
        label="Evenness of new climbs"
        field="evenness"
        wrong={wrong}
        value={details.evenness ?? ""}
        choices={[{ value: "", label: "as in the settings" }, ...choices.evenness]}
        onChange={(value) => set({ evenness: (value || null) as StudentDetails["evenness"] })}
      />
      <FormSelect
        label="Counts"
        field="counting"
        wrong={wrong}
        value={details.counting?.system ?? ""}
        choices={[{ value: "", label: "as in the settings" }, ...choices.countings]}
        onChange={(system) =>
          set({
            counting: system
              ? {
                  system: system as NonNullable<StudentDetails["counting"]>["system"],
                  own: details.counting?.own ?? "",
                  runs: details.counting?.runs ?? "bar",
                }
              : null,
          })
        }
      />
      {details.counting?.system === "own" && (
        <FormField
          label="Own count words"
          field="counting"
          wrong={wrong}
          placeholder="2: # und; 3: # o la"
          value={details.counting.own}
          onChange={(own) => set({ counting: { runs: "bar", ...details.counting, system: "own", own } })}
        />
      )}
      <FormSelect
        label="Figures on the stand"
        field="stand"
        wrong={wrong}
        value={details.stand.sound_first === null ? "" : details.stand.sound_first ? "yes" : "no"}
        choices={[{ value: "", label: "as in the settings" }, ...choices.sound_firsts]}
        onChange={(value) =>
          set({ stand: { ...details.stand, sound_first: value === "" ? null : value === "yes" } })
        }
      />
      <fieldset className="sm:col-span-2 grid gap-3 sm:grid-cols-3">
        <legend className="font-bold">Limits of a guardian</legend>
        <FormField
          label="Minutes a day"
          field="guardian.most_minutes"
          wrong={wrong}
          value={guardian.most_minutes === null ? "" : String(guardian.most_minutes)}
          onChange={(text) => set({ guardian: { ...guardian, most_minutes: text ? Number(text) : null } })}
        />
        <FormField
          label="Fastest target, bpm"
          field="guardian.most_bpm"
          wrong={wrong}
          value={guardian.most_bpm ?? ""}
          onChange={(text) => set({ guardian: { ...guardian, most_bpm: text.trim() || null } })}
        />
        <FormSelect
          label="Recordings"
          field="guardian.recordings"
          wrong={wrong}
          value={guardian.recordings ? "yes" : "no"}
          choices={[
            { value: "no", label: "are never kept" },
            { value: "yes", label: "may be kept here" },
          ]}
          onChange={(value) => set({ guardian: { ...guardian, recordings: value === "yes" } })}
        />
        {guardian.recordings && (
          <FormField
            label="Keep recordings of takes for so many days; 0 keeps none"
            field="keep_days"
            wrong={wrong}
            value={String(details.keep_days)}
            onChange={(text) => set({ keep_days: Number(text) || 0 })}
          />
        )}
      </fieldset>
      <label className="sm:col-span-2">
        What hurts (stays here, never on paper)
        <textarea
          className="field"
          rows={2}
          maxLength={2000}
          value={details.hurts}
          onChange={(event) => set({ hurts: event.target.value })}
        />
      </label>
      {save.isError && (
        <div className="sm:col-span-2">
          <Problem error={save.error} />
        </div>
      )}
      <div className="sm:col-span-2 flex flex-wrap gap-2">
        <button type="submit" className="button button-first" disabled={save.isPending}>
          Keep
        </button>
        <button type="button" className="button button-quiet" onClick={onClose}>
          As it was
        </button>
      </div>
      <AwayAndGone student={student} onGone={onClose} />
    </form>
  );
}
