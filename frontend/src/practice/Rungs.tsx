import type { PracticeClimb } from "./contents";
import type { DoneTake } from "./done";

/** Boxes a rung has at least; each take fills one. */
const BOXES = 4;

type Props = {
  climb: PracticeClimb;
  chosen: number;
  takes: readonly DoneTake[];
  onChoose: (number: number) => void;
};

/** The rungs with a box a take: a tick for a clean one, a wave for a shaky one, a dot where nobody said. */
export function Rungs({ climb, chosen, takes, onChoose }: Props) {
  return (
    <section className="card-plain">
      <h2>Your rungs</h2>
      <ol className="flex flex-col gap-1">
        {climb.rungs.map((rung) => {
          const played = takes.filter((take) => take.rung === rung.number);
          const clean = played.filter((take) => take.mark === "clean").length;
          return (
            <li key={rung.number}>
              <button
                type="button"
                className="button button-quiet w-full flex items-center gap-3 text-left"
                aria-pressed={rung.number === chosen}
                onClick={() => onChoose(rung.number)}
              >
                <strong className="min-w-24">
                  {climb.sign} = {rung.bpm_label}
                </strong>
                <span className="flex gap-1" aria-hidden="true">
                  {Array.from({ length: Math.max(BOXES, played.length) }, (_, index) => (
                    <span key={index} className="practice-box">
                      {signOf(played[index])}
                    </span>
                  ))}
                </span>
                <span className="sr-only">
                  {played.length} takes, {clean} clean
                </span>
                {rung.is_now && <span>you are here</span>}
              </button>
            </li>
          );
        })}
      </ol>
      <p className="text-soft mt-1">{climb.moving}</p>
    </section>
  );
}

function signOf(take: DoneTake | undefined): string {
  if (!take) return "";
  return take.mark === "clean" ? "✓" : take.mark === "shaky" ? "~" : "·";
}
