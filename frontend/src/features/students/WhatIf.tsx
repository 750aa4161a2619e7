import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { whatIfQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { Problem } from "../../ui/Problem";

type Props = { studentId: number; climbId: number; title: string };

/** The student’s own log, replayed under other rules: weeks and shaky takes as ranges; a model, not a promise. */
export function WhatIf({ studentId, climbId, title }: Props) {
  const [open, setOpen] = useState(false);
  const found = useQuery({ ...whatIfQuery(studentId, climbId), enabled: open });
  return (
    <section className="card-plain no-print" aria-label="What if">
      <details onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary className="cursor-pointer text-primary font-bold">What if</summary>
        {open && found.isPending && <Loading what="the replays" />}
        {found.isError && <Problem error={found.error} onRetry={() => void found.refetch()} />}
        {found.data?.silent && <p className="mt-1">{found.data.silent}</p>}
        {found.data && !found.data.silent && (
          <>
            <p className="text-sm mt-1">
              {title}: {found.data.sentence}
            </p>
            <table className="figures-table mt-2 text-sm w-full">
              <thead>
                <tr>
                  <th scope="col">rule</th>
                  <th scope="col">weeks</th>
                  <th scope="col">shaky</th>
                </tr>
              </thead>
              <tbody>
                {found.data.rows.map((row) => (
                  <tr key={row.rule}>
                    <th scope="row" className={row.is_now ? "font-bold" : "font-normal"}>
                      {row.rule}
                    </th>
                    <td>{row.weeks}</td>
                    <td>{row.shaky}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
      </details>
    </section>
  );
}
