import { useState } from "react";
import { AskFirst } from "../ui/AskFirst";
import { copyText } from "../ui/copyText";
import type { Contents } from "./contents";
import { type Done, resultsOf, tellable } from "./done";

type Props = {
  file: Contents;
  done: Done;
  isKept: boolean;
  onQuestion: (question: string) => void;
  onForget: () => void;
};

/** What goes back to the teacher: a question, and what was done, as a file or as text for a message. */
export function GoBack({ file, done, isKept, onQuestion, onForget }: Props) {
  const [copied, setCopied] = useState("");
  const takes = tellable(done).length;
  const save = () => {
    const address = URL.createObjectURL(new Blob([resultsOf(file, done)], { type: "application/json" }));
    const link = document.createElement("a");
    link.href = address;
    link.download = `${file.student.replace(/[^\p{L}\p{N}]+/gu, "-").toLowerCase()}-results.json`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(address), 1000);
  };
  const copy = async () => {
    const text = resultsOf(file, done);
    setCopied((await copyText(text)) ? "Copied: paste it into a message to your teacher." : text);
  };
  return (
    <section className="card-plain">
      <h2>Back to your teacher</h2>
      <label className="block">
        <span className="text-soft">A question for the next lesson</span>
        <textarea
          className="field"
          rows={2}
          maxLength={2000}
          value={done.question}
          onChange={(event) => onQuestion(event.target.value)}
        />
      </label>
      <p className="my-2">
        {takes === 0
          ? "Nothing was played yet."
          : `${takes} ${takes === 1 ? "take is" : "takes are"} ready to go back.`}
        {!isKept && " This browser keeps nothing for files: save the results before you close it."}
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button button-first" onClick={save}>
          Save the results
        </button>
        <button type="button" className="button" onClick={() => void copy()}>
          Copy them as text
        </button>
        {done.takes.length > 0 && (
          <AskFirst
            offer="Begin anew"
            question="What was played with this file is forgotten here. Were the results saved?"
            confirm="Forget it"
            onConfirm={onForget}
          />
        )}
      </div>
      {copied && (
        <p role="status" className="mt-2 break-all select-all text-sm">
          {copied}
        </p>
      )}
    </section>
  );
}
