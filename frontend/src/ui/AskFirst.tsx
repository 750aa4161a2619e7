import { useState } from "react";

type Props = {
  /** What is offered at first, and what is asked then: one honest question. */
  offer: string;
  question: string;
  confirm: string;
  busy?: boolean;
  onConfirm: () => void;
};

/** Something that cannot be taken back: it asks once, and keeps what is there unless it is told otherwise. */
export function AskFirst({ offer, question, confirm, busy = false, onConfirm }: Props) {
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <button type="button" className="button button-quiet text-error" onClick={() => setAsking(true)}>
        {offer}
      </button>
    );
  return (
    <div className="flex flex-wrap items-center gap-2">
      <p className="w-full">{question}</p>
      <button type="button" className="button text-error" disabled={busy} onClick={onConfirm}>
        {confirm}
      </button>
      <button type="button" className="button button-quiet" onClick={() => setAsking(false)}>
        Keep it
      </button>
    </div>
  );
}
