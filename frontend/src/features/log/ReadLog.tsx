import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Problem } from "../../ui/Problem";

/** A log as CSV, read in for a student; rows that cannot be read are listed, none is guessed. */
export function ReadLog({ studentId }: { studentId: number }) {
  const picker = useRef<HTMLInputElement>(null);
  const read = useMutation({
    mutationFn: async (file: File) => api.readLog(studentId, await file.text()),
    onSuccess: forgetWork,
  });
  return (
    <>
      <button type="button" className="button button-quiet no-print" onClick={() => picker.current?.click()}>
        Read in a CSV
      </button>
      <input
        ref={picker}
        type="file"
        accept=".csv,text/csv"
        className="sr-only"
        tabIndex={-1}
        aria-label="A log to read in"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) read.mutate(file);
          event.target.value = "";
        }}
      />
      {read.isError && <Problem error={read.error} />}
      {read.data && (
        <div role="status" className="card-plain w-full">
          <p>{read.data.sentence}</p>
          <ul className="text-sm">
            {read.data.left_out.map((row) => (
              <li key={row.line}>
                Line {row.line}: {row.why}
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
