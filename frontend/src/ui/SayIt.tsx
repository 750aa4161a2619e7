import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type ReactNode, useRef, useState } from "react";
import type { Drill, Schemas } from "../api/client";
import { sayQuery } from "../api/queries";
import { Key } from "./Key";
import { useLetters } from "./useLetters";

type Said = Schemas["SaidShape"];

type Props = {
  label: string;
  placeholder: string;
  /** The drill that it changes; null where it makes one. */
  drill: Drill | null;
  /** Takes what was meant; the field is empty then. */
  onSaid: (said: Said, text: string) => void;
  /** What fits the words besides. */
  also?: (text: string) => ReactNode;
};

/** One field for the words that teachers use: each that is understood becomes a chip, Enter takes them. */
export function SayIt({ label, placeholder, drill, onSaid, also }: Props) {
  const [text, setText] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useLetters("/", () => field.current?.focus(), { useKey: true, preventDefault: true });
  const isAsked = text.trim() !== "";
  const asked = useQuery({
    ...sayQuery(text, drill),
    enabled: isAsked,
    placeholderData: keepPreviousData,
  });
  const said = isAsked ? asked.data : undefined;
  const take = () => {
    // What stands there now, not what was understood a key ago.
    if (!said || asked.isPlaceholderData || said.chips.length === 0) return;
    onSaid(said, text);
    setText("");
  };
  return (
    <div className="say-it">
      <label className="say-field">
        <span className="text-soft whitespace-nowrap">{label}</span>
        <input
          ref={field}
          value={text}
          maxLength={400}
          placeholder={placeholder}
          autoComplete="off"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter") take();
          }}
        />
        <Key name="/" />
      </label>
      {said && (
        <div className="say-found">
          <ul aria-label="Understood" className="flex flex-wrap gap-1.5">
            {said.chips.map((chip) => (
              <li key={chip.start} className="chip" title={chip.sets}>
                <span className="sr-only">{chip.sets}: </span>
                {chip.says}
              </li>
            ))}
          </ul>
          <p aria-live="polite" className="text-soft text-sm">
            {said.unknown.map((one) => (
              <span key={one.start}>
                Not understood: <strong>“{one.text}”</strong>
                {one.near.length > 0 && `, near to ${one.near.join(", ")}`}.{" "}
              </span>
            ))}
            {said.refused && <span className="text-error font-semibold">{said.refused} </span>}
          </p>
          {said.chips.length > 0 && (
            <button type="button" className="button button-small" onClick={take}>
              {drill ? "Change it so" : "Make this drill"} <Key name="Enter" />
            </button>
          )}
        </div>
      )}
      {isAsked && also?.(text)}
      {asked.isError && isAsked && (
        <p role="alert" className="text-error font-semibold">
          {asked.error.message}
        </p>
      )}
    </div>
  );
}
