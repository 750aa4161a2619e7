import type { Schemas } from "../../api/client";
import { MarkDot } from "../../ui/MarkDot";
import { MARK_WORDS } from "../../ui/marks";
import { day } from "../../ui/moment";
import { useWidth } from "../../ui/useWidth";

type Point = Schemas["PlayedShape"];

const HEIGHT = 210;
const LEFT = 46;
const RIGHT = 14;
const FLOOR = HEIGHT - 30;
const TOP = 14;

/** Takes as points over time: each with the sign of its mark. */
export function SpeedPlot({ points }: { points: readonly Point[] }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const times = points.map((point) => Date.parse(point.at));
  const [from, to] = [Math.min(...times), Math.max(...times)];
  const speeds = points.map((point) => point.nps);
  const low = Math.floor(Math.min(...speeds) - 0.4);
  const high = Math.ceil(Math.max(...speeds) + 0.4);
  const x = (at: number) =>
    LEFT + (to === from ? 0.5 : (at - from) / (to - from)) * (width - LEFT - RIGHT - 10) + 5;
  const y = (nps: number) => FLOOR - ((nps - low) / (high - low)) * (FLOOR - TOP);
  const spacing = Math.max(1, Math.ceil((high - low) / 5));
  const lines = Array.from(
    { length: Math.floor((high - low) / spacing) + 1 },
    (_, index) => low + index * spacing,
  );
  return (
    <div ref={box}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} role="img" aria-label={summary(points)}>
          {lines.map((nps) => (
            <g key={nps}>
              <line className="stroke-base-300" x1={LEFT} x2={width - RIGHT} y1={y(nps)} y2={y(nps)} />
              <text className="fill-soft" x={LEFT - 8} y={y(nps) + 5} textAnchor="end" fontSize={14}>
                {nps}
              </text>
            </g>
          ))}
          <text className="fill-soft" x={0} y={12} fontSize={13}>
            n/s
          </text>
          {points.map((point, index) => (
            <Dot key={`${point.at} ${index}`} point={point} cx={x(times[index] ?? from)} cy={y(point.nps)} />
          ))}
          <text className="fill-soft" x={LEFT} y={HEIGHT - 8} fontSize={14}>
            {day(points[0]?.at ?? "")}
          </text>
          {to > from && (
            <text className="fill-soft" x={width - RIGHT} y={HEIGHT - 8} textAnchor="end" fontSize={14}>
              {day(points.at(-1)?.at ?? "")}
            </text>
          )}
        </svg>
      )}
      <p className="text-soft text-sm">
        ● clean ○ shaky ◐ too near to call × no verdict; speed at each drill’s fastest division
      </p>
    </div>
  );
}

function Dot({ point, cx, cy }: { point: Point; cx: number; cy: number }) {
  const title = `${point.title}: ${point.label}, ${MARK_WORDS[point.mark].toLowerCase()}`;
  return <MarkDot mark={point.mark} cx={cx} cy={cy} r={5} title={title} />;
}

function summary(points: readonly Point[]): string {
  const [first, last] = [points[0], points.at(-1)];
  return first && last
    ? `Speed over ${points.length} takes, from ${first.label} to ${last.label}`
    : "No take yet";
}
