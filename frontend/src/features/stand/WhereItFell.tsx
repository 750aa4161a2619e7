import { useState } from "react";
import type { Schemas } from "../../api/client";

type Figures = Schemas["FiguresShape"];
type Slot = Schemas["SlotShape"];

const WIDE = 96;
const TALL = 118;
const MARGIN = 8;

/** Where each slot of the beat fell: a field of dots around the exact place, the bias under it, and its share. */
export function WhereItFell({ figures, heading }: { figures: Figures; heading: string }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const leg = figures.legs.find((one) => one.division === chosen) ?? figures.legs.at(-1);
  return (
    <section className="card-plain min-w-0">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="flex-1 font-bold text-primary">{heading}</h2>
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
      </div>
      {leg ? (
        <ul className="flex gap-2 overflow-x-auto pb-1">
          {leg.slots.map((slot) => (
            <li key={slot.slot} className="text-center flex-1 min-w-20 max-w-32">
              <SlotField slot={slot} reach={reachOf(leg.slots)} />
              <p className="leading-tight">{slot.bias ? slot.bias.label : "too few"}</p>
              <p className="text-soft text-sm leading-tight">
                {slot.bias && (
                  <>
                    {slot.bias.plus_minus}, {slot.bias.count} notes
                    <br />
                  </>
                )}
                {slot.share ?? "not heard"}
              </p>
            </li>
          ))}
        </ul>
      ) : (
        <p>No note could be placed.</p>
      )}
      <p className="text-soft text-sm">Under each: bias, its uncertainty, and its share of the beat.</p>
      <Totals figures={figures} />
    </section>
  );
}

/** Half the width of every field in ms: the farthest dot, never under 15. */
function reachOf(slots: readonly Slot[]): number {
  return Math.max(15, ...slots.flatMap((slot) => slot.dots.map(Math.abs)));
}

function SlotField({ slot, reach }: { slot: Slot; reach: number }) {
  const x = (ms: number) => WIDE / 2 + (ms / reach) * (WIDE / 2 - MARGIN);
  const step = (TALL - 40) / Math.max(1, slot.dots.length - 1);
  return (
    <svg
      width={WIDE}
      height={TALL}
      role="img"
      aria-label={`${slot.count}: ${slot.bias?.label ?? "too few notes"}`}
    >
      <text className="fill-base-content font-bold" x={WIDE / 2} y={14} textAnchor="middle" fontSize={15}>
        {slot.count}
      </text>
      <rect className="fill-bay" x={1} y={20} width={WIDE - 2} height={TALL - 24} rx={8} />
      <line className="stroke-soft" x1={WIDE / 2} x2={WIDE / 2} y1={18} y2={TALL} strokeDasharray="3 3" />
      {slot.dots.map((dot, index) => (
        <circle key={index} className="fill-peg" cx={x(dot)} cy={28 + index * step} r={3.4} />
      ))}
      {slot.bias_ms !== null && slot.bias_ms !== undefined && (
        <path className="fill-accent" d={`M${x(slot.bias_ms) - 5} ${TALL - 1}h10l-5 -9z`} />
      )}
    </svg>
  );
}

function Totals({ figures }: { figures: Figures }) {
  return (
    <p className="mt-2 text-sm">
      {figures.matched} of {figures.due} notes, {figures.missed} missed, {figures.extra} extra.{" "}
      {figures.bias && (
        <>
          Bias <strong>{figures.bias.label}</strong> {figures.bias.plus_minus}{" "}
          <span className="text-soft">({figures.bias_note})</span>.{" "}
        </>
      )}
      {figures.spread && (
        <>
          Spread <strong>{figures.spread.label}</strong> {figures.spread.plus_minus}.
        </>
      )}
    </p>
  );
}
