import { memo } from "react";
import type { Reading } from "../../api/client";

const MOST_LEGS = 8;

/** The numbers that a drill implies, beside it, at once. */
export const SumsColumn = memo(function SumsColumn({ reading }: { reading: Reading }) {
  const legs = reading.legs.slice(0, MOST_LEGS);
  const more = reading.legs.length - legs.length;
  const fits = [...new Map(reading.legs.map((leg) => [`${leg.division} ${leg.fit}`, leg])).values()];
  return (
    <>
      <section className="card-plain">
        <h2>
          At {reading.sign} = {reading.bpm}
        </h2>
        <table className="figures-table">
          <thead>
            <tr>
              <th scope="col">leg</th>
              <th scope="col">n/s</th>
              <th scope="col">gap ms</th>
              <th scope="col">notes</th>
              <th scope="col">beats</th>
              <th scope="col">bars</th>
              <th scope="col">s</th>
            </tr>
          </thead>
          <tbody>
            {legs.map((leg) => (
              <tr key={leg.index}>
                <th scope="row">{leg.division}</th>
                <td className={leg.is_fastest ? "font-bold" : ""}>{leg.nps}</td>
                <td>
                  {leg.gap_ms.split(" / ").map((gap) => (
                    <span key={gap} className="block">
                      {gap}
                    </span>
                  ))}
                </td>
                <td>{leg.notes}</td>
                <td>{leg.beats}</td>
                <td>{leg.bars}</td>
                <td>{leg.seconds}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {more > 0 && <p className="text-soft text-sm">and {more} more legs</p>}
        <p className="mt-2">
          {reading.extent}, <strong>{reading.seconds} s</strong> a pass
        </p>
        <p className="text-soft text-sm">
          Peak {reading.peak_nps}, average {reading.average_nps} n/s. {reading.working}.
        </p>
      </section>
      {reading.gears.length > 0 && (
        <section className="card-plain">
          <h2>Gear changes</h2>
          {reading.gears.slice(0, MOST_LEGS).map((gear) => (
            <p key={gear.name}>
              <strong>{gear.name}</strong> {gear.is_narrow && <span className="narrow">narrow</span>}{" "}
              {gear.sentence}
            </p>
          ))}
        </section>
      )}
      {reading.homes.map((home) => (
        <section className="card-plain" key={home.title}>
          <h2>{home.title}</h2>
          {home.sentences.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          {home.starts && (
            <details>
              <summary className="cursor-pointer text-primary font-semibold">{home.starts_title}</summary>
              <p className="max-h-40 overflow-auto">{home.starts}</p>
            </details>
          )}
        </section>
      ))}
      <section className="card-plain">
        <h2>Does it fit the bar?</h2>
        {fits.slice(0, MOST_LEGS).map((leg) => (
          <p key={leg.index}>
            <strong>{leg.division} a beat</strong>, {leg.described}: {leg.fit}
          </p>
        ))}
      </section>
      <section className="card-plain">
        <h2>Same speed elsewhere</h2>
        <table className="figures-table">
          <tbody>
            {reading.twins.map((twin) => (
              <tr key={twin.division}>
                <th scope="row">{twin.division} a beat</th>
                <td>
                  {reading.sign} = {twin.bpm}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="card-plain">
        <h2>The pulse inside</h2>
        {reading.pulse.map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
        <p className="text-soft text-sm">On the stand it can be heard, and switched every so many bars.</p>
      </section>
      <section className="card-plain">
        <h2>The click, and a plain metronome</h2>
        {reading.click.map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      </section>
    </>
  );
});
