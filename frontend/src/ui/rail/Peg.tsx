import type { Event } from "../../api/unpack";
import type { Geometry } from "./geometry";

const BASE = 80;

type Props = {
  event: Event;
  place: Geometry;
  /** Of the left hand of two: it hangs under the line. */
  isLeft?: boolean;
  /** The other hand strikes at the same moment: both pegs are one, through the line. */
  meets?: boolean;
};

/** One event on the rail: a peg by its accent, a dashed outline for silence, a bar for what is held. */
export function Peg({ event, place, isLeft = false, meets = false }: Props) {
  const { scale, x } = place;
  const at = x(event.x);
  // Up from the line, or down from it.
  const y = (up: number) => (isLeft ? BASE + up : BASE - up) * scale;
  const own = isLeft ? "peg peg-left" : "peg";
  switch (event.kind) {
    case "hold":
      return (
        <line
          className={`${own} peg-held`}
          x1={at}
          x2={x(event.x + event.width) - 18 * scale}
          y1={y(4)}
          y2={y(4)}
          strokeWidth={3 * scale}
        />
      );
    case "rest":
    case "air":
      return (
        <rect
          className="peg-silent"
          x={at - 4 * scale}
          y={Math.min(y(0), y(26))}
          width={8 * scale}
          height={26 * scale}
          rx={4 * scale}
          strokeDasharray="3 3"
        />
      );
    case "note": {
      const foot = meets ? 0 : 3;
      if (event.dead) return <Dead at={at} y={y} scale={scale} own={own} />;
      if (event.accent === "accent")
        return (
          <>
            <circle className="peg-halo" cx={at} cy={y(48)} r={13 * scale} />
            <line className="peg-accent" x1={at} x2={at} y1={y(foot)} y2={y(46)} strokeWidth={8 * scale} />
            <circle className="peg-head" cx={at} cy={y(48)} r={6.5 * scale} />
          </>
        );
      const ghost = event.accent === "ghost";
      return (
        <>
          <circle className="peg-halo" cx={at} cy={y(26)} r={12 * scale} />
          <line
            className={own}
            x1={at}
            x2={at}
            y1={y(foot)}
            y2={y(ghost ? 14 : 26)}
            strokeWidth={(ghost ? 3 : 6.5) * scale}
          />
        </>
      );
    }
  }
}

type DeadProps = { at: number; y: (up: number) => number; scale: number; own: string };

/** A damped stroke: it makes a sound, and no tone. */
function Dead({ at, y, scale, own }: DeadProps) {
  const r = 6 * scale;
  const top = y(20);
  return (
    <>
      <circle className="peg-halo" cx={at} cy={top} r={12 * scale} />
      <path
        className={own}
        d={`M${at - r} ${top - r}l${2 * r} ${2 * r}M${at + r} ${top - r}l${-2 * r} ${2 * r}`}
        strokeWidth={3.5 * scale}
      />
      <line className={own} x1={at} x2={at} y1={y(3)} y2={y(10)} strokeWidth={3 * scale} />
    </>
  );
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
    <text
      className={hollow ? "fill-soft" : "fill-base-content"}
      x={at}
      y={y + 5 * scale}
      textAnchor="middle"
      fontSize={14 * scale}
    >
      {stroke}
    </text>
  );
}
