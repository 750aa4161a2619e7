import type { Tread } from "../../api/client";
import { MarkDot } from "../../ui/MarkDot";
import { useWidth } from "../../ui/useWidth";

const HEIGHT = 400;
const TOP = 64;
const BOTTOM = 52;
const LEFT = 58;
const MOST_DOTS = 9;

type Props = { treads: readonly Tread[]; sign: string; targetLabel: string };

/** The staircase: a tread for each rung, its takes as dots on it, filled where clean. */
export function Treads({ treads, sign, targetLabel }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const step = Math.max(26, (width - LEFT - 8) / treads.length);
  const floor = HEIGHT - BOTTOM;
  const y = (height: number) => floor - 34 - height * (floor - 34 - TOP);
  const target = treads.at(-1);
  // Where treads are narrow, not every one has room for its numbers.
  const everyNth = Math.ceil(40 / step);
  return (
    <section
      ref={box}
      className="overflow-x-auto"
      aria-label="The treads"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached from the keyboard
      tabIndex={0}
    >
      {width > 0 && (
        <svg
          width={LEFT + step * treads.length + 8}
          height={HEIGHT}
          role="img"
          aria-label={`Staircase of ${treads.length} rungs from ${treads[0]?.bpm_label} to ${targetLabel} bpm`}
        >
          <text className="fill-soft" x={0} y={18} fontSize={15}>
            {sign} =
          </text>
          {target && (
            <>
              <line
                className="stroke-secondary"
                x1={LEFT}
                x2={LEFT + step * treads.length}
                y1={y(1)}
                y2={y(1)}
                strokeDasharray="7 5"
                strokeWidth={2}
              />
              <text className="fill-secondary font-bold" x={LEFT + 6} y={y(1) - 8} fontSize={14}>
                target {targetLabel}, {target.nps} notes a second
              </text>
            </>
          )}
          {treads.map((tread, index) => {
            const x = LEFT + index * step;
            const numbered = index % everyNth === 0 || tread.state === "now" || index === treads.length - 1;
            return (
              <g key={tread.number} className={`tread-${tread.state}`}>
                <rect
                  className="tread-rise"
                  x={x}
                  y={y(tread.height)}
                  width={step}
                  height={floor - y(tread.height)}
                />
                <line
                  className="tread-top"
                  x1={x + 3}
                  x2={x + step - 3}
                  y1={y(tread.height)}
                  y2={y(tread.height)}
                  strokeWidth={tread.state === "now" ? 7 : 5}
                  strokeLinecap="round"
                />
                {numbered && (
                  <>
                    <text
                      className="fill-base-content font-bold"
                      x={x + step / 2}
                      y={y(tread.height) - 10}
                      textAnchor="middle"
                      fontSize={15}
                    >
                      {tread.bpm_label}
                    </text>
                    <text
                      className="fill-soft"
                      x={x + step / 2}
                      y={floor + 18}
                      textAnchor="middle"
                      fontSize={13}
                    >
                      {tread.nps}
                    </text>
                  </>
                )}
                {tread.words && tread.words !== treads[index - 1]?.words && (
                  <Upwards
                    words={tread.words}
                    x={x + step / 2 - 12}
                    floor={floor}
                    room={floor - y(tread.height) - 18 - (tread.marks.length ? 22 : 0)}
                  />
                )}
                {tread.click_words !== treads[index - 1]?.click_words && (
                  <Upwards
                    sign="◆"
                    words={tread.click_words}
                    x={x + step / 2}
                    floor={floor}
                    room={floor - y(tread.height) - 18 - (tread.marks.length ? 22 : 0)}
                  />
                )}
                <Dots marks={tread.marks} x={x} y={y(tread.height) + 18} step={step} />
              </g>
            );
          })}
          <text className="fill-soft" x={0} y={floor + 18} fontSize={13}>
            notes/s
          </text>
          <text className="fill-soft" x={LEFT} y={HEIGHT - 8} fontSize={14}>
            ● clean take ○ shaky take ◐ too near to call × no verdict
            {treads.some((tread) => tread.click_words) && " ◆ the click from here on"}
          </text>
        </svg>
      )}
    </section>
  );
}

type UpwardsProps = { words: string; sign?: string; x: number; floor: number; room: number };

/** What holds from a tread on, its click or what is played, written upwards in it where there is room. */
function Upwards({ words, sign, x, floor, room }: UpwardsProps) {
  if (!words || room < (words.length + 2) * 7) return null;
  return (
    <text
      className="fill-base-content"
      transform={`translate(${x + 5} ${floor - 8}) rotate(-90)`}
      fontSize={13}
    >
      {sign && <tspan className="fill-success">{sign} </tspan>}
      {words}
    </text>
  );
}

type DotsProps = { marks: Tread["marks"]; x: number; y: number; step: number };

function Dots({ marks, x, y, step }: DotsProps) {
  const inRow = Math.max(1, Math.floor((step - 8) / 14));
  return marks.slice(-MOST_DOTS).map((mark, index) => {
    const cx = x + 10 + (index % inRow) * 14;
    const cy = y + Math.floor(index / inRow) * 14;
    return <MarkDot key={index} mark={mark} cx={cx} cy={cy} />;
  });
}
