import { useContext, useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { api } from "../../api/client";
import { BriefField } from "./BriefField";
import { BriefContext } from "./context";

type Props = {
  label: string;
  field: string;
  /** What kind of number: a tempo is checked for being playable. */
  what: "bpm" | "number";
  /** The exact value that is kept. */
  exact: string;
  before?: string;
  hint?: string;
  onChange: (exact: string) => void;
};

/** What is exact as it stands, and within every bound: the server need not read it first. */
const WHOLE = /^[1-9]\d{0,2}$/;

/** A typed number that the server reads exactly: 84, 84.5, 84½. */
export function AmountField({ label, field, what, exact, before, hint, onChange }: Props) {
  const { refuse } = useContext(BriefContext);
  const [shown, setShown] = useState(exact);
  const asked = useRef(0);
  // The answer may come after another word was changed: it goes to what stands there by then.
  const latest = useRef({ exact, onChange });
  latest.current = { exact, onChange };
  useEffect(() => {
    // Whole numbers are shown as they are kept; how others are written, the server knows.
    if (/^\d+$/.test(exact)) {
      setShown(exact);
      return;
    }
    let current = true;
    api.amount(exact, "number").then(
      (amount) => current && setShown(amount.label),
      () => current && setShown(exact),
    );
    return () => {
      current = false;
    };
  }, [exact]);
  const type = (text: string) => {
    asked.current += 1;
    const mine = asked.current;
    if (WHOLE.test(text)) {
      refuse(field, null);
      if (text !== exact) onChange(text);
      return;
    }
    api.amount(text, what).then(
      (amount) => {
        if (mine !== asked.current) return;
        refuse(field, null);
        // At once, so that an answer right behind it is laid over this change and not over what was before.
        if (amount.exact !== latest.current.exact) flushSync(() => latest.current.onChange(amount.exact));
      },
      (error: Error) => mine === asked.current && refuse(field, error.message),
    );
  };
  return (
    <BriefField
      label={label}
      field={field}
      numeric
      before={before}
      hint={hint}
      value={shown}
      onChange={type}
    />
  );
}
