import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Climb } from "../../api/client";
import { takesQuery } from "../../api/queries";
import { Dialog } from "../../ui/Dialog";
import { MARK_WORDS } from "../../ui/marks";
import { moment } from "../../ui/moment";

type Props = { climb: Climb | null; studentId: number | null };

/** What leads up and what is asked, in one line; all limits behind it. */
export function BeforeTheTry({ climb, studentId }: Props) {
  const [isOpen, setOpen] = useState(false);
  return (
    <p className="text-soft stand-line">
      {climb ? (
        <>
          {climb.word.sentence} {climb.asked}
          {climb.remedy && (
            <>
              {" "}
              It waits for its remedy: <strong>{climb.remedy.name}</strong>, against {climb.remedy.against}.
            </>
          )}
        </>
      ) : studentId === null ? (
        "Choose a student above to keep takes. Without one it plays, and nothing is measured."
      ) : (
        "Takes are kept in the log. To have rungs and a word after each take, start a climb."
      )}{" "}
      <button type="button" className="text-link" onClick={() => setOpen(true)}>
        {climb ? "All limits" : "Care"}
      </button>
      {isOpen && (
        <Dialog title={climb ? "What is asked" : "Care"} onClose={() => setOpen(false)}>
          {climb && (
            <>
              <p className="mb-2">
                {climb.moving_words} Held to {climb.held_to}.
              </p>
              <AllLimits climb={climb} />
            </>
          )}
          {climb && <LastTakes climbId={climb.id} />}
          <h3 className="font-bold mt-3">Care</h3>
          <p>
            Stop at pain, tingling, numbness or weakness. Rest 5 minutes after 25; wind players rest as long
            as they play. Start soft, with headphones if the instrument is loud.
          </p>
        </Dialog>
      )}
    </p>
  );
}

/** Each limit with its figures, and where it is a time as a band on the notes of a beat. */
export function AllLimits({ climb }: { climb: Climb }) {
  return (
    <table className="figures-table">
      <thead>
        <tr>
          <th scope="col">what</th>
          <th scope="col">up to</th>
          <th scope="col">on a beat</th>
        </tr>
      </thead>
      <tbody>
        {climb.limits.map((limit) => (
          <tr key={limit.name}>
            <th scope="row">{limit.name}</th>
            <td>{limit.words}</td>
            <td>{limit.bands.length > 0 && <OnABeat bands={limit.bands} />}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const WIDE = 110;
const TALL = 26;

/** A beat of the closest division: where each note stands, and how far to either side it may lie. */
function OnABeat({ bands }: Pick<Climb["limits"][number], "bands">) {
  const band = bands.at(-1);
  const notes = Math.min(8, Math.max(1, Math.round(Number(band?.division) || 1)));
  if (!band) return null;
  const gap = WIDE / notes;
  const reach = Math.min(gap / 2, band.share * gap);
  return (
    <svg
      width={WIDE + 8}
      height={TALL}
      role="img"
      aria-label={`a band of ${(band.share * 100).toFixed(0)} % of the way to the next note, to either side`}
      className="inline-block"
    >
      <line className="stroke-soft" x1={4} x2={WIDE + 4} y1={TALL - 4} y2={TALL - 4} />
      {Array.from({ length: notes }, (_, note) => (
        <g key={note}>
          <rect
            className="fill-done"
            x={Math.max(0, 4 + note * gap + gap / 2 - reach)}
            y={4}
            width={2 * reach}
            height={TALL - 8}
            rx={3}
          />
          <line
            className="stroke-peg"
            x1={4 + note * gap + gap / 2}
            x2={4 + note * gap + gap / 2}
            y1={8}
            y2={TALL - 4}
            strokeWidth={3}
          />
        </g>
      ))}
    </svg>
  );
}

function LastTakes({ climbId }: { climbId: number }) {
  const takes = useQuery(takesQuery(climbId));
  const last = takes.data?.takes.slice(-4).reverse() ?? [];
  if (!last.length) return null;
  return (
    <>
      <h3 className="font-bold mt-3">Last takes</h3>
      <ul>
        {last.map((take) => (
          <li key={take.id}>
            {moment(take.played_at)}: {take.bpm_label} bpm,{" "}
            <strong>{MARK_WORDS[take.mark].toLowerCase()}</strong>
            {take.part_name && `, ${take.part_name}`}
          </li>
        ))}
      </ul>
    </>
  );
}
