import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { climbsQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { Staircase } from "../../ui/Staircase";
import { useSettled } from "../../ui/useSettled";

/** So many are taken in at a glance, without a search. */
const FEW = 12;

/** The climbs, the last played first: who, what, how far. */
export function ClimbsPage() {
  const [words, setWords] = useState("");
  const climbs = useQuery({ ...climbsQuery(useSettled(words, 150)), placeholderData: keepPreviousData });
  if (climbs.isPending) return <Loading what="the climbs" />;
  if (climbs.isError) return <Problem error={climbs.error} onRetry={() => void climbs.refetch()} />;
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 mb-4">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1">Climbs</h1>
        <Link className="button button-first" to="/climbs/new">
          Start a climb
        </Link>
      </div>
      {(words || climbs.data.count > FEW) && (
        <label className="block mb-3">
          Find by student or drill
          <input className="field" value={words} onChange={(event) => setWords(event.target.value)} />
        </label>
      )}
      {climbs.data.climbs.length === 0 && (
        <p className="card-plain">
          {words
            ? "No climb with these words in the name of its student or its drill."
            : "No climb yet. A climb leads one student with one drill from a tempo to a target."}
        </p>
      )}
      {climbs.data.count > climbs.data.climbs.length && (
        <p className="text-soft mb-2">
          The {climbs.data.climbs.length} played last, of {climbs.data.count}.
        </p>
      )}
      <ul className="space-y-2.5">
        {climbs.data.climbs.map((climb) => (
          <li
            key={climb.id}
            className="card-plain grid items-center gap-x-5 gap-y-1 md:grid-cols-[1fr_22rem_11rem]"
          >
            <div className="min-w-0">
              <Link to={`/climbs/${climb.id}`} className="font-semibold text-lg break-words">
                {climb.student.name}: {climb.title}
              </Link>
              <p className="text-soft">
                rung {climb.rung} of {climb.treads.length}, {climb.next_sentence}
              </p>
            </div>
            <Staircase
              treads={climb.treads}
              label={`Rung ${climb.rung} of ${climb.treads.length}, towards ${climb.target_label} bpm`}
            />
            <p className="md:text-right">
              {climb.sign} = <strong>{climb.bpm_label}</strong>, {climb.nps} n/s
            </p>
          </li>
        ))}
      </ul>
    </div>
  );
}
