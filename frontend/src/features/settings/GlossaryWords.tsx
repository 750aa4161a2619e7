import { useId, useState } from "react";

type Props = { glossary: string; error: Error | null; onKeep: (glossary: string) => void };

/** The words that go home with a student, in the teacher’s own: a line for each. */
export function GlossaryWords({ glossary, error, onKeep }: Props) {
  const id = useId();
  const [text, setText] = useState(glossary);
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-primary font-semibold">Words that go home, in your own</summary>
      <label htmlFor={id} className="block text-soft mt-1">
        A line for each: the word, a colon, what it means. Those that a recap uses stand under it.
      </label>
      <textarea
        id={id}
        className="field"
        rows={10}
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
        disabled={text === glossary && !error}
        onClick={() => onKeep(text)}
      >
        Keep these words
      </button>
    </details>
  );
}
