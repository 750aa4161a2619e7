import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { recapQuery } from "../../api/queries";
import { copyText } from "../../ui/copyText";
import { Dialog } from "../../ui/Dialog";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { printText } from "../../ui/printText";

/** The recap of today’s lesson: text that can be changed, then copied into a message or printed. */
export function Recap({ studentId, onClose }: { studentId: number; onClose: () => void }) {
  const id = useId();
  const recap = useQuery(recapQuery(studentId));
  const [own, setOwn] = useState<string | null>(null);
  const [told, setTold] = useState("");
  const text = own ?? recap.data?.text ?? "";
  const copy = async () => {
    const byHand = "This browser does not let a page copy. Mark the text and copy it by hand.";
    setTold((await copyText(text)) ? "Copied: paste it into a message." : byHand);
  };
  return (
    <Dialog title="Recap of today" onClose={onClose}>
      {recap.isPending && <Loading what="the recap" />}
      {recap.isError && <Problem error={recap.error} onRetry={() => void recap.refetch()} />}
      {recap.data && (
        <>
          <label htmlFor={id} className="text-soft">
            What was played, what stands, what comes next. Change it as you like.
          </label>
          <textarea
            id={id}
            className="field"
            rows={16}
            value={text}
            onChange={(event) => setOwn(event.target.value)}
          />
          <div className="flex flex-wrap gap-2 mt-2">
            <button type="button" className="button button-first" onClick={() => void copy()}>
              Copy it
            </button>
            <button type="button" className="button" onClick={() => printText(text)}>
              Print
            </button>
          </div>
          {told && <p role="status">{told}</p>}
        </>
      )}
    </Dialog>
  );
}
