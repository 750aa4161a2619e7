import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api } from "../../api/client";
import { shelfQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";
import { MiniRail } from "../../ui/rail/MiniRail";
import { useMadeDrill } from "../../ui/useMadeDrill";
import { hasWords } from "./search";
import { useHear } from "./useHear";

/** The shelf: ready drills, found by aim or by words, and taken as a start. */
export function ShelfPage() {
  const shelf = useQuery(shelfQuery);
  const [aim, setAim] = useState("");
  const [family, setFamily] = useState("");
  const [level, setLevel] = useState("");
  const hear = useHear();
  const [wanted, setWanted] = useState("");
  const take = useMadeDrill(api.takeFromShelf);
  if (shelf.isPending) return <Loading what="the shelf" />;
  if (shelf.isError) return <Problem error={shelf.error} onRetry={() => void shelf.refetch()} />;
  const found = shelf.data.drills.filter(
    (one) =>
      (!aim || one.aim === aim) &&
      (!family || one.family === family || one.family === shelf.data.families[0]) &&
      (!level || one.level === level) &&
      hasWords(Object.values(one).join(" "), wanted),
  );
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3 mb-3">
        <h1 className="text-2xl sm:text-3xl font-extrabold flex-1">The shelf</h1>
        <Link className="button" to="/bench">
          Your own drills
        </Link>
      </div>
      <div className="flex flex-wrap items-end gap-4 mb-3">
        <Chosen label="For" any="any aim" value={aim} from={shelf.data.aims} onChange={setAim} />
        <Chosen
          label="on"
          any="any instrument"
          value={family}
          from={shelf.data.families.slice(1)}
          onChange={setFamily}
        />
        <Chosen label="by" any="anyone" value={level} from={shelf.data.levels} onChange={setLevel} />
        <label className="flex-1 max-w-md">
          <span className="text-soft">Find by title, purpose, instrument, division or length</span>
          <input
            className="field"
            type="search"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
          />
        </label>
        <p className="text-soft" aria-live="polite">
          {found.length} of {shelf.data.drills.length}
        </p>
      </div>
      {take.isError && <Problem error={take.error} />}
      {hear.error && <Problem error={hear.error} />}
      {shelf.data.aims
        .map((one) => ({ name: one, drills: found.filter((drill) => drill.aim === one) }))
        .filter((group) => group.drills.length > 0)
        .map((group) => (
          <section key={group.name} className="card-plain mb-3" aria-label={group.name}>
            <h2>{group.name.replace(/^./, (first) => first.toUpperCase())}</h2>
            <ul className="divide-y divide-base-300">
              {group.drills.map((one) => (
                <li key={one.key} className="py-2 flex flex-wrap items-center gap-x-4 gap-y-1">
                  <div className="flex-1 min-w-60">
                    <p>
                      <strong>{one.what}</strong> <span className="text-soft">“{one.title}”</span>
                    </p>
                    <p className="text-sm">
                      {one.purpose}{" "}
                      <span className="text-soft">
                        {one.tempo}, {one.length}, {one.instrument}
                      </span>
                    </p>
                  </div>
                  <MiniRail row={one.row} />
                  <button
                    type="button"
                    className="button button-small button-quiet"
                    aria-label={`${hear.now === one.key ? "Stop" : "Hear it"}: ${one.title}`}
                    onClick={() => hear.toggle(one.key)}
                  >
                    {hear.now === one.key ? "Stop" : "Hear it"}
                  </button>
                  <button
                    type="button"
                    className="button button-small"
                    disabled={take.isPending}
                    aria-label={`Take as a start: ${one.title}`}
                    onClick={() => take.mutate(one.key)}
                  >
                    Take as a start
                  </button>
                </li>
              ))}
            </ul>
          </section>
        ))}
      {found.length === 0 && <p className="text-soft">None like that. Try fewer words, or any aim.</p>}
    </div>
  );
}

type ChosenProps = {
  label: string;
  any: string;
  value: string;
  from: readonly string[];
  onChange: (value: string) => void;
};

function Chosen({ label, any, value, from, onChange }: ChosenProps) {
  return (
    <label>
      <span className="text-soft">{label}</span>{" "}
      <select className="brief-word" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">{any}</option>
        {from.map((one) => (
          <option key={one} value={one}>
            {one}
          </option>
        ))}
      </select>
    </label>
  );
}
