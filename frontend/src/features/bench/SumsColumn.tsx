import { memo } from "react";
import type { Reading } from "../../api/client";
import { GroupTable } from "./GroupTable";

const MOST_LEGS = 8;

/** What is looked at first, beside the drill: its speed, its changes, and where groups come home. */
export const SumsColumn = memo(function SumsColumn({ reading }: { reading: Reading }) {
  const legs = reading.legs.slice(0, MOST_LEGS);
  const more = reading.legs.length - legs.length;
  return (
    <>
      <section className="card-plain">
        <h2>
          At {reading.sign} = {reading.bpm}
        </h2>
        <p className="leading-tight mb-2">
          <span className="font-display font-extrabold text-5xl">{reading.peak_nps}</span> notes a second
          {reading.legs.length > 1 && " at the fastest"}
        </p>
        <table className="figures-table">
          <thead>
            <tr>
              <th scope="col">stage</th>
              <th scope="col">a second</th>
              <th scope="col">apart</th>
              <th scope="col">bars</th>
            </tr>
          </thead>
          <tbody>
            {legs.map((leg) => (
              <tr key={leg.index}>
                <th scope="row">{leg.name}</th>
                <td className={leg.is_fastest ? "font-bold" : ""}>{leg.nps}</td>
                <td>{leg.apart}</td>
                <td>{leg.bars}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {more > 0 && <p className="text-soft text-sm">and {more} more stages</p>}
        <p className="mt-2">
          {reading.extent}, <strong>{reading.seconds} s</strong> a pass
        </p>
        <p className="text-soft text-sm">{reading.working}.</p>
      </section>
      {reading.gears.length > 0 && (
        <section className="card-plain">
          <h2>The changes</h2>
          {reading.gears.slice(0, MOST_LEGS).map((gear) => (
            <p key={gear.name}>
              {gear.name}: <strong>{gear.words}</strong>{" "}
              {gear.is_narrow && <span className="narrow">narrow</span>}
            </p>
          ))}
          <p className="text-soft text-sm">The beat stays where it is.</p>
        </section>
      )}
      {reading.groups.length > 0 && (
        <section className="card-plain">
          <h2>Groups of {reading.group_size} come home</h2>
          <GroupTable groups={reading.groups} />
        </section>
      )}
    </>
  );
});
