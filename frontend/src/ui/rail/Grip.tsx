import type { Schemas } from "../../api/client";

type Props = { grip: Schemas["GripShape"] };

const WIDE = 16;
const TALL = 20;
const ROWS = 5;
const LEFT = 22;
const TOP = 34;

/** A chord as it is gripped: a small neck, the thickest string at the left. */
export function Grip({ grip }: Props) {
  const { frets, fingers, base } = grip;
  const width = LEFT * 2 + WIDE * (frets.length - 1);
  const x = (index: number) => LEFT + index * WIDE;
  const y = (fret: number) => TOP + (fret - base + 0.5) * TALL;
  return (
    <svg width={width} height={TOP + ROWS * TALL + 8} role="img" aria-label={grip.words} className="block">
      <text
        className="fill-base-content font-bold font-display"
        x={width / 2}
        y={14}
        textAnchor="middle"
        fontSize={15}
      >
        {grip.symbol}
      </text>
      {base > 1 && (
        <text className="fill-soft" x={LEFT - 8} y={y(base) + 4} textAnchor="end" fontSize={12}>
          {base}
        </text>
      )}
      {Array.from({ length: ROWS + 1 }, (_, row) => (
        <line
          key={row}
          className="stroke-base-content"
          x1={x(0)}
          x2={x(frets.length - 1)}
          y1={TOP + row * TALL}
          y2={TOP + row * TALL}
          strokeWidth={row === 0 && base === 1 ? 4 : 1}
        />
      ))}
      {frets.map((fret, index) => (
        <g key={index}>
          <line className="stroke-base-content" x1={x(index)} x2={x(index)} y1={TOP} y2={TOP + ROWS * TALL} />
          {fret === null && (
            <text className="fill-base-content" x={x(index)} y={TOP - 6} textAnchor="middle" fontSize={12}>
              ×
            </text>
          )}
          {fret === 0 && (
            <circle
              className="stroke-base-content fill-none"
              cx={x(index)}
              cy={TOP - 9}
              r={4}
              strokeWidth={1.5}
            />
          )}
          {!!fret && (
            <>
              <circle className="fill-primary" cx={x(index)} cy={y(fret)} r={7.5} />
              <text
                className="fill-primary-content font-bold"
                x={x(index)}
                y={y(fret) + 4}
                textAnchor="middle"
                fontSize={11}
              >
                {fingers[index] || ""}
              </text>
            </>
          )}
        </g>
      ))}
    </svg>
  );
}

type GripsProps = {
  grips: readonly Schemas["GripShape"][];
  /** What a press on the grip of this number does; without, none can be pressed. */
  onPress?: ((grip: number) => void) | undefined;
};

/** The chords of a drill as they are gripped, each once. */
export function Grips({ grips, onPress }: GripsProps) {
  if (grips.length === 0) return null;
  return (
    <ul className="flex flex-wrap items-end gap-x-2 gap-y-1" aria-label="How the chords are gripped">
      {grips.map((grip, index) => (
        <li key={index}>
          {onPress ? (
            <button
              type="button"
              className="cursor-pointer rounded hover:bg-base-200"
              onClick={() => onPress(index)}
            >
              <Grip grip={grip} />
              <span className="sr-only">, another grip</span>
            </button>
          ) : (
            <Grip grip={grip} />
          )}
        </li>
      ))}
      {onPress && <li className="text-soft text-sm">Press a grip for another.</li>}
    </ul>
  );
}
