import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Climb } from "../../api/client";
import { choicesQuery, forgetWork } from "../../api/queries";
import { refusalOf } from "../../ui/refusal";
import { ClickLadder } from "./ClickLadder";
import { KeepLadder } from "./KeepLadder";

/** The click ladder of a climb that is under way; the climb stays at its tempo. */
export function ChangeLadder({ climb }: { climb: Climb }) {
  const choices = useQuery(choicesQuery);
  const { clicks, click_order } = climb.plan;
  const [ladder, setLadder] = useState({ clicks, click_order });
  const change = useMutation({
    mutationFn: () =>
      api.changeClicks(climb.id, { ...ladder, from_rung: climb.rung, based_on: climb.revision }),
    onSuccess: forgetWork,
  });
  if (!choices.data) return null;
  const isChanged = JSON.stringify(ladder) !== JSON.stringify({ clicks, click_order });
  return (
    <details className="card-plain mt-4">
      <summary className="cursor-pointer text-primary font-bold">
        The click ladder{clicks.length === 0 ? ": as in the drill" : `, ${clicks.length} clicks`}
      </summary>
      <ClickLadder
        ladder={ladder}
        choices={choices.data}
        refusal={refusalOf(change.error)}
        onChange={setLadder}
      />
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="button"
          disabled={!isChanged || change.isPending}
          onClick={() => change.mutate()}
        >
          Climb on with this ladder
        </button>
        <KeepLadder student={climb.student} clicks={ladder.clicks} />
      </div>
    </details>
  );
}
