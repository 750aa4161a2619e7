import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { climbQuery } from "../../api/queries";
import { FilesIn } from "../../ui/FilesIn";
import { Problem } from "../../ui/Problem";

type Props = { studentId: number; climbs: Schemas["LogShape"]["climbs"] };

/** Recordings and MIDI files of a student become takes of a climb that is chosen, on the rung that is chosen. */
export function FilesOnLog({ studentId, climbs }: Props) {
  const [chosen, setChosen] = useState<number | null>(null);
  const [rung, setRung] = useState<number | null>(null);
  const id = chosen ?? climbs[0]?.id ?? null;
  const climb = useQuery({ ...climbQuery(id ?? 0), enabled: id !== null });
  if (id === null) return null;
  const treads = climb.data?.treads ?? [];
  const tread =
    treads.find((one) => one.number === rung) ?? treads.find((one) => one.number === climb.data?.rung);
  return (
    <details className="no-print w-full">
      <summary className="cursor-pointer text-primary font-semibold">Recordings and MIDI files</summary>
      <div className="card-plain mt-1 grid gap-2">
        <p>
          They are takes of{" "}
          <select
            className="brief-word"
            aria-label="climb of the files"
            value={id}
            onChange={(event) => {
              setChosen(Number(event.target.value));
              setRung(null);
            }}
          >
            {climbs.map((one) => (
              <option key={one.id} value={one.id}>
                {one.title}
              </option>
            ))}
          </select>{" "}
          at{" "}
          <select
            className="brief-word"
            aria-label="rung of the files"
            value={tread?.number ?? ""}
            onChange={(event) => setRung(Number(event.target.value))}
          >
            {treads.map((one) => (
              <option key={one.number} value={one.number}>
                rung {one.number}, {one.bpm_label} bpm
              </option>
            ))}
          </select>
          .
        </p>
        {climb.isError && <Problem error={climb.error} />}
        {climb.data && tread && (
          <FilesIn
            of={{
              studentId,
              climbId: id,
              rung: tread.number,
              drillId: climb.data.drill_id,
              version: climb.data.version,
              bpm: tread.bpm,
              part: tread.part ?? null,
            }}
          />
        )}
      </div>
    </details>
  );
}
