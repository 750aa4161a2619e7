import type { Choice, StudentDetails } from "../../api/client";

type Common = {
  label: string;
  field: string;
  /** The field that is to blame for a refusal. */
  wrong: string;
  value: string;
  onChange: (value: string) => void;
};

const mark = ({ field, wrong }: Pick<Common, "field" | "wrong">) =>
  wrong.endsWith(field) ? { "aria-invalid": true as const } : {};

/** A labelled field of a form. */
export function FormField(props: Common & { placeholder?: string }) {
  const { label, value, placeholder, onChange } = props;
  return (
    <label>
      {label}
      <input
        className="field"
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        {...mark(props)}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

/** A labelled choice of a form. */
export function FormSelect(props: Common & { choices: readonly { value: string; label: string }[] }) {
  const { label, value, choices, onChange } = props;
  return (
    <label>
      {label}
      <select
        className="field"
        value={value}
        {...mark(props)}
        onChange={(event) => onChange(event.target.value)}
      >
        {choices.map((one) => (
          <option key={one.value} value={one.value}>
            {one.label}
          </option>
        ))}
      </select>
    </label>
  );
}

type LessonProps = {
  details: StudentDetails;
  wrong: string;
  weekdays: readonly Choice[];
  onChange: (details: StudentDetails) => void;
};

/** On which weekday lessons are, and when. */
export function LessonFields({ details, wrong, weekdays, onChange }: LessonProps) {
  return (
    <>
      <FormSelect
        label="Lesson on"
        field="lesson_weekday"
        wrong={wrong}
        value={String(details.lesson_weekday ?? "")}
        choices={[{ value: "", label: "no fixed day" }, ...weekdays]}
        onChange={(day) => onChange({ ...details, lesson_weekday: day === "" ? null : Number(day) })}
      />
      <FormField
        label="At"
        field="lesson_time"
        wrong={wrong}
        placeholder="15:30"
        value={details.lesson_time}
        onChange={(lesson_time) => onChange({ ...details, lesson_time })}
      />
    </>
  );
}
