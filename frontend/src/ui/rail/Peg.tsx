import type { Schemas } from "../../api/client";
import type { Geometry } from "./geometry";

type Event = Schemas["EventShape"];

const BASE = 80;

/** One event on the rail: a peg by its accent, a dashed outline for silence, a bar for what is held. */
export function Peg({ event, place }: { event: Event; place: Geometry }) {
  const { scale, x } = place;
  const at = x(event.x);
  const base = BASE * scale;
  switch (event.kind) {
    case "hold":
      return (
        <line
          className="peg peg-held"
          x1={at}
          x2={x(event.x + event.width) - 18 * scale}
          y1={base - 4 * scale}
          y2={base - 4 * scale}
          strokeWidth={3 * scale}
        />
      );
    case "rest":
    case "air":
      return (
        <rect
          className="peg-silent"
          x={at - 4 * scale}
          y={base - 26 * scale}
          width={8 * scale}
          height={26 * scale}
          rx={4 * scale}
          strokeDasharray="3 3"
        />
      );
    case "note": {
      if (event.accent === "accent")
        return (
          <>
            <circle className="peg-halo" cx={at} cy={base - 48 * scale} r={13 * scale} />
            <line
              className="peg-accent"
              x1={at}
              x2={at}
              y1={base - 3 * scale}
              y2={base - 46 * scale}
              strokeWidth={8 * scale}
            />
            <circle className="peg-head" cx={at} cy={base - 48 * scale} r={6.5 * scale} />
          </>
        );
      const ghost = event.accent === "ghost";
      return (
        <>
          <circle className="peg-halo" cx={at} cy={base - 26 * scale} r={12 * scale} />
          <line
            className="peg"
            x1={at}
            x2={at}
            y1={base - 3 * scale}
            y2={base - (ghost ? 14 : 26) * scale}
            strokeWidth={(ghost ? 3 : 6.5) * scale}
          />
        </>
      );
    }
  }
}

type StrokeProps = { stroke: string; hollow: boolean; at: number; y: number; scale: number };

/** The hand under a peg: strokes as triangles that point their way, hollow in the air; the rest as written. */
export function Stroke({ stroke, hollow, at, y, scale }: StrokeProps) {
  const r = 6 * scale;
  const look = hollow ? "stroke-soft fill-none" : "fill-base-content";
  if (stroke === "D") return <path className={look} d={`M${at - r} ${y - r}h${2 * r}l${-r} ${1.8 * r}z`} />;
  if (stroke === "U")
    return <path className={look} d={`M${at - r} ${y + 0.8 * r}h${2 * r}l${-r} ${-1.8 * r}z`} />;
  return (
    <text className="fill-base-content" x={at} y={y + 5 * scale} textAnchor="middle" fontSize={14 * scale}>
      {stroke}
    </text>
  );
}
