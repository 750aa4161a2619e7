import type { Schemas } from "../../api/client";

type Props = { neck: Schemas["NeckShape"]; strings: number };

const WIDE = 46;
const TALL = 22;
const LEFT = 30;
const TOP = 30;
const DOT = 9.5;

/** The neck in one position, as it lies before the player: the thickest string below, the nut at the left. */
export function NeckPicture({ neck, strings }: Props) {
  const frets = neck.last - neck.first + 1;
  const width = LEFT + frets * WIDE + 10;
  const height = TOP + strings * TALL + 14;
  const y = (string: number) => TOP + (string - 0.5) * TALL;
  const x = (fret: number) => (fret ? LEFT + (fret - neck.first + 0.5) * WIDE : LEFT - 14);
  return (
    <svg width={width} height={height} role="img" aria-label={neck.words} className="block lies-picture">
      <text className="fill-base-content font-bold font-display" x={LEFT} y={16} fontSize={15}>
        {neck.name}
      </text>
      {Array.from({ length: strings }, (_, index) => (
        <line
          key={index}
          className="stroke-base-content"
          x1={LEFT}
          x2={LEFT + frets * WIDE}
          y1={y(index + 1)}
          y2={y(index + 1)}
          strokeWidth={0.8 + index * 0.3}
        />
      ))}
      {Array.from({ length: frets + 1 }, (_, index) => (
        <line
          key={index}
          className="stroke-base-content"
          x1={LEFT + index * WIDE}
          x2={LEFT + index * WIDE}
          y1={y(1)}
          y2={y(strings)}
          strokeWidth={index === 0 && neck.first === 1 ? 4 : 1}
        />
      ))}
      {Array.from({ length: frets }, (_, index) => (
        <text
          key={index}
          className="fill-soft"
          x={LEFT + (index + 0.5) * WIDE}
          y={height - 2}
          textAnchor="middle"
          fontSize={12}
        >
          {neck.first + index}
        </text>
      ))}
      {neck.dots.map((dot) => (
        <g key={`${dot.string} ${dot.fret}`}>
          {dot.is_home ? (
            <rect
              className="fill-primary"
              x={x(dot.fret) - DOT}
              y={y(dot.string) - DOT}
              width={2 * DOT}
              height={2 * DOT}
              rx={2}
            />
          ) : (
            <circle
              className="fill-base-100 stroke-base-content"
              cx={x(dot.fret)}
              cy={y(dot.string)}
              r={DOT}
              strokeWidth={1.5}
            />
          )}
          <text
            className={dot.is_home ? "fill-primary-content font-bold" : "fill-base-content font-bold"}
            x={x(dot.fret)}
            y={y(dot.string) + 4}
            textAnchor="middle"
            fontSize={12}
          >
            {dot.fret ? dot.finger : "○"}
          </text>
          {dot.fret > 0 && (
            <text
              className="fill-soft"
              x={x(dot.fret) + DOT + 2}
              y={y(dot.string) - 3}
              fontSize={10}
              textAnchor="start"
            >
              {dot.name}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
