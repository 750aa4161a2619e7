import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useWidth } from "../../ui/useWidth";

type Figures = Schemas["FiguresShape"];
type Leg = Schemas["LegDotsShape"];
type Slot = Schemas["SlotShape"];

const TALL = 112;
const MARGIN = 6;
const WIDEST = 110;
const GAP = 8;

type Props = {
  figures: Figures;
  /** A dot was pressed: its note on the rail. */
  onNote: (event: number) => void;
};

/** Where each slot of the beat fell: a field of dots around the exact place; all slots of the division, however many. */
export function WhereItFell({ figures, onNote }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [box, width] = useWidth<HTMLDivElement>();
  const leg = figures.legs.find((one) => one.division === chosen) ?? figures.legs.at(-1);
  return (
    <section className="min-w-0" aria-label="Where each note of the beat fell">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="font-bold text-primary">Where each note of the beat fell</h2>
        {leg && figures.legs.length > 1 && (
          <label className="text-soft">
            at{" "}
            <select
              className="brief-word"
              value={leg.division}
              onChange={(event) => setChosen(event.target.value)}
            >
              {figures.legs.map((one) => (
                <option key={one.division} value={one.division}>
                  {one.division} a beat
                </option>
              ))}
            </select>
          </label>
        )}
        {leg?.spread && (
          <span className="text-soft text-sm">
            spread {leg.spread.label} {leg.spread.plus_minus}
          </span>
        )}
      </div>
      <div ref={box} />
      {leg && width > 0 ? (
        <ol className="flex pb-1" style={{ gap: GAP }}>
          {leg.slots.map((slot) => {
            const room = (width - GAP * (leg.slots.length - 1)) / leg.slots.length;
            return (
              <li key={slot.slot} className="text-center min-w-0" style={{ width: Math.min(WIDEST, room) }}>
                <SlotField slot={slot} wide={Math.min(WIDEST, room)} reach={reachOf(leg)} onNote={onNote} />
                <p className="leading-tight whitespace-nowrap text-sm">{slot.habit_words}</p>
              </li>
            );
          })}
        </ol>
      ) : (
        <p>{leg ? "" : "No note could be placed."}</p>
      )}
    </section>
  );
}

/** Half the width of every field in ms: the farthest dot, never under 15. */
function reachOf(leg: Leg): number {
  return Math.max(15, ...leg.slots.flatMap((slot) => slot.dots.map((dot) => Math.abs(dot.ms))));
}

type FieldProps = { slot: Slot; wide: number; reach: number; onNote: Props["onNote"] };

function SlotField({ slot, wide, reach, onNote }: FieldProps) {
  const x = (ms: number) => wide / 2 + (ms / reach) * (wide / 2 - MARGIN);
  const step = (TALL - 40) / Math.max(1, slot.dots.length - 1);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the table below leads to the same notes from the keyboard
    <svg
      width={wide}
      height={TALL}
      role="img"
      aria-label={`${slot.count}: ${slot.habit_words}`}
      onClick={(press) => {
        const place = (press.target as Element).getAttribute("data-note");
        if (place !== null && Number(place) >= 0) onNote(Number(place));
      }}
    >
      <text className="fill-base-content font-bold" x={wide / 2} y={14} textAnchor="middle" fontSize={15}>
        {slot.count}
      </text>
      <rect className="fill-bay" x={1} y={20} width={wide - 2} height={TALL - 24} rx={8} />
      <line className="stroke-soft" x1={wide / 2} x2={wide / 2} y1={18} y2={TALL} strokeDasharray="3 3" />
      {slot.dots.map((dot, index) => (
        <circle
          key={index}
          className="fill-peg take-dot"
          data-note={dot.event}
          cx={x(dot.ms)}
          cy={28 + index * step}
          r={3.4}
        />
      ))}
      {slot.habit_ms !== null && slot.habit_ms !== undefined && (
        <path className="fill-accent" d={`M${x(slot.habit_ms) - 5} ${TALL - 1}h10l-5 -9z`} />
      )}
    </svg>
  );
}
