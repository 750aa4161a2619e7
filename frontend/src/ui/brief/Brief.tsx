import { type ReactNode, useCallback, useId, useRef, useState } from "react";
import { BriefContext, type Refused } from "./context";

type Props = {
  label: string;
  /** A sentence to show under the brief, and the field it blames. */
  refusal: Refused | null;
  /** What the server says of its fields, by their names. */
  hints?: Readonly<Record<string, string>>;
  children: ReactNode;
};

const NO_HINTS = {};

/** A sentence whose underlined words are the controls; under it, why one would choose the word in hand. */
export function Brief({ label, refusal, hints = NO_HINTS, children }: Props) {
  const [hint, setHint] = useState("");
  const [typed, setTyped] = useState<Refused | null>(null);
  const refusalId = useId();
  const refuse = useCallback((field: string, message: string | null) => {
    setTyped((old) => (message ? { message, field } : old?.field === field ? null : old));
  }, []);
  const shown = typed ?? refusal;
  // Which control shows the sentence of each field: the last that claimed it.
  const claims = useRef(new Map<string, string[]>());
  const claim = useCallback((field: string, control: string) => {
    const others = claims.current.get(field) ?? [];
    claims.current.set(field, [...others, control]);
    return () => {
      const left = (claims.current.get(field) ?? []).filter((one) => one !== control);
      if (left.length > 0) claims.current.set(field, left);
      else claims.current.delete(field);
    };
  }, []);
  const shows = useCallback(
    (field: string, control: string) => claims.current.get(field)?.at(-1) === control,
    [],
  );
  const isBeside = shown?.field != null && claims.current.has(shown.field);
  return (
    <BriefContext value={{ setHint, hints, refuse, refused: shown, refusalId, claim, shows }}>
      <section aria-label={label} className="brief">
        {children}
      </section>
      {shown && !isBeside ? (
        <p id={refusalId} role="alert" className="text-error font-semibold mb-2">
          {shown.message}
        </p>
      ) : (
        <p className="text-soft text-sm min-h-6 leading-6" aria-live="polite">
          {hint}
        </p>
      )}
    </BriefContext>
  );
}
