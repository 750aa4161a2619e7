import { memo } from "react";
import type { Row } from "../../api/client";
import type { Geometry } from "./geometry";
import { Peg, Stroke } from "./Peg";

type Props = {
  row: Row;
  division: string;
  place: Geometry;
  /** Written at the left: division, and which bar. */
  barLabel?: string;
  /** What stands above the pegs. */
  words?: Words;
  /** Number of the event in hand, if it is in this row. */
  at?: number | null;
  onPress?: ((event: number) => void) | undefined;
  onClick?: ((event: number) => void) | undefined;
};

/** Count words, note names, or the count with the number inside the group above it. */
export type Words = "count" | "pitch" | "group";

/** A click is drawn the larger the more it weighs: a bar, a beat, a part of one. */
const CLICK_SIZES: Record<Row["clicks"][number]["level"], number> = { strong: 6, plain: 4.5, division: 3.2 };

/** One bar of one leg: bays of equal width, pegs where they sound, words above, hand, click and groups below. */
export const RailRow = memo(function RailRow({
  row,
  division,
  place,
  barLabel,
  words = "count",
  at = null,
  onPress,
  onClick,
}: Props) {
  const { scale, x, gutter, beat } = place;
  const name = `${division} a beat, bar ${row.bar}: ${row.words}`;
  return (
    <svg width={place.width} height={place.height} role="img" aria-label={name} className="block">
      {place.top > 0 && words !== "group" && <Chords row={row} place={place} />}
      {words === "group" && <InGroup row={row} place={place} />}
      <g transform={`translate(0 ${place.top})`}>
        <Gutter division={division} barLabel={barLabel} narrow={gutter < 60} scale={scale} />
        {row.bays.map((bay, index) => (
          <rect
            key={index}
            className={index % 2 ? "fill-bay-even" : "fill-bay"}
            x={gutter + bay.x * beat + 2}
            y={26 * scale}
            width={bay.width * beat - 4}
            height={54 * scale}
            rx={8}
          />
        ))}
        <line
          className="stroke-base-content"
          x1={gutter}
          x2={place.width - 6}
          y1={80 * scale}
          y2={80 * scale}
          strokeWidth={1.5}
        />
        {row.clicks.map((click, index) => {
          const r = CLICK_SIZES[click.level] * scale;
          return (
            <path
              key={index}
              className="fill-success"
              d={`M${x(click.x)} ${place.clickY - r}l${r} ${r}l${-r} ${r}l${-r} ${-r}z`}
            />
          );
        })}
        {row.groups.map((group, index) => (
          <Group key={index} group={group} place={place} />
        ))}
        <Slurs row={row} place={place} />
        {row.lines.map((line, index) => (
          <Line key={line.name} line={line} y={place.lineY + index * place.lineStep} place={place} />
        ))}
        {row.breaths.map((at) => (
          <text
            key={at}
            className="fill-secondary font-bold"
            x={x(at) - 14 * scale}
            y={42 * scale}
            textAnchor="middle"
            fontSize={26 * scale}
          >
            ’
          </text>
        ))}
        {row.events.map((event, index) => (
          <g key={index} data-event={row.first + index}>
            {at === row.first + index && (
              <rect
                className="rail-at"
                x={x(event.x) - 12 * scale}
                y={4 * scale}
                width={24 * scale}
                height={104 * scale}
                rx={8}
              />
            )}
            {(event.kind !== "hold" || event.stroke) && (
              <text
                className={event.slot === 0 ? "fill-base-content font-bold" : "fill-soft"}
                x={x(event.x)}
                y={18 * scale}
                textAnchor="middle"
                fontSize={(event.slot === 0 ? 15 : 14) * scale}
              >
                {words === "pitch" ? (event.pitch ?? "") : event.count}
              </text>
            )}
            <Peg event={event} place={place} />
            {event.touch && (
              <text
                className="fill-soft"
                x={x(event.x)}
                y={place.touchY}
                textAnchor="middle"
                fontSize={13 * scale}
              >
                {event.touch}
              </text>
            )}
            {event.stroke && (
              <Stroke
                stroke={event.stroke}
                hollow={event.kind !== "note"}
                at={x(event.x)}
                y={97 * scale}
                scale={scale}
              />
            )}
            {onClick && (
              // biome-ignore lint/a11y/noStaticElementInteractions: the keyboard reaches it by C
              <rect
                className="rail-place"
                x={x(event.x) - Math.min(14, (event.width * beat) / 2)}
                y={place.clickY - 10 * scale}
                width={Math.max(12, Math.min(28, event.width * beat))}
                height={20 * scale}
                onClick={() => onClick(row.first + index)}
              />
            )}
            {onPress && (
              // The keyboard reaches the same places with the arrow keys of the rail.
              // biome-ignore lint/a11y/noStaticElementInteractions: see above
              <rect
                className="rail-place"
                x={x(event.x) - Math.min(14, (event.width * beat) / 2)}
                y={0}
                width={Math.max(12, Math.min(28, event.width * beat))}
                height={Math.min(108 * scale, place.clickY - 10 * scale)}
                onClick={() => onPress(row.first + index)}
              />
            )}
          </g>
        ))}
      </g>
    </svg>
  );
});

