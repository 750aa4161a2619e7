import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import { forgetWork } from "../api/queries";
import { Problem } from "./Problem";

type Props = { takeId: string; note: string };

/** The note on a take: read, written and changed in place; what is being typed is never lost to a refusal. */
export function TakeNote({ takeId, note }: Props) {
  const [writing, setWriting] = useState(false);
  const [kept, setKept] = useState(note);
  const [text, setText] = useState(note);
  const write = useMutation({
    mutationFn: () => api.writeNote(takeId, text),
    onSuccess: () => {
      setKept(text);
      setWriting(false);
      forgetWork();
    },
  });
  if (!writing)
    return (
      <p>
        {kept && <span className="italic">“{kept}” </span>}
        <button
          type="button"
          className="text-primary font-semibold cursor-pointer"
          onClick={() => setWriting(true)}
        >
          {kept ? "Change the note" : "Write a note"}
        </button>
      </p>
    );
  return (
    <form
      className="flex flex-wrap gap-2 mt-1"
      onSubmit={(event) => {
        event.preventDefault();
        write.mutate();
      }}
    >
      <input
        className="field flex-1 min-w-40"
        aria-label="note on this take"
        // biome-ignore lint/a11y/noAutofocus: it opens because one wants to write
        autoFocus
        value={text}
        maxLength={2000}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="submit" className="button" disabled={write.isPending}>
        Keep the note
      </button>
      {write.isError && <Problem error={write.error} />}
    </form>
  );
}
