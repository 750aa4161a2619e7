import { useState } from "react";
import type { Schemas } from "../../api/client";
import { KeptRecordings } from "../../ui/KeptRecordings";
import { LettersSwitch } from "../../ui/LettersSwitch";
import { keepSwitch, keptSwitch, switchName } from "../stand/footSwitch";
import { SetUps } from "./SetUps";

type Props = { data: Schemas["DataShape"]; backup: string };

/** The data, where it lies and how it is copied; and what this browser keeps by itself. */
export function DataAndDevices({ data, backup }: Props) {
  const [foot, setFoot] = useState(keptSwitch);
  return (
    <>
      <section className="card-plain mb-4">
        <h2>Your data</h2>
        <p>
          {data.students} students, {data.drills} drills, {data.climbs} climbs and {data.takes} takes:{" "}
          {data.size} in <span className="break-all">{data.folder}</span>, on this computer and nowhere else.
          Nobody but you may read it.
        </p>
        <details className="my-2">
          <summary className="cursor-pointer text-primary font-semibold">Where everything lies</summary>
          <dl className="my-2">
            {data.places.map((place) => (
              <div key={place.path} className="mb-1">
                <dt className="font-semibold">{place.what}</dt>
                <dd className="text-soft break-all">
                  {place.size || "nothing"} in {place.path}
                </dd>
              </div>
            ))}
          </dl>
        </details>
        <div className="flex flex-wrap gap-2 my-2">
          <a className="button" href={backup} download>
            Save a backup
          </a>
        </div>
        <p className="text-soft">
          To put a backup in place, stop Ripresa and type <code>ripresa restore FILE</code>; what was there
          before is kept beside it.{" "}
          {data.is_demo
            ? "This is the demo: it is gone when Ripresa stops. “make run” starts with your own data."
            : "The demo lies in a folder of its own and is gone when it stops: there is nothing of it to delete here."}
        </p>
      </section>
      <SetUps />
      <KeptRecordings />
      <section className="card-plain mb-4">
        <h2>This browser</h2>
        <p>
          A foot switch sends {switchName(foot)}.{" "}
          <button
            type="button"
            className="button button-small button-quiet"
            onClick={() => {
              keepSwitch("PageDown");
              setFoot("PageDown");
            }}
          >
            Back to Page Down
          </button>
        </p>
        <LettersSwitch />
      </section>
    </>
  );
}