/** A bow from the note before to each note that is slurred; from the left edge where that one is in another bar. */
function Slurs({ row, place }: { row: Row; place: Geometry }) {
  const y = 92 * place.scale;
  return row.events.map((event, index) => {
    if (!event.slurred) return null;
    const before = row.events.slice(0, index).findLast((one) => one.kind === "note");
    const from = before ? place.x(before.x) + 9 : place.x(event.x) - 26 * place.scale;
    const to = place.x(event.x);
    return (
      <path
        key={event.x}
        className="stroke-base-content"
        d={`M${from} ${y}Q${(from + to) / 2} ${y + 12 * place.scale} ${to} ${y}`}
        fill="none"
        strokeWidth={2}
      />
    );
  });
}

/** The chord where it begins, and again at the start of a bar. */
function Chords({ row, place }: { row: Row; place: Geometry }) {
  const named = row.events.filter((event) => event.chord !== null);
  return named.map((event, index) =>
    event.chord === named[index - 1]?.chord ? null : (
      <text
        key={event.x}
        className="fill-base-content font-bold font-display"
        x={place.x(event.x)}
        y={17 * place.scale}
        textAnchor="middle"
        fontSize={17 * place.scale}
      >
        {event.chord}
      </text>
    ),
  );
}

/** A second layer, or the body: its own places under the rail. */
function Line({ line, y, place }: { line: Row["lines"][number]; y: number; place: Geometry }) {
  return (
    <g>
      <text className="fill-soft" x={0} y={y} fontSize={12}>
        {place.gutter < 60 ? line.name.slice(0, 6) : line.name}
      </text>
      {line.marks.map((mark) => (
        <text
          key={mark.x}
          className="fill-base-content"
          x={place.x(mark.x)}
          y={y}
          textAnchor="middle"
          fontSize={14 * place.scale}
        >
          {mark.word}
        </text>
      ))}
    </g>
  );
}

/** The second stream: which note of its group each one is. */
function InGroup({ row, place }: { row: Row; place: Geometry }) {
  return row.events.map((event) =>
    event.in_group === null ? null : (
      <text
        key={event.x}
        className={event.in_group === 1 ? "fill-base-content font-bold" : "fill-secondary"}
        x={place.x(event.x)}
        y={16 * place.scale}
        textAnchor="middle"
        fontSize={14 * place.scale}
      >
        {event.in_group}
      </text>
    ),
  );
}

type GutterProps = { division: string; barLabel: string | undefined; narrow: boolean; scale: number };

function Gutter({ division, barLabel, narrow, scale }: GutterProps) {
  return (
    <g>
      <text
        className="fill-primary font-bold font-display"
        x={0}
        y={54 * scale}
        fontSize={(division.length > 2 ? 18 : 26) * scale}
      >
        {division}
      </text>
      <text className="fill-soft" x={0} y={74 * scale} fontSize={13}>
        {division.includes(":") ? "beats" : "a beat"}
      </text>
      {barLabel && (
        <text className="fill-soft" x={0} y={18 * scale} fontSize={13}>
          {narrow ? barLabel.replace("bar ", "b. ") : barLabel}
        </text>
      )}
    </g>
  );
}

function Group({ group, place }: { group: Row["groups"][number]; place: Geometry }) {
  const { scale, x } = place;
  const [from, to, y] = [x(group.x) - 6, Math.max(x(group.x) + 6, x(group.end) - 10), place.groupY];
  const odd = group.number % 2 === 1;
  return (
    <g>
      <path
        className={odd ? "stroke-secondary" : "stroke-warning"}
        d={`M${from} ${y - 5}v5H${to}v-5`}
        fill="none"
        strokeWidth={2}
      />
      <text
        className={odd ? "fill-secondary" : "fill-care-text"}
        x={(from + to) / 2}
        y={y + 14 * scale}
        textAnchor="middle"
        fontSize={13 * scale}
        fontWeight={700}
      >
        {group.number}
      </text>
    </g>
  );
}
