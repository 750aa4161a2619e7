import type { Tread } from "../api/client";

const WIDTH = 350;
const HEIGHT = 42;
const LIFT = 29;

/** A climb in small: a tread for each rung, done, now and ahead told by colour and by weight. */
export function Staircase({ treads, label }: { treads: readonly Tread[]; label: string }) {
  const step = WIDTH / treads.length;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full max-w-90"
      preserveAspectRatio="none"
      height={HEIGHT}
      role="img"
      aria-label={label}
    >
      {treads.map((tread, index) => {
        const y = HEIGHT - 8 - tread.height * LIFT;
        return (
          <g key={tread.number} className={`tread-${tread.state}`}>
            <rect className="tread-rise" x={index * step} y={y} width={step} height={HEIGHT - y} />
            <line
              className="tread-top"
              x1={index * step + 2}
              x2={(index + 1) * step - 2}
              y1={y}
              y2={y}
              strokeWidth={tread.state === "now" ? 5 : 3.5}
              strokeLinecap="round"
            />
          </g>
        );
      })}
    </svg>
  );
}
