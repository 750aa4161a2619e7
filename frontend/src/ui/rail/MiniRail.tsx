import type { Row } from "../../api/client";

const WIDE = 220;
const TALL = 40;
const LINE = 34;
const HEIGHTS = { accent: 26, plain: 15, ghost: 8 } as const;

/** A bar of the rail, small: where its notes fall and how loud they are. It stands beside a drill's name. */
export function MiniRail({ row }: { row: Row }) {
  const beats = Math.max(...row.bays.map((bay) => bay.x + bay.width));
  const x = (at: number) => 5 + (at / beats) * (WIDE - 8);
  return (
    <svg
      width={WIDE}
      height={TALL}
      role="img"
      aria-label={`What tells it from others: ${row.words}`}
      className="shrink-0"
    >
      {row.bays.map((bay, index) => (
        <rect
          key={bay.x}
          className={index % 2 ? "fill-bay-even" : "fill-bay"}
          x={x(bay.x) - 4}
          y={2}
          width={(bay.width / beats) * (WIDE - 8) - 2}
          height={LINE - 2}
          rx={3}
        />
      ))}
      <line className="stroke-base-content" x1={0} x2={WIDE} y1={LINE} y2={LINE} strokeWidth={1} />
      {row.events
        .filter((event) => event.kind === "note")
        .map((event) => (
          <line
            key={event.x}
            className={event.accent === "accent" ? "peg-accent" : "peg"}
            x1={x(event.x)}
            x2={x(event.x)}
            y1={LINE - 2}
            y2={LINE - HEIGHTS[event.accent]}
            strokeWidth={event.accent === "ghost" ? 1.5 : 3.5}
          />
        ))}
      {row.other
        .filter((event) => event.kind === "note")
        .map((event) => (
          <circle key={event.x} className="string-dot" cx={x(event.x)} cy={LINE + 3} r={2} />
        ))}
    </svg>
  );
}
