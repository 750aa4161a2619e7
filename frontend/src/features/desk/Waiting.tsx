import type { Climb } from "../../api/client";
import { WordButtons } from "../../ui/WordButtons";

/** Words that wait for the teacher: each a sentence, and the press that follows or overrules it. */
export function Waiting({ climbs }: { climbs: readonly Climb[] }) {
  return (
    <section className="card-plain">
      <h2>Waiting for your word</h2>
      <ul className="space-y-3">
        {climbs.map(
          (climb) =>
            climb.waiting && (
              <li key={climb.id}>
                <p className="mb-1 leading-snug">
                  <strong>{climb.student.name}</strong>: {climb.waiting.sentence}
                </p>
                <WordButtons climb={climb} takeId={null} follow={climb.waiting.heading} quiet />
              </li>
            ),
        )}
      </ul>
    </section>
  );
}
