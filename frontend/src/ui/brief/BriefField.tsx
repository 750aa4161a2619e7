import { type ChangeEvent, type ReactNode, useContext, useEffect, useRef, useState } from "react";
import { BriefContext, useRefusal } from "./context";
import { Refused } from "./Refused";

type Props = {
  label: string;
  field: string;
  /** What is kept, as it is shown. What is being typed stays as typed, even if it is refused. */
  value: string;
  before?: ReactNode;
  hint?: string;
  /** Digits only on a phone's keyboard. */
  numeric?: boolean;
  /** For what may become longer than a line. */
  long?: boolean;
  /** What stands there while it is empty. */
  placeholder?: string;
  onChange: (text: string) => void;
};

/** A word of a brief that is typed. */
export function BriefField({
  label,
  field,
  value,
  before,
  hint,
  numeric = false,
  long = false,
  placeholder,
  onChange,
}: Props) {
  const { setHint, hints } = useContext(BriefContext);
  const refusal = useRefusal(field);
  const [text, setText] = useState(value);
  const typing = useRef(false);
  useEffect(() => {
    if (!typing.current) setText(value);
  }, [value]);
  const shared = {
    className: "brief-word",
    "aria-label": label,
    autoComplete: "off",
    placeholder,
    value: text,
    ...refusal.attributes,
    onFocus: () => {
      typing.current = true;
      setHint(hint ?? hints[field] ?? "");
    },
    onBlur: () => {
      typing.current = false;
      setHint("");
      if (!refusal.attributes["aria-invalid"]) setText(value);
    },
    onChange: (event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      setText(event.target.value);
      onChange(event.target.value);
    },
  };
  return (
    <>
      {long ? (
        <textarea
          rows={1}
          spellCheck={false}
          // It may wrap, but it is one line: Enter is what finishes a word, not a part of it.
          onKeyDown={(event) => event.key === "Enter" && event.preventDefault()}
          {...shared}
        />
      ) : (
        <span className="whitespace-nowrap">
          {before}
          <input type="text" inputMode={numeric ? "decimal" : "text"} {...shared} />
        </span>
      )}
      <Refused sentence={refusal.sentence} />
    </>
  );
}
