import type { Schemas } from "../../api/client";
import { useWidth } from "../../ui/useWidth";

type Figures = Schemas["FiguresShape"];
type Point = Schemas["PointShape"];

const TALL = 96;
const HEAD = 20;

type Props = { figures: Figures; onNote: (event: number, at?: number) => void };

/** The line through the take, inside the band of what counts as even; changes and lost beats are marked on it. */
export function ThroughThePass({ figures, onNote }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const { line, marks, limit_ms: limit } = figures;
  const first = line[0]?.at ?? 0;
  const span = Math.max(0.001, (line.at(-1)?.at ?? 1) - first);
  const reach = Math.max(limit * 1.6, ...line.map((point) => Math.abs(point.offset_ms)));
  const x = (at: number) => ((at - first) / span) * width;
  const y = (ms: number) => HEAD + TALL / 2 + (ms / reach) * (TALL / 2 - 4);
  const lost = marks.filter((one) => one.kind === "lost");
  const seams = marks.filter((one) => one.kind === "seam");
  const named = roomy(seams.map((seam) => x(seam.at)));
  const nearest = (press: number): Point | undefined =>
    line.reduce<Point | undefined>(
      (best, one) => (!best || Math.abs(x(one.at) - press) < Math.abs(x(best.at) - press) ? one : best),
      undefined,
    );
  return (
    <section className="min-w-0 mt-2" aria-label="Through the take">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="font-bold text-primary">Through the take</h2>
        <span className="text-soft text-sm">
          down is late; triangles are changes{lost.length > 0 && ", broken lines lost beats"}
        </span>
      </div>
      <div ref={box} />
      {width > 0 && (
        // biome-ignore lint/a11y/useKeyWithClickEvents: the table below leads to the same notes from the keyboard
        <svg
          width={width}
          height={TALL + HEAD}
          role="img"
          aria-label={`Offsets through the take; even is within ${limit.toFixed(0)} ms. ${marks
            .map((one) => one.label)
            .join("; ")}`}
          onClick={(press) => {
            const from = press.currentTarget.getBoundingClientRect().left;
            const point = nearest(press.clientX - from);
            if (point && point.event >= 0) onNote(point.event, point.at);
          }}
        >
          <rect
            className="fill-done"
            x={0}
            y={y(-limit)}
            width={width}
            height={y(limit) - y(-limit)}
            rx={6}
          />
          <line className="stroke-soft" x1={0} x2={width} y1={y(0)} y2={y(0)} strokeDasharray="4 4" />
          {pieces(line, lost).map((piece, index) => (
            <polyline
              key={index}
              className="stroke-peg"
              points={piece.map(({ at, offset_ms }) => `${x(at)},${y(offset_ms)}`).join(" ")}
              fill="none"
              strokeWidth={2}
              strokeLinejoin="round"
            />
          ))}
          {seams.map((seam, index) => (
            <g key={`${seam.at}`}>
              <path className="fill-accent" d={`M${x(seam.at) - 5} 8h10l-5 9z`} />
              {named.has(index) && (
                <text className="fill-soft" x={x(seam.at) + 8} y={17} fontSize={12}>
                  {seam.label}
                </text>
              )}
            </g>
          ))}
          {lost.map((one) => (
            <line
              key={`${one.at} ${one.label}`}
              className="stroke-accent"
              x1={x(one.at)}
              x2={x(one.at)}
              y1={HEAD}
              y2={HEAD + TALL}
              strokeWidth={2}
              strokeDasharray="2 4"
            >
              <title>{one.label}</title>
            </line>
          ))}
        </svg>
      )}
    </section>
  );
}

/** A name of a change takes so many pixels. */
const NAME = 64;

/** Which names of changes have room beside each other, by their places. */
function roomy(places: readonly number[]): Set<number> {
  const found = new Set<number>();
  let last = Number.NEGATIVE_INFINITY;
  places.forEach((place, index) => {
    if (place - last < NAME) return;
    found.add(index);
    last = place;
  });
  return found;
}

/** A silence that is so many times as long as the notes lie apart breaks the line. */
const BREAKS = 5;

/** The line in pieces: where a beat was lost, or nothing is due for long, it does not go on. */
function pieces(line: readonly Point[], lost: readonly { at: number }[]): Point[][] {
  const found: Point[][] = [[]];
  const apart = line.slice(1).map((point, index) => point.at - (line[index]?.at ?? 0));
  const usual = [...apart].sort((one, other) => one - other)[apart.length >> 1] ?? 0;
  let next = 0;
  let before = line[0]?.at ?? 0;
  for (const point of line) {
    let breaks = point.at - before > BREAKS * usual;
    while (next < lost.length && point.at >= (lost[next]?.at ?? 0)) {
      breaks = true;
      next += 1;
    }
    if (breaks) found.push([]);
    found.at(-1)?.push(point);
    before = point.at;
  }
  return found.filter((piece) => piece.length > 0);
}
