import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { takeAgainQuery } from "../../api/queries";
import { Loading } from "../../ui/Loading";
import { MARK_WORDS } from "../../ui/marks";
import { Problem } from "../../ui/Problem";

/** What today’s rule says of a kept take, beside what was said then, which stays. */
export function JudgedAgain({ takeId }: { takeId: string }) {
  const [open, setOpen] = useState(false);
  const again = useQuery({ ...takeAgainQuery(takeId), enabled: open });
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-primary text-sm">Judge it again, by today’s rule</summary>
      {again.isPending && open && <Loading what="the take" />}
      {again.isError && <Problem error={again.error} />}
      {again.data && (
        <dl className="grid gap-3 sm:grid-cols-2 mt-1 text-sm">
          <div>
            <dt className="font-bold">
              Said then: {MARK_WORDS[again.data.then.machine ?? again.data.then.mark]}
            </dt>
            <dd>{again.data.then.reasons.join(" ")}</dd>
          </div>
          <div>
            <dt className="font-bold">
              Said today: {again.data.mark ? MARK_WORDS[again.data.mark] : "nothing to measure"}
            </dt>
            <dd>{again.data.reasons.join(" ")}</dd>
          </div>
        </dl>
      )}
    </details>
  );
}
