import { useEffect, useState } from "react";
import type { Run } from "../features/stand/runs";
import type { Contents } from "./contents";
import { type Done, keepDone, keptDone, type Mark, NOTHING, takeOf, together, watchDone } from "./done";
import { GoBack } from "./GoBack";
import { PlayRung } from "./PlayRung";
import { Rungs } from "./Rungs";

/** A practice file as a student has it at home: what to play, the rungs, and what goes back. */
export function PracticePage({ file }: { file: Contents }) {
  const [done, setDone] = useState<Done>(() => keptDone(file));
  const [isKept, setKept] = useState(true);
  const [climbAt, setClimbAt] = useState(0);
  const climb = file.climbs[climbAt] ?? file.climbs[0];
  useEffect(() => watchDone(file, setDone), [file]);
  const [numbers, setNumbers] = useState<Record<number, number>>({});
  if (!climb) return null;
  const now = climb.rungs.find((one) => one.is_now) ?? climb.rungs[0];
  const rung = climb.rungs.find((one) => one.number === numbers[climb.climb_id]) ?? now;
  const change = (next: Done) => {
    setDone(next);
    setKept(keepDone(file, next));
  };
  /** What another page of this file has kept meanwhile stays. */
  const add = (next: Done) => change(together(keptDone(file), next));
  const played = (runs: readonly Run[]) =>
    add({ ...done, takes: [...done.takes, ...runs.map((run) => takeOf(climb, run, null))] });
  const mark = (id: string, said: Mark) =>
    add({ ...done, takes: done.takes.map((take) => (take.id === id ? { ...take, mark: said } : take)) });
  return (
    <main className="max-w-5xl mx-auto p-3 pb-28 flex flex-col gap-3">
      <header>
        <p className="text-soft">for {file.student}</p>
        {file.climbs.length > 1 && (
          <label className="flex items-center gap-2 text-soft">
            Which
            <select
              className="brief-word"
              value={climbAt}
              onChange={(event) => setClimbAt(Number(event.target.value))}
            >
              {file.climbs.map((one, index) => (
                <option key={one.climb_id} value={index}>
                  {one.title}
                </option>
              ))}
            </select>
          </label>
        )}
        <h1 className="text-2xl sm:text-3xl font-extrabold break-words">{climb.title}</h1>
        {climb.purpose && (
          <p>
            <strong>What for:</strong> {climb.purpose}
          </p>
        )}
        <details>
          <summary className="cursor-pointer text-primary font-semibold">The drill in a sentence</summary>
          <p className="text-lg">
            {climb.brief.map((run, index) =>
              run.is_word ? <strong key={index}>{run.text}</strong> : run.text,
            )}
          </p>
        </details>
      </header>
      {rung && (
        <PlayRung
          key={`${climb.climb_id} ${rung.number}`}
          file={file}
          climb={climb}
          rung={rung}
          takes={done.takes.filter((take) => take.climb_id === climb.climb_id && take.rung === rung.number)}
          onPlayed={played}
          onMark={mark}
        />
      )}
      <Rungs
        climb={climb}
        chosen={rung?.number ?? 0}
        takes={done.takes.filter((take) => take.climb_id === climb.climb_id)}
        onChoose={(number) => setNumbers({ ...numbers, [climb.climb_id]: number })}
      />
      <GoBack
        file={file}
        done={done}
        isKept={isKept}
        onQuestion={(question) => add({ ...done, question })}
        onForget={() => change(NOTHING)}
      />
      <section className="card-plain bg-care text-care-text">
        <h2 className="!text-care-text">Care</h2>
        <p>{climb.care.join(" ")}</p>
      </section>
    </main>
  );
}
