import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Climb } from "../../api/client";
import { choicesQuery, forgetWork } from "../../api/queries";
import { Brief } from "../../ui/brief/Brief";
import { refusalOf } from "../../ui/refusal";
import { AllLimits } from "../stand/BeforeTheTry";
import { LimitWords } from "./LimitWords";

/** What takes of a climb are held to, shown before the try and changed for this student and drill. */
export function ChangeLimits({ climb }: { climb: Climb }) {
  const choices = useQuery(choicesQuery);
  const { evenness, but } = climb.plan;
  const [limits, setLimits] = useState({ evenness, but });
  const change = useMutation({
    mutationFn: () => api.changeLimits(climb.id, limits, climb.revision),
    onSuccess: forgetWork,
  });
  if (!choices.data) return null;
  const isChanged = JSON.stringify(limits) !== JSON.stringify({ evenness, but });
  return (
    <details className="card-plain mt-4">
      <summary className="cursor-pointer text-primary font-bold">Held to {climb.held_to}</summary>
      <Brief label="What takes are held to" refusal={refusalOf(change.error)}>
        A take is clean by <LimitWords limits={limits} choices={choices.data} onChange={setLimits} />.
      </Brief>
      <div className="mb-3 max-w-2xl">
        <AllLimits climb={climb} />
      </div>
      <button
        type="button"
        className="button"
        disabled={!isChanged || change.isPending}
        onClick={() => change.mutate()}
      >
        Hold takes to this from now on
      </button>
    </details>
  );
}
