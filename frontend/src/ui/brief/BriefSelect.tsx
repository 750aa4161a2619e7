import { memo, useContext, useRef } from "react";
import type { Choice } from "../../api/client";
import { BriefContext, useRefusal } from "./context";
import { Refused } from "./Refused";

type Props = {
  /** What the control is, for a screen reader: “scale”. */
  label: string;
  field: string;
  value: string;
  choices: readonly Pick<Choice, "value" | "label" | "why">[];
  disabled?: boolean;
  onChange: (value: string) => void;
};

/** A word of a brief that is chosen from a list. */
export function BriefSelect({ label, field, value, choices, disabled = false, onChange }: Props) {
  const { setHint } = useContext(BriefContext);
  const refusal = useRefusal(field);
  // After a choice with the pointer the focus goes back to the page, so that its keys work at once.
  const byPointer = useRef(false);
  const why = (chosen: string) => choices.find((choice) => choice.value === chosen)?.why ?? "";
  return (
    <>
      <select
        className="brief-word"
        aria-label={label}
        value={value}
        disabled={disabled}
        {...refusal.attributes}
        onFocus={() => setHint(why(value))}
        onBlur={() => setHint("")}
        onChange={(event) => {
          setHint(why(event.target.value));
          onChange(event.target.value);
          if (byPointer.current) event.target.blur();
        }}
        onPointerDown={() => {
          byPointer.current = true;
        }}
        onKeyDown={() => {
          byPointer.current = false;
        }}
      >
        <Options choices={choices} />
      </select>
      <Refused sentence={refusal.sentence} />
    </>
  );
}

/** The words to choose from: there are hundreds in a brief, and none of them changes at a key. */
const Options = memo(function Options({ choices }: Pick<Props, "choices">) {
  return choices.map((choice) => (
    <option key={choice.value} value={choice.value}>
      {choice.label}
    </option>
  ));
});
