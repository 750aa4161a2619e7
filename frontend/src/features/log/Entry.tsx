import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { moment } from "../../ui/moment";
import { Problem } from "../../ui/Problem";

const SIGNS = { clean: "●", shaky: "○", unclear: "×" } as const;

/** One line of the log: a take with its note, or a change of rung with its reason. */
export function Entry({ entry }: { entry: Schemas["EntryShape"] }) {
  const [writing, setWriting] = useState(false);
  const [text, setText] = useState(entry.note);
  const write = useMutation({
    mutationFn: () => api.writeNote(entry.take_id ?? "", text),
    onSuccess: () => {
      setWriting(false);
      forgetWork();
    },
  });
  const isTake = entry.kind === "take" && entry.take_id !== null;
  return (
    <li className={isTake ? "card-plain" : "px-4 py-1"}>
      <div className="flex flex-wrap gap-x-4 gap-y-0.5 items-baseline">
        <span className="text-soft w-44">{moment(entry.at)}</span>
        <strong>
          {entry.mark ? <span aria-hidden="true">{SIGNS[entry.mark]} </span> : null}
          {entry.heading}
        </strong>
        <span className="flex-1 min-w-40">{entry.title}</span>
      </div>
      <p className={isTake ? "" : "text-soft"}>
        {entry.sentence}
        {entry.figures?.bias && (
          <>
            {" "}
            Bias {entry.figures.bias.label} {entry.figures.bias.plus_minus} ({entry.figures.bias.count}{" "}
            notes).
          </>
        )}
        {entry.figures?.drift && <> Drift {entry.figures.drift.label}.</>}
      </p>
      {isTake &&
        (writing ? (
          <form
            className="flex flex-wrap gap-2 mt-1"
            onSubmit={(event) => {
              event.preventDefault();
              write.mutate();
            }}
          >
            <input
              className="field flex-1"
              aria-label="note on this take"
              value={text}
              maxLength={2000}
              onChange={(event) => setText(event.target.value)}
            />
            <button type="submit" className="button" disabled={write.isPending}>
              Keep the note
            </button>
            {write.isError && <Problem error={write.error} />}
          </form>
        ) : (
          <p>
            {entry.note && <span className="italic">“{entry.note}” </span>}
            <button
              type="button"
              className="text-primary font-semibold cursor-pointer"
              onClick={() => setWriting(true)}
            >
              {entry.note ? "Change the note" : "Write a note"}
            </button>
          </p>
        ))}
    </li>
  );
}
