import type { Event } from "../../api/unpack";
import { useOpposite } from "../useOpposite";
import { type Geometry, isPlucked } from "./geometry";
import { Peg, Stroke } from "./Peg";
import type { Words } from "./RailRow";

type Props = {
  event: Event;
  number: number;
  place: Geometry;
  words: Words;
  saysHolds: boolean;
  /** Whether the count has entered. */
  isCounted: boolean;
  /** Whether it belongs to the left hand, and hangs under the line. */
  isLeft: boolean;
  /** Whether the other hand strikes at the same moment. */
  meets: boolean;
  at: number | null;
  /** Whether its stroke goes the other way than it did before a change. */
  isTurned: boolean;
  onPress: ((event: number) => void) | undefined;
  onClick: ((event: number) => void) | undefined;
};

/** In a mirror the right hand is the left one. */
const OTHER_HAND: Record<string, string> = { R: "L", L: "R" };

/** One event: its word, its peg, its finger and its stroke, and where it can be pressed. */
export function EventMark(props: Props) {
  const { event, number, place, isLeft, meets, at, isTurned, onPress, onClick } = props;
  const [opposite] = useOpposite();
  const { scale, x, beat, below } = place;
  const two = below > 0;
  // Where it can be pressed: as wide as its slot, within what a finger needs and its neighbours leave.
  const pressed = {
    className: "rail-place",
    x: x(event.x) - Math.min(14, (event.width * beat) / 2),
    width: Math.max(12, Math.min(28, event.width * beat)),
  };
  return (
    <g data-event={number}>
      {at === number && (
        <rect
          className="rail-at"
          x={x(event.x) - 12 * scale}
          y={4 * scale}
          width={24 * scale}
          height={(104 + below) * scale}
          rx={8}
        />
      )}
      <Word {...props} />
      <Peg event={event} place={place} isLeft={isLeft} meets={meets} />
      {event.touch && place.strings === 0 && (
        <text
          className="fill-soft"
          x={x(event.x) + (two ? 9 * scale : 0)}
          y={two ? (isLeft ? 112 : 60) * scale : place.touchY}
          textAnchor={two ? "start" : "middle"}
          fontSize={13 * scale}
        >
          {event.touch}
        </text>
      )}
      {isTurned && (
        <circle
          className="stroke-secondary"
          cx={x(event.x)}
          cy={(97 + below) * scale}
          r={11 * scale}
          fill="none"
          strokeWidth={2}
          strokeDasharray="4 2"
        />
      )}
      {event.stroke && !isPlucked(event) && place.hasRoom(event, 10) && (
        <Stroke
          stroke={opposite ? (OTHER_HAND[event.stroke] ?? event.stroke) : event.stroke}
          hollow={event.kind !== "note"}
          at={x(event.x)}
          y={(97 + below) * scale}
          scale={scale}
        />
      )}
      {onClick && (
        // biome-ignore lint/a11y/noStaticElementInteractions: the keyboard reaches it by C
        <rect
          {...pressed}
          y={place.clickY - 10 * scale}
          height={20 * scale}
          onClick={() => onClick(number)}
        />
      )}
      {onPress && (
        // The keyboard reaches the same places with the arrow keys of the rail.
        // biome-ignore lint/a11y/noStaticElementInteractions: see above
        <rect
          {...pressed}
          y={0}
          height={Math.min(108 * scale, place.clickY - 10 * scale)}
          onClick={() => onPress(number)}
        />
      )}
    </g>
  );
}

/** What is said there: of two hands the right one speaks where both do. */
function Word({ event, place, words, saysHolds, isCounted, isLeft, meets }: Props) {
  const silent = event.kind === "hold" && !event.stroke && !(saysHolds && !isLeft);
  if (silent || !place.hasRoom(event, 12) || (isLeft && (meets || event.kind !== "note"))) return null;
  const said =
    words === "pitch" ? event.pitch : words === "sounds" ? (event.sounds ?? event.pitch) : event.count;
  return (
    <text
      className={
        event.slot === 0 && event.kind !== "hold" && isCounted ? "fill-base-content font-bold" : "fill-soft"
      }
      // A count that has not entered yet is there to read, and not to be said.
      fontStyle={isCounted ? undefined : "italic"}
      x={place.x(event.x)}
      y={18 * place.scale}
      textAnchor="middle"
      fontSize={(event.slot === 0 ? 15 : 14) * place.scale}
    >
      {said ?? ""}
    </text>
  );
}
