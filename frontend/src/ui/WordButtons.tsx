import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Climb, type Schemas } from "../api/client";
import { forgetWork } from "../api/queries";
import { Key } from "./Key";
import { Problem } from "./Problem";
import { useOnce } from "./useOnce";

type Decision = Schemas["MoveBody"]["decision"];

const OVERRULING: Record<Decision, string> = {
  up: "Go up all the same",
  stay: "Stay, for this reason",
  back: "Go back all the same",
};

type Props = {
  climb: Climb;
  takeId: string | null;
  /** The offered step in words; the other two overrule it. */
  follow: string;
  showKey?: boolean;
  /** Where the first button of the screen is another one. */
  quiet?: boolean;
  onMoved?: (climb: Climb) => void;
};

/** The answer to a word: follow it in one press, or overrule it and say why. */
export function WordButtons({ climb, takeId, follow, showKey = false, quiet = false, onMoved }: Props) {
  const [reason, setReason] = useState("");
  const offered = climb.word.decision;
  const once = useOnce();
  const move = useMutation({
    mutationFn: (decision: Decision) => {
      const asked = { decision, from_rung: climb.rung, take_id: takeId, reason };
      return api.move(climb.id, { ...asked, key: once.key(asked) });
    },
    onSuccess: (moved) => {
      once.done();
      setReason("");
      forgetWork();
      onMoved?.(moved);
    },
  });
  const others = (["up", "stay", "back"] as const).filter((decision) => decision !== offered);
  return (
    <div>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className={quiet ? "button" : "button button-first"}
          data-offered="true"
          disabled={move.isPending}
          onClick={() => move.mutate(offered)}
        >
          {follow} {showKey && <Key name="Enter" />}
        </button>
        {offered !== "stay" && (
          <button
            type="button"
            className="button"
            disabled={move.isPending}
            onClick={() => move.mutate("stay")}
          >
            Stay here
          </button>
        )}
      </div>
      <details className="mt-2">
        <summary className="cursor-pointer text-primary font-semibold">Overrule it, with a reason</summary>
        <label className="block mt-2">
          <span className="text-soft">The reason, kept with it</span>
          <input
            className="field"
            value={reason}
            maxLength={2000}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        <div className="flex flex-wrap gap-2 mt-2">
          {others.map((decision) => (
            <button
              key={decision}
              type="button"
              className="button"
              disabled={move.isPending}
              onClick={() => move.mutate(decision)}
            >
              {OVERRULING[decision]}
            </button>
          ))}
        </div>
      </details>
      {move.isError && <Problem error={move.error} />}
    </div>
  );
}
