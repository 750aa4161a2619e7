import { useId, useState } from "react";
import type { Choice, Ear } from "../../api/client";

type Props = {
  busy: boolean;
  /** What is marked, where it is not plain. */
  heading: string;
  /** What can be ticked: the faults that the machine knows too. */
  faults: Choice[];
  onMark: (ear: Ear) => void;
};

const EASES = ["a struggle", "hard", "it goes", "easy", "by itself"];

/** A take by ear, in full: how it was, how easy, whether one could talk over it, what was off, and who says so. */
export function ByEar({ busy, heading, faults, onMark }: Props) {
  const [by, setBy] = useState<Ear["by"]>("teacher");
  const [ease, setEase] = useState<number | null>(null);
  const [talk, setTalk] = useState<boolean | null>(null);
  const [ticked, setTicked] = useState<string[]>([]);
  const id = useId();
  const mark = (how: Ear["mark"]) => onMark({ mark: how, by, ease, talk, faults: ticked as Ear["faults"] });
  return (
    <div>
      <p className="mb-1 font-semibold">{heading}</p>
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="button" disabled={busy} onClick={() => mark("clean")}>
          Clean, by ear
        </button>
        <button type="button" className="button" disabled={busy} onClick={() => mark("shaky")}>
          Shaky, by ear
        </button>
      </div>
      <details className="mt-2">
        <summary className="cursor-pointer text-primary font-semibold">Say more: ease, what was off</summary>
        <div className="flex flex-wrap gap-x-4 gap-y-2 mt-2 items-baseline">
          <label>
            says{" "}
            <select
              className="brief-word"
              value={by}
              onChange={(event) => setBy(event.target.value as Ear["by"])}
            >
              <option value="teacher">the teacher</option>
              <option value="student">the student</option>
            </select>
          </label>
          <label>
            ease{" "}
            <select
              className="brief-word"
              value={ease ?? ""}
              onChange={(event) => setEase(event.target.value ? Number(event.target.value) : null)}
            >
              <option value="">not said</option>
              {EASES.map((name, index) => (
                <option key={name} value={index + 1}>
                  {index + 1}, {name}
                </option>
              ))}
            </select>
          </label>
          <label>
            talk test{" "}
            <select
              className="brief-word"
              value={talk === null ? "" : talk ? "yes" : "no"}
              onChange={(event) => setTalk(event.target.value ? event.target.value === "yes" : null)}
            >
              <option value="">not tried</option>
              <option value="yes">passed: could talk over it</option>
              <option value="no">not passed</option>
            </select>
          </label>
        </div>
        <fieldset className="mt-2">
          <legend className="text-soft">What was off: each leads to its remedies</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {faults.map((fault) => (
              <label key={fault.value} htmlFor={`${id} ${fault.value}`} title={fault.why}>
                <input
                  id={`${id} ${fault.value}`}
                  type="checkbox"
                  className="mr-1"
                  checked={ticked.includes(fault.value)}
                  onChange={(event) =>
                    setTicked((old) =>
                      event.target.checked ? [...old, fault.value] : old.filter((one) => one !== fault.value),
                    )
                  }
                />
                {fault.label}
              </label>
            ))}
          </div>
        </fieldset>
      </details>
    </div>
  );
}
