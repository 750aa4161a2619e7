import { useContext } from "react";
import { BriefContext } from "./context";

/** The sentence of a refusal, beside the word that it is of; nothing where nothing is refused. */
export function Refused({ sentence }: { sentence: string }) {
  const { refusalId } = useContext(BriefContext);
  if (!sentence) return null;
  return (
    <span id={refusalId} role="alert" className="refused">
      {sentence}
    </span>
  );
}
