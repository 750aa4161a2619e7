import { useId, useState } from "react";

type Props = {
  title: string;
  hint: string;
  keep: string;
  lines: string;
  rows: number;
  error: Error | null;
  onKeep: (lines: string) => void;
};

/** What a teacher writes in his own words, a line for each: words that go home, instruments. */
export function OwnLines({ title, hint, keep, lines, rows, error, onKeep }: Props) {
  const id = useId();
  const [text, setText] = useState(lines);
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-primary font-semibold">{title}</summary>
      <label htmlFor={id} className="block text-soft mt-1">
        {hint}
      </label>
      <textarea
        id={id}
        className="field"
        rows={rows}
        maxLength={8000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {error && (
        <p role="alert" className="text-error">
          {error.message}
        </p>
      )}
      <button
        type="button"
        className="button mt-2"
        disabled={text === lines && !error}
        onClick={() => onKeep(text)}
      >
        {keep}
      </button>
    </details>
  );
}
