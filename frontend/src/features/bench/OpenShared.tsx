import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas } from "../../api/client";
import { forgetWork } from "../../api/queries";
import { Dialog } from "../../ui/Dialog";
import { Problem } from "../../ui/Problem";
import { useOnce } from "../../ui/useOnce";

type Looked = Schemas["LookedShape"];
type How = Schemas["ChoiceShape"]["how"];

const STATES: Record<Looked["state"], string> = {
  new: "new here",
  same: "the same as here",
  differs: "another one of this title is here",
};

/** What is proposed of a drill: what is new is taken, what is here already is left until someone says otherwise. */
const proposed = (one: Looked): How => (one.state === "new" ? "new" : "leave");

type Props = { text: string; looked: Schemas["LookedList"]; onClose: () => void };

/** A file of drills that a colleague sent: what is new, what is the same, what differs; it asks of each. */
export function OpenShared({ text, looked, onClose }: Props) {
  const [hows, setHows] = useState<How[]>(() => looked.drills.map(proposed));
  const [beside, setBeside] = useState(false);
  const once = useOnce();
  const take = useMutation({
    mutationFn: () => {
      const choices = hows.map((how, index) => ({ index, how, with_beside: beside }));
      return api.takeShared(text, choices, once.key({ text, choices }));
    },
    onSuccess: () => {
      once.done();
      forgetWork();
    },
  });
  const set = (index: number, how: How) => setHows(hows.map((old, place) => (place === index ? how : old)));
  const hasBeside = looked.drills.some((one) => one.beside.length > 0);
  return (
    <Dialog title="Drills of a colleague" onClose={onClose}>
      <p>{looked.sentence}</p>
      <ul className="space-y-3 my-3">
        {looked.drills.map((one, index) => (
          <li key={index} className="card-plain">
            <div className="flex flex-wrap items-center gap-3">
              <strong className="flex-1 min-w-40 break-words">{one.title}</strong>
              <label className="flex items-center gap-2">
                <span className="text-soft">{STATES[one.state]}:</span>
                <select
                  className="brief-word"
                  aria-label={`what becomes of ${one.title}`}
                  value={hows[index]}
                  onChange={(event) => set(index, event.target.value as How)}
                >
                  <option value="new">take it as a new drill</option>
                  {one.state === "differs" && (
                    <option value="version">make it the next version of mine</option>
                  )}
                  <option value="leave">leave it</option>
                </select>
              </label>
            </div>
            <p>{one.brief}</p>
            {one.words && <p className="text-soft">{one.words}</p>}
            {one.beside.length > 0 && <p className="text-soft">With it: {one.beside.join("; ")}.</p>}
          </li>
        ))}
      </ul>
      {hasBeside && (
        <label className="flex items-center gap-2 mb-3">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={beside}
            onChange={(event) => setBeside(event.target.checked)}
          />
          Take what comes with them too, each as a drill of its own
        </label>
      )}
      {take.isError && <Problem error={take.error} />}
      {take.data ? (
        <>
          <p role="status">{take.data.sentence}</p>
          <button type="button" className="button button-first mt-2" onClick={onClose}>
            To the drills
          </button>
        </>
      ) : (
        <button
          type="button"
          className="button button-first"
          disabled={take.isPending}
          onClick={() => take.mutate()}
        >
          Take them so
        </button>
      )}
    </Dialog>
  );
}
