import { useMutation } from "@tanstack/react-query";
import { api, type Choices, type Drill } from "../../api/client";
import { BriefSelect } from "../../ui/brief/BriefSelect";
import { keep, kept } from "../../ui/kept";
import type { Circuit, Practice } from "./practice";

type Turned = Circuit["turned"];
type Props = {
  drill: Drill;
  drillId: number;
  bpm: string;
  choices: Choices;
  practice: Practice;
  onPractice: (practice: Practice) => void;
};

const placeOf = (drillId: number, turned: string) => `circuit.${drillId}.${turned}`;

/** Keeps at which station of a circuit a drill is, so that it goes on there the next time. */
export const keepPlace = (drillId: number, circuit: Circuit): void =>
  void keep(placeOf(drillId, circuit.turned), circuit.at);

/** A drill turned through a list, played one after the other: which one sounds, what comes next, and its time. */
export function CircuitWords({ drill, drillId, bpm, choices, practice, onPractice }: Props) {
  const { circuit } = practice;
  const make = useMutation({
    mutationFn: (turned: Turned) => api.circuit({ drill, turned, bpm }),
    onSuccess: (found, turned) => {
      const at = Math.min(kept<number>(placeOf(drillId, turned)) ?? 0, found.stations.length - 1);
      onPractice({ ...practice, circuit: { ...found, turned, at } });
    },
  });
  const go = (at: number) => {
    if (!circuit) return;
    const moved = { ...circuit, at: (at + circuit.stations.length) % circuit.stations.length };
    keepPlace(drillId, moved);
    onPractice({ ...practice, circuit: moved });
  };
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
      <span>Go through</span>
      <BriefSelect
        label="what it is turned through"
        field="turned"
        value={circuit?.turned ?? ""}
        choices={[{ value: "", label: "one thing: this drill", why: "" }, ...choices.turned]}
        onChange={(turned) =>
          turned ? make.mutate(turned as Turned) : onPractice({ ...practice, circuit: null })
        }
      />
      {circuit && (
        <>
          <span role="status" aria-live="polite">
            <Station circuit={circuit} />
          </span>
          <button
            type="button"
            className="button button-small button-quiet"
            onClick={() => go(circuit.at - 1)}
          >
            Before
          </button>
          <button type="button" className="button button-small" onClick={() => go(circuit.at + 1)}>
            Next
          </button>
          <button type="button" className="button button-small button-quiet" onClick={() => go(0)}>
            From the first
          </button>
          <span className="text-soft">
            Once through lasts {circuit.seconds} s; it goes on by itself after each pass, and where you stop
            is kept.
          </span>
          {circuit.left_out.map((why) => (
            <span key={why} className="text-soft basis-full">
              Left out: {why}
            </span>
          ))}
        </>
      )}
      {make.isError && (
        <span role="alert" className="text-error font-semibold">
          {make.error.message}
        </span>
      )}
    </div>
  );
}

/** At which station of a circuit it is, and which one comes next. */
export function Station({ circuit: { stations, at } }: { circuit: Circuit }) {
  return (
    <>
      <strong>
        {at + 1} of {stations.length}: {stations[at]?.name}.
      </strong>{" "}
      Next: {stations[(at + 1) % stations.length]?.name}.
    </>
  );
}
