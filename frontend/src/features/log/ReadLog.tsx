import { useMutation } from "@tanstack/react-query";
import { api } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { FileButton } from "../../ui/FileButton";
import { Problem } from "../../ui/Problem";
import { textOf } from "../../ui/textOf";

/** A log as CSV, read in for a student; rows that cannot be read are listed, none is guessed. */
export function ReadLog({ studentId }: { studentId: number }) {
  const read = useMutation({
    mutationFn: async (file: File) => api.readLog(studentId, await textOf(file)),
    onSuccess: forgetWork,
  });
  return (
    <>
      <FileButton
        className="button-quiet no-print"
        label="A log to read in"
        accept=".csv,text/csv"
        onFile={read.mutate}
      >
        Read in a CSV
      </FileButton>
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
