import { useRef, useState } from "react";
import type { Performance } from "../../api/client";
import { AmountField } from "../../ui/brief/AmountField";
import { Brief } from "../../ui/brief/Brief";
import { Key } from "../../ui/Key";
import type { Practice } from "./practice";
import type { useTappedTempo } from "./useTappedTempo";

type Props = {
  performance: Performance;
  bpm: string;
  divide: Practice["divide"];
  /** Another tempo; with it the division may change, so that the notes a second stay. */
  onChange: (bpm: string, divide: Practice["divide"]) => void;
  /** Where the tempo has no field of its own elsewhere, it is typed here. */
  typed: boolean;
  tapped: ReturnType<typeof useTappedTempo>;
};

/** Tempo by hand: tapped in, halved or doubled, with the notes a second kept or not; and back to where it was. */
export function TempoByHand({ performance, bpm, divide, onChange, typed, tapped }: Props) {
  const before = useRef<{ bpm: string; divide: Practice["divide"] } | null>(null);
  const [did, setDid] = useState<"Half" | "Twice" | null>(null);
  const set = (to: string, changed: Practice["divide"], what: typeof did = null) => {
    setDid(what);
    before.current = { bpm, divide };
    onChange(to, changed);
  };
  const { half, double } = performance;
  return (
    <div>
      {typed && (
        <Brief label="A tempo to try" refusal={null}>
          At{" "}
          <AmountField
            label="tempo in bpm"
            field="bpm"
            what="bpm"
            exact={bpm}
            hint="Beside the rungs of the climb: practice, until a rung is chosen again."
            onChange={(to) => to !== bpm && set(to, divide)}
          />{" "}
          bpm.
        </Brief>
      )}
      <div className="flex flex-wrap items-center gap-2 mt-2">
        <button
          type="button"
          className="button button-small"
          onPointerDown={(event) => {
            event.preventDefault();
            tapped.tap(event.timeStamp);
          }}
          onKeyDown={(event) => event.key === "Enter" && tapped.tap(event.timeStamp)}
        >
          Tap the tempo <Key name="T" />
        </button>
        <button
          type="button"
          className="button button-small"
          disabled={!half}
          onClick={() => half && set(half, null, "Half")}
        >
          Half the tempo
        </button>
        <button
          type="button"
          className="button button-small"
          disabled={!double}
          onClick={() => double && set(double, null, "Twice")}
        >
          Double the tempo
        </button>
        <button
          type="button"
          className="button button-small"
          disabled={!half || divide !== null}
          onClick={() => half && set(half, "twice")}
        >
          Half, and twice the notes per beat
        </button>
        <button
          type="button"
          className="button button-small"
          disabled={!double || divide !== null}
          onClick={() => double && set(double, "half")}
        >
          Double, and half the notes per beat
        </button>
        <button
          type="button"
          className="button button-small"
          disabled={!before.current}
          onClick={() => before.current && set(before.current.bpm, before.current.divide)}
        >
          Back to where it was
        </button>
        {did && !divide && (
          <span className="text-soft" role="status">
            {did} the tempo; the notes per beat stayed, so it is {performance.reading.peak_nps} notes a second
            now.
          </span>
        )}
        {divide && (
          <span className="text-soft" role="status">
            The notes a second stayed; the notes per beat are {divide === "twice" ? "twice" : "half"} as many.
          </span>
        )}
        {tapped.error && (
          <span role="alert" className="text-error font-semibold">
            {tapped.error.message}
          </span>
        )}
      </div>
    </div>
  );
}
