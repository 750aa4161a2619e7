import type { Climb, Judged } from "../../api/client";
import { WordButtons } from "../../ui/WordButtons";

const MARKS = { clean: "Clean", shaky: "Shaky", unclear: "No verdict" } as const;

type Props = { judged: Judged; rung: number | null; onMoved: (climb: Climb) => void };

/** The word after a take: a sentence with its numbers, and the press that follows or overrules it. */
export function TheWord({ judged, rung, onMoved }: Props) {
  const { take, climb } = judged;
  const counts = climb !== null && rung === climb.rung;
  const good = take.mark === "clean";
  return (
    <section className={`card-plain min-w-0 ${good ? "word-good" : ""}`} aria-live="polite">
      <h2>{climb && counts ? climb.word.heading : MARKS[take.mark]}</h2>
      <p>
        <strong>{MARKS[take.mark]}.</strong> {take.reasons.join(" ")}
      </p>
      {climb && counts && (
        <>
          <p className="mb-3">{climb.word.sentence}</p>
          <WordButtons climb={climb} takeId={take.id} follow={climb.word.heading} showKey onMoved={onMoved} />
        </>
      )}
      {climb && !counts && (
        <p>
          The climb stands on rung {climb.rung}; this take on rung {rung} is kept and does not move it.
        </p>
      )}
    </section>
  );
}
