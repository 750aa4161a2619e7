import type { Row } from "../../api/client";
import type { Geometry } from "./geometry";

// What stands around the pegs of a row: bows, chords, groups, what is written at its left.

type Props = { row: Row; place: Geometry };

/** A bow over each slur, from the note that is struck; from the left edge where that one is in another bar. */
export function Slurs({ row, place }: Props) {
  const { scale, x } = place;
  const y = (92 + place.below) * scale;
  return slursOf(row).map(({ from, to, ornament }) => {
    const end = x(to);
    const begin = from === null ? end - 26 * scale : x(from) + 9;
    return (
      <g key={to}>
        <path
          className="stroke-base-content"
          d={`M${begin} ${y}Q${(begin + end) / 2} ${y + 12 * scale} ${end} ${y}`}
          fill="none"
          strokeWidth={2}
        />
        {ornament && (
          <text
            className="fill-soft"
            x={(begin + end) / 2}
            y={y + 2 * scale}
            textAnchor="middle"
            fontSize={12 * scale}
          >
            {ornament}
          </text>
        )}
      </g>
    );
  });
}

type Slur = { from: number | null; to: number; ornament: string | null };

/** The slurs of a row: notes that are slurred one after the other are one, but for what the left hand hammers or pulls. */
function slursOf(row: Row): Slur[] {
  const found: Slur[] = [];
  let before: Row["events"][number] | null = null;
  for (const event of row.events) {
    if (event.kind !== "note") continue;
    const last = found.at(-1);
    if (event.slurred && !event.ornament && last && before && last.to === before.x) last.to = event.x;
    else if (event.slurred) found.push({ from: before?.x ?? null, to: event.x, ornament: event.ornament });
    before = event;
  }
  return found;
}

/** The chord where it begins, and again at the start of a bar. */
export function Chords({ row, place }: Props) {
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
export function Line({ line, y, place }: { line: Row["lines"][number]; y: number; place: Geometry }) {
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
export function InGroup({ row, place }: Props) {
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

type GutterProps = {
  division: string;
  /** Division of the left hand; empty where one hand plays. */
  left: string;
  barLabel: string | undefined;
  narrow: boolean;
  scale: number;
};

export function Gutter({ division, left, barLabel, narrow, scale }: GutterProps) {
  return (
    <g>
      {left && (
        <>
          <text
            className="fill-secondary font-bold font-display"
            x={0}
            y={116 * scale}
            fontSize={(left.length > 2 ? 18 : 26) * scale}
          >
            {left}
          </text>
          <text className="fill-soft" x={0} y={134 * scale} fontSize={13}>
            left
          </text>
        </>
      )}
      <text
        className="fill-primary font-bold font-display"
        x={0}
        y={54 * scale}
        fontSize={(division.length > 2 ? 18 : 26) * scale}
      >
        {division}
      </text>
      <text className="fill-soft" x={0} y={74 * scale} fontSize={13}>
        {left ? "right" : division.includes(":") ? "beats" : "a beat"}
      </text>
      {barLabel && (
        <text className="fill-soft" x={0} y={18 * scale} fontSize={13}>
          {narrow ? barLabel.replace("bar ", "b. ") : barLabel}
        </text>
      )}
    </g>
  );
}

export function Group({ group, place }: { group: Row["groups"][number]; place: Geometry }) {
  const { scale, x } = place;
  const [from, y] = [x(group.x) - 6, place.groupY];
  const to = Math.min(place.width - 4, Math.max(x(group.x) + 6, x(group.end) - 10));
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

type FellProps = { off: { beats: number; short: string }; from: number; place: Geometry };

/** From the place of a note to where it fell, in the scale of the rail, with how much that is. */
export function WhereItFell({ off, from, place }: FellProps) {
  const { scale, beat } = place;
  const to = from + off.beats * beat;
  const y = 80 * scale;
  const side = off.beats < 0 ? -1 : 1;
  return (
    <g>
      <path className="stroke-error" d={`M${from} ${y}H${to}`} strokeWidth={4 * scale} />
      <path className="fill-error" d={`M${to + 5 * side} ${y}l${-9 * side} ${-7 * scale}v${14 * scale}z`} />
      <text
        className="fill-error font-bold rail-over"
        x={to + 9 * side}
        y={y - 7 * scale}
        textAnchor={side < 0 ? "end" : "start"}
        fontSize={14 * scale}
      >
        {off.short}
      </text>
    </g>
  );
}
