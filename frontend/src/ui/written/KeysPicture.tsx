import type { Schemas } from "../../api/client";

type Props = { keys: Schemas["KeysShape"] };

const WHITE = 24;
const BLACK = 15;
const TALL = 92;
const SHORT = 56;
const TOP = 20;

/** The keys from the lowest to the highest that is played, with the fingers: the right hand’s above, the left’s below. */
export function KeysPicture({ keys }: Props) {
  const places: number[] = [];
  let white = 0;
  for (const black of keys.black) places.push(black ? white * WHITE : white++ * WHITE);
  const width = Math.max(white * WHITE, 60);
  const played = new Map(keys.dots.map((dot) => [dot.above, dot]));
  const draw = (above: number, black: boolean) => {
    const dot = played.get(above);
    const x = black ? (places[above] ?? 0) - BLACK / 2 : (places[above] ?? 0);
    const [wide, tall] = black ? [BLACK, SHORT] : [WHITE, TALL];
    const middle = x + wide / 2;
    const right = dot?.right.join("·") ?? "";
    const left = dot?.left.join("·") ?? "";
    return (
      <g key={above}>
        <rect className={black ? "key-black" : "key-white"} x={x} y={TOP} width={wide} height={tall} rx={2} />
        {dot && (
          <>
            <circle
              className={dot.is_home ? "fill-primary" : "key-dot"}
              cx={middle}
              cy={TOP + tall - 14}
              r={black ? 6 : 9}
            />
            <text
              className={dot.is_home ? "fill-primary-content font-bold" : "key-dot-text font-bold"}
              x={middle}
              y={TOP + tall - 10}
              textAnchor="middle"
              fontSize={black ? 8 : 11}
            >
              {dot.name}
            </text>
            <text className="fill-base-content" x={middle} y={TOP - 6} textAnchor="middle" fontSize={11}>
              {right}
            </text>
            <text className="fill-secondary" x={middle} y={TOP + TALL + 14} textAnchor="middle" fontSize={11}>
              {left}
            </text>
          </>
        )}
      </g>
    );
  };
  const all = keys.black.map((black, above) => ({ black, above }));
  return (
    <svg
      width={width + 2}
      height={TOP + TALL + 20}
      role="img"
      aria-label={keys.words}
      className="block lies-picture"
    >
      {all.filter((key) => !key.black).map((key) => draw(key.above, false))}
      {all.filter((key) => key.black).map((key) => draw(key.above, true))}
    </svg>
  );
}
