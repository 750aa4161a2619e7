import { memo } from "react";
import type { Row } from "../../api/client";
import { Chords, Group, Gutter, InGroup, Line, Slurs, WhereItFell } from "./decor";
import { EventMark } from "./EventMark";
import type { Geometry } from "./geometry";
import { Strings } from "./Strings";

type Props = {
  row: Row;
  division: string;
  /** Division of the left hand; empty where one hand plays. */
  left?: string;
  place: Geometry;
  /** Written at the left: division, and which bar. */
  barLabel?: string;
  /** What stands above the pegs. */
  words?: Words;
  /** Whether the beats of a long note are counted while it is held. */
  saysHolds?: boolean;
  /** Number of the event in hand, if it is in this row. */
  at?: number | null;
  /** Numbers of the notes whose stroke turned round by the last change. */
  turned?: ReadonlySet<number> | undefined;
  /** Notes that were late or early again and again: how far, in beats, and in words. */
  off?: Off | undefined;
  onPress?: ((event: number) => void) | undefined;
  onClick?: ((event: number) => void) | undefined;
};

/** How far a note was from its place: in beats, early below 0, and in words. */
export type Off = ReadonlyMap<number, { beats: number; short: string }>;

/** Count words, note names as they are written or heard, or the count with the number inside the group above it. */
export type Words = "count" | "pitch" | "sounds" | "group";

/** A click is drawn the larger the more it weighs: a bar, a beat, a part of one. */
const CLICK_SIZES: Record<Row["clicks"][number]["level"], number> = { strong: 6, plain: 4.5, division: 3.2 };

/**
 * One bar of one leg: bays of equal width, pegs where they sound, words above, hand, click and groups below. Where two
 * hands play, the right one stands on the line and the left one hangs under it.
 */
export const RailRow = memo(function RailRow({
  row,
  division,
  left = "",
  place,
  barLabel,
  words = "count",
  saysHolds = false,
  at = null,
  turned,
  off,
  onPress,
  onClick,
}: Props) {
  const { scale, x, gutter, beat } = place;
  const fell = [...(off ?? [])].flatMap(([number, off]) => {
    const event = row.events[number - row.first] ?? row.other[number - row.other_first];
    return event ? [{ event, number, off }] : [];
  });
  const fellWords = fell.map((one) => `“${one.event.count}” ${one.off.short}`).join(", ");
  const name = `${division} a beat${left && ` against ${left}`}, bar ${row.bar}: ${row.words}${fellWords && `. In ms: ${fellWords}`}`;
  const under = new Set(row.other.filter((event) => event.kind === "note").map((event) => event.x));
  const above = new Set(row.events.filter((event) => event.kind === "note").map((event) => event.x));
  return (
    <svg
      width={place.width}
      height={place.height}
      role="img"
      aria-label={name}
      className="block rail-picture"
    >
      {place.top > 0 && words !== "group" && <Chords row={row} place={place} />}
      {words === "group" && <InGroup row={row} place={place} />}
      <g transform={`translate(0 ${place.top})`}>
        <Gutter division={division} left={left} barLabel={barLabel} narrow={gutter < 60} scale={scale} />
        {row.bays.map((bay, index) => (
          <rect
            key={index}
            className={index % 2 ? "fill-bay-even" : "fill-bay"}
            x={gutter + bay.x * beat + 2}
            y={26 * scale}
            width={bay.width * beat - 4}
            height={(54 + place.below) * scale}
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
        {place.strings > 0 && <Strings row={row} place={place} />}
        {row.lines.map((line, index) => (
          <Line key={line.name} line={line} y={place.lineY + index * place.lineStep} place={place} />
        ))}
        {row.breaths.map((breath) => (
          <text
            key={breath}
            className="fill-secondary font-bold"
            x={x(breath) - 14 * scale}
            y={42 * scale}
            textAnchor="middle"
            fontSize={26 * scale}
          >
            ’
          </text>
        ))}
        {row.other.map((event, index) => (
          <EventMark
            key={index}
            event={event}
            number={row.other_first + index}
            place={place}
            words={words}
            saysHolds={saysHolds}
            isCounted={row.is_counted}
            isTurned={turned?.has(row.other_first + index) ?? false}
            isLeft
            meets={above.has(event.x)}
            at={at}
            onPress={undefined}
            onClick={undefined}
          />
        ))}
        {row.events.map((event, index) => (
          <EventMark
            key={index}
            event={event}
            number={row.first + index}
            place={place}
            words={words}
            saysHolds={saysHolds}
            isCounted={row.is_counted}
            isTurned={turned?.has(row.first + index) ?? false}
            isLeft={false}
            meets={under.has(event.x)}
            at={at}
            onPress={onPress}
            onClick={onClick}
          />
        ))}
        {fell.map((one) => (
          <WhereItFell key={one.number} off={one.off} from={x(one.event.x)} place={place} />
        ))}
      </g>
    </svg>
  );
});
