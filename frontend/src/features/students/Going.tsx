import type { Schemas, StudentPage } from "../../api/client";
import { MarkDot } from "../../ui/MarkDot";
import { day } from "../../ui/moment";
import { useWidth } from "../../ui/useWidth";

type Shown = Schemas["GoingShape"];

const HEIGHT = 190;
const LEFT = 34;
const TOP = 18;
const FLOOR = HEIGHT - 26;
const DAY_MS = 86_400_000;
const MOST_POINTS = 120;

/** Where it is going: clean and shaky takes, the target, and from today a range that widens; never one line. */
export function Going({ page: { going } }: { page: StudentPage }) {
  if (!going)
    return (
      <section className="card-plain">
        <h2>Where it is going</h2>
        <p>No take yet. Put a climb on the stand and play it.</p>
      </section>
    );
  return (
    <section className="card-plain min-w-0" aria-label="Where it is going">
      <h2>Where it is going</h2>
      <p className="text-soft text-sm">{going.title}, notes a second</p>
      <Plot going={going} />
      <p className={going.is_silent ? "text-soft" : "font-semibold"}>{going.sentence}</p>
    </section>
  );
}

function Plot({ going }: { going: Shown }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const points = going.points.slice(-MOST_POINTS);
  const now = Date.now();
  const first = Math.min(...points.map((one) => Date.parse(one.at)), now - 7 * DAY_MS);
  const last = going.weeks.length ? Date.parse(going.weeks.at(-1)?.at ?? "") : now + 7 * DAY_MS;
  const speeds = [...points.map((one) => one.nps), ...going.weeks.flatMap((one) => [one.low, one.high])];
  const top = Math.max(...speeds, going.target) * 1.03;
  const bottom = Math.min(...speeds) * 0.97;
  const x = (at: number) => LEFT + ((at - first) / (last - first)) * (width - LEFT - 8);
  const y = (nps: number) => FLOOR - ((nps - bottom) / (top - bottom)) * (FLOOR - TOP);
  const from = points.filter((one) => one.mark === "clean").at(-1)?.nps ?? points.at(-1)?.nps ?? bottom;
  const range = going.weeks.map((one) => ({ at: x(Date.parse(one.at)), low: y(one.low), high: y(one.high) }));
  const start = { at: x(now), low: y(from), high: y(from) };
  const edge = [start, ...range];
  const area = [
    ...edge.map((one) => `${one.at},${one.high}`),
    ...[...edge].reverse().map((one) => `${one.at},${one.low}`),
  ].join(" ");
  const middle = [
    `${start.at},${start.low}`,
    ...going.weeks.map((one) => `${x(Date.parse(one.at))},${y(one.middle)}`),
  ].join(" ");
  const lines = Array.from(
    { length: Math.floor(top) - Math.ceil(bottom) + 1 },
    (_, index) => Math.ceil(bottom) + index,
  );
  return (
    <div ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`${points.length} takes. ${going.sentence}`}
        >
          {lines.map((nps) => (
            <g key={nps}>
              <line className="stroke-base-300" x1={LEFT} x2={width - 8} y1={y(nps)} y2={y(nps)} />
              <text className="fill-soft" x={LEFT - 8} y={y(nps) + 5} textAnchor="end" fontSize={14}>
                {nps}
              </text>
            </g>
          ))}
          <line
            className="stroke-secondary"
            x1={LEFT}
            x2={width - 8}
            y1={y(going.target)}
            y2={y(going.target)}
            strokeDasharray="7 5"
            strokeWidth={2}
          />
          <text className="fill-secondary font-bold" x={LEFT + 4} y={y(going.target) - 5} fontSize={13}>
            target {going.target_label}
          </text>
          {range.length > 0 && (
            <>
              <polygon className="going-range" points={area} />
              <polyline className="going-middle" points={middle} />
            </>
          )}
          <line className="stroke-accent" x1={x(now)} x2={x(now)} y1={TOP - 6} y2={FLOOR} strokeWidth={2} />
          <text
            className="fill-base-content"
            x={x(now) + (x(now) > width - 60 ? -4 : 4)}
            y={TOP - 5}
            textAnchor={x(now) > width - 60 ? "end" : "start"}
            fontSize={13}
          >
            today
          </text>
          {points.map((one) => (
            <MarkDot
              key={one.at}
              mark={one.mark}
              cx={x(Date.parse(one.at))}
              cy={y(one.nps)}
              r={4.5}
              title={one.label}
            />
          ))}
          <text className="fill-soft" x={LEFT} y={HEIGHT - 6} fontSize={13}>
            {day(new Date(first).toISOString())}
          </text>
          <text className="fill-soft" x={width - 8} y={HEIGHT - 6} textAnchor="end" fontSize={13}>
            {day(new Date(last).toISOString())}
          </text>
        </svg>
      )}
    </div>
  );
}
