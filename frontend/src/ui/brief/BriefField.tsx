import { type ReactNode, useContext, useEffect, useRef, useState } from "react";
import { BriefContext, useRefusal } from "./context";

type Props = {
  label: string;
  field: string;
  /** What is kept, as it is shown. What is being typed stays as typed, even if it is refused. */
  value: string;
  before?: ReactNode;
  hint?: string;
  /** Digits only on a phone's keyboard. */
  numeric?: boolean;
  onChange: (text: string) => void;
};

/** A word of a brief that is typed. */
export function BriefField({ label, field, value, before, hint = "", numeric = false, onChange }: Props) {
  const { setHint } = useContext(BriefContext);
  const refusal = useRefusal(field);
  const [text, setText] = useState(value);
  const typing = useRef(false);
  useEffect(() => {
    if (!typing.current) setText(value);
  }, [value]);
  return (
    <span className="whitespace-nowrap">
      {before}
      <input
        className="brief-word"
        aria-label={label}
        type="text"
        inputMode={numeric ? "decimal" : "text"}
        autoComplete="off"
        value={text}
        {...refusal}
        onFocus={() => {
          typing.current = true;
          setHint(hint);
        }}
        onBlur={() => {
          typing.current = false;
          setHint("");
          if (!refusal["aria-invalid"]) setText(value);
        }}
        onChange={(event) => {
          setText(event.target.value);
          onChange(event.target.value);
        }}
      />
    </span>
  );
}
