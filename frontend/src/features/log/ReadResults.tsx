import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { DropZone } from "../../ui/DropZone";
import { FileButton } from "../../ui/FileButton";
import { Problem } from "../../ui/Problem";
import { textOf } from "../../ui/textOf";

/** What a practice file saved: dropped here, chosen, or pasted as text; judged as any take, and each take once. */
export function ReadResults({ studentId }: { studentId: number | null }) {
  const id = useId();
  const [text, setText] = useState("");
  const read = useMutation({
    mutationFn: (results: string) => api.takeResults(results, studentId),
    onSuccess: () => {
      setText("");
      forgetWork();
    },
  });
  const take = async (file: File | undefined) => {
    if (file) read.mutate(await textOf(file));
  };
  return (
    <details className="no-print w-full">
      <summary className="cursor-pointer text-primary font-semibold">Results of a practice file</summary>
      <DropZone className="card-plain mt-1" onFiles={(files) => void take(files[0])}>
        <p>Drop the file here, choose it, or paste what the student sent.</p>
        <label htmlFor={id} className="sr-only">
          Results as text
        </label>
        <textarea
          id={id}
          className="field"
          rows={2}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <div className="flex flex-wrap gap-2 mt-2">
          <button
            type="button"
            className="button"
            disabled={!text.trim() || read.isPending}
            onClick={() => read.mutate(text)}
          >
            Take them in
          </button>
          <FileButton
            className="button-quiet"
            label="Results to take in"
            accept=".json,application/json,text/plain"
            onFile={(file) => void take(file)}
          >
            Choose the file
          </FileButton>
        </div>
        {read.isError && <Problem error={read.error} />}
        {read.data && (
          <div role="status" className="mt-2">
            <p>{read.data.sentence}</p>
            {read.data.question && (
              <p>
                <strong>Asked:</strong> {read.data.question}
              </p>
            )}
            <ul>
              {read.data.left_out.map((one, index) => (
                <li key={index}>
                  {one.what}: {one.why}
                </li>
              ))}
            </ul>
          </div>
        )}
      </DropZone>
    </details>
  );
}
