import { memo, type ReactNode } from "react";
import type { Reading } from "../../api/client";
import { keptChoice } from "../../ui/keptChoice";

const useOpened = keptChoice<readonly string[]>("sums open", []);
const MOST_LEGS = 8;

type Shown = { name: string; shows: ReactNode };

/** What is open stays open when its numbers change: “3 against 2” is “3 against 4” then. */
const keyOf = (name: string) => name.replace(/[\d+:½]+/g, "#");

/** What else a drill implies: named under the rail, and opened there, side by side. */
export const MoreSums = memo(function MoreSums({ reading }: { reading: Reading }) {
  const [opened, setOpened] = useOpened();
  const all = allOf(reading);
  return (
    <section aria-label="Other sums" className="mt-3">
      <div className="flex flex-wrap items-center gap-x-1 gap-y-1">
        <span className="text-soft">Sums:</span>
        {all.map(({ name }) => {
          const key = keyOf(name);
          const isOpen = opened.includes(key);
          return (
            <button
              key={name}
              type="button"
              className="button button-small button-quiet"
              aria-expanded={isOpen}
              onClick={() => setOpened(isOpen ? opened.filter((one) => one !== key) : [...opened, key])}
            >
              {isOpen ? "▾" : "▸"} {name}
            </button>
          );
        })}
      </div>
      <div className="grid gap-3 sm:grid-cols-2 mt-1">
        {all
          .filter(({ name }) => opened.includes(keyOf(name)))
          .map(({ name, shows }) => (
            <section className="card-plain min-w-0" key={name}>
              <h2>{name}</h2>
              {shows}
            </section>
          ))}
      </div>
    </section>
  );
});

function allOf(reading: Reading): Shown[] {
  return [
    ...reading.homes.map((home) => ({ name: home.title, shows: <Told home={home} /> })),
    { name: "Every stage", shows: <EveryStage reading={reading} /> },
    { name: "Does it fit the bar?", shows: <Fits legs={reading.legs} /> },
    { name: "Same speed elsewhere", shows: <Twins reading={reading} /> },
    {
      name: "The pulse inside",
      shows: (
        <>
          {reading.pulse.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          <p className="text-soft text-sm">On the stand it can be heard, and switched every so many bars.</p>
        </>
      ),
    },
    {
      name: "The click, and a plain metronome",
      shows: reading.click.map((sentence) => <p key={sentence}>{sentence}</p>),
    },
  ];
}

function Told({ home }: { home: Reading["homes"][number] }) {
  return (
    <>
      {home.sentences.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      {home.starts && (
        <details>
          <summary className="cursor-pointer text-primary font-semibold">{home.starts_title}</summary>
          <p className="max-h-40 overflow-auto">{home.starts}</p>
        </details>
      )}
    </>
  );
}

/** The numbers of each stage, and of each change with its times between notes. */
function EveryStage({ reading }: { reading: Reading }) {
  return (
    <>
      <table className="figures-table">
        <thead>
          <tr>
            <th scope="col">stage</th>
            <th scope="col">a second</th>
            <th scope="col">apart, ms</th>
            <th scope="col">notes</th>
            <th scope="col">beats</th>
            <th scope="col">bars</th>
            <th scope="col">s</th>
          </tr>
        </thead>
        <tbody>
          {reading.legs.map((leg) => (
            <tr key={leg.index}>
              <th scope="row">{leg.division}</th>
              <td>{leg.nps}</td>
              <td>{leg.gap_ms}</td>
              <td>{leg.notes}</td>
              <td>{leg.beats}</td>
              <td>{leg.bars}</td>
              <td>{leg.seconds}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-soft text-sm mt-1">
        {reading.peak_nps} notes a second at the fastest, {reading.average_nps} on average.
      </p>
      {reading.gears.map((gear) => (
        <p key={gear.name} className="text-sm">
          <strong>{gear.name}</strong> {gear.sentence}
        </p>
      ))}
    </>
  );
}

/** How each stage fits the bar: what is played, and what is missing to the bar line, drawn. */
function Fits({ legs }: Pick<Reading, "legs">) {
  const fits = [...new Map(legs.map((leg) => [`${leg.division} ${leg.fit}`, leg])).values()];
  return fits.slice(0, MOST_LEGS).map((leg) => (
    <div key={leg.index} className="mb-2">
      <FitBar leg={leg} />
      <p>
        <strong>{leg.name}</strong>, {leg.described}: {leg.fit}
      </p>
    </div>
  ));
}

const WIDE = 320;
const TALL = 18;

function FitBar({ leg }: { leg: Reading["legs"][number] }) {
  const beats = leg.beats_played + leg.missing;
  const x = (beat: number) => (beat / beats) * (WIDE - 2);
  const bars = Math.min(64, Math.round(beats / leg.bar_beats));
  return (
    <svg
      width={WIDE}
      height={TALL}
      viewBox={`0 0 ${WIDE} ${TALL}`}
      className="max-w-full"
      role="img"
      aria-label={leg.missing ? `${leg.missing} beats missing to the bar line` : "it fits the bar"}
    >
      <rect className="fill-bay" x={1} y={2} width={x(leg.beats_played)} height={TALL - 4} rx={3} />
      {leg.missing > 0 && (
        <rect
          className="peg-silent"
          x={1 + x(leg.beats_played)}
          y={2}
          width={Math.max(2, x(leg.missing))}
          height={TALL - 4}
          rx={3}
          strokeDasharray="3 3"
        />
      )}
      {Array.from({ length: bars + 1 }, (_, bar) => (
        <line
          key={bar}
          className="stroke-base-content"
          x1={1 + x(Math.min(beats, bar * leg.bar_beats))}
          x2={1 + x(Math.min(beats, bar * leg.bar_beats))}
          y1={0}
          y2={TALL}
        />
      ))}
    </svg>
  );
}

function Twins({ reading }: { reading: Reading }) {
  return (
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
  );
}
