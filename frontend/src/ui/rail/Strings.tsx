import type { Row } from "../../api/client";
import type { Geometry } from "./geometry";

type Props = { row: Row; place: Geometry };

/** The strings under the rail, thicker for lower: on each the finger where it plays, or the fret. */
export function Strings({ row, place }: Props) {
  const { scale, x, gutter, strings, stringsY, stringStep } = place;
  const y = (string: number) => stringsY + (string - 1) * stringStep;
  return (
    <g>
      {Array.from({ length: strings }, (_, index) => (
        <line
          key={index}
          className="rail-string"
          x1={gutter}
          x2={place.width - 6}
          y1={y(index + 1)}
          y2={y(index + 1)}
          strokeWidth={1 + index * 0.45}
        />
      ))}
      {row.events.map((event, index) => {
        if (event.strings.length === 0) return null;
        const at = x(event.x);
        const highest = Math.min(...event.strings.map((one) => one.string));
        const lowest = Math.max(...event.strings.map((one) => one.string));
        return (
          <g key={index} className={event.accent === "accent" ? "string-accent" : "string-plain"}>
            {event.strings.length > 1 && (
              <line className="string-bar" x1={at} x2={at} y1={y(highest)} y2={y(lowest)} strokeWidth={3} />
            )}
            {event.strings.map((one) => (
              <g key={one.string}>
                <circle
                  className={event.dead ? "string-dead" : "string-dot"}
                  cx={at}
                  cy={y(one.string)}
                  r={(one.finger ? 9 : 5) * scale}
                />
                <text
                  className="string-sign"
                  x={at}
                  y={y(one.string) + 4.5 * scale}
                  textAnchor="middle"
                  fontSize={13 * scale}
                >
                  {event.dead ? "×" : one.finger}
                </text>
              </g>
            ))}
          </g>
        );
      })}
    </g>
  );
}
