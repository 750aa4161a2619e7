import { type Ref, useEffect, useImperativeHandle, useMemo, useRef, useState } from "react";
import type { Reading } from "../../api/client";
import { firstAt, type Position } from "../../audio/schedule";
import { Grip } from "../../ui/rail/Grip";
import { geometry } from "../../ui/rail/geometry";
import { type Off, RailRow } from "../../ui/rail/RailRow";
import { useOpposite } from "../../ui/useOpposite";
import { useSize } from "../../ui/useSize";
import { rowsInView } from "./standRows";

export type RailHandle = {
  show: (position: Position | null) => void;
  /** Show the bar of a note, and light it. */
  point: (event: number) => void;
};

/** What lies between two rows, in pixels. */
const BETWEEN = 8;
/** How small a row may become so that every stage is in view, and how large it may grow. */
const SMALLEST = 0.5;
const LARGEST = 1.45;
/** So small it may become to have the bars that come in view as well. */
const READ_AHEAD = 0.85;

type Props = {
  reading: Reading;
  large: boolean;
  short: boolean;
  /** Nothing is shown of it: who plays has to find the beat by ear. */
  hidden: boolean;
  /** Whether the arm goes by place, so that it swings through the silences. */
  swings: boolean;
  /** Notes that were off again and again in the take before. */
  off?: Off;
  /** Whoever shows the same notes elsewhere: told which are lit here. */
  onLit: (events: readonly number[]) => void;
  ref: Ref<RailHandle>;
};

/**
 * The rail while it is played, as large as the screen lets it be: every stage, with the bar that sounds, and what comes
 * where there is room. `short` is one bar alone, beside what a take measured.
 */
export function StandRail({ reading, large, short, hidden, swings, off, onLit, ref }: Props) {
  const [opposite] = useOpposite();
  const arm = useRef<HTMLDivElement>(null);
  const [pegs, { width, height }] = useSize<HTMLElement>();
  const line = useRef<HTMLDivElement>(null);
  const lit = useRef<{ event: number; node: Element | null }[]>([]);
  const told = useRef<readonly number[]>([]);
  const [rowIndex, setRowIndex] = useState(0);
  const [pointed, setPointed] = useState<number | null>(null);
  const [place, room] = useMemo(() => {
    const of = (scale: number) =>
      geometry(reading.rows, reading.beats_a_bar, width, { scale, strings: reading.strings });
    if (short || !height) return [of(1), 1];
    const tall = of(1).height;
    const many = Math.max(1, Math.floor((height + BETWEEN) / (tall * READ_AHEAD + BETWEEN)));
    const { places } = rowsInView(reading.rows, 0, many);
    const fitting = (height - BETWEEN * (places - 1)) / places / tall;
    return [of(Math.min(LARGEST, Math.max(SMALLEST, fitting))), many];
  }, [reading, width, height, short]);
  const inView = useMemo(
    () =>
      short ? { shown: [{ row: rowIndex, place: 0 }], places: 1 } : rowsInView(reading.rows, rowIndex, room),
    [reading.rows, rowIndex, room, short],
  );
  const step = place.height + BETWEEN;
  const topOf = (row: number) => (inView.shown.find((one) => one.row === row)?.place ?? 0) * step;
  const wasShown = useRef(false);

  /** Light the notes that sound, one for each hand; others go out. */
  const light = (events: readonly number[]) => {
    if (events.some((event, hand) => told.current[hand] !== event)) {
      told.current = events;
      onLit(events);
    }
    events.forEach((event, hand) => {
      const before = lit.current[hand];
      // React may give the lit node to another event when rows leapfrog, so the node is asked too.
      if (before?.event === event && before.node?.getAttribute("data-event") === String(event)) return;
      before?.node?.classList.remove("peg-lit");
      const node = pegs.current?.querySelector(`[data-event="${event}"]`) ?? null;
      node?.classList.add("peg-lit");
      lit.current[hand] = { event, node };
    });
  };

  // A row that is shown only now has its node only after it was drawn.
  useEffect(() => {
    if (pointed !== null) light([pointed]);
  });

  // What was off is in sight, before anything else is pointed at.
  useEffect(() => {
    const [first] = off?.keys() ?? [];
    if (first !== undefined) setRowIndex(Math.max(0, rowOf(reading, first)));
  }, [off, reading]);

  useImperativeHandle(ref, () => ({
    point: (event) => {
      setRowIndex(Math.max(0, rowOf(reading, event)));
      setPointed(event);
      pegs.current?.scrollIntoView({ block: "nearest" });
    },
    show: (position) => {
      if (pointed !== null) setPointed(null);
      const bar = line.current;
      if (!position) {
        light([-1, -1]);
        if (bar) bar.hidden = true;
        wasShown.current = false;
        setRowIndex(0);
        return;
      }
      if (!wasShown.current) pegs.current?.parentElement?.scrollIntoView({ block: "nearest" });
      wasShown.current = true;
      const { score } = position.stretch;
      const { within } = position;
      const begun = firstAt(score.tones, within + 1e-6);
      const isLeft = (event: number) => event >= (reading.rows[0]?.other_first || Number.POSITIVE_INFINITY);
      const tone = lastOf(score.tones, begun, (event) => !isLeft(event));
      const index = score.bars.findLastIndex((one) => one.at <= within + 1e-6);
      const span = score.bars[index];
      if (!span) return;
      const { number, at: from } = span;
      const to = score.bars[index + 1]?.at ?? score.loop_seconds;
      // A bar may hold the end of one leg and the beginning of the next: two rows of the same number.
      const at = reading.rows.findLastIndex(
        (row) => row.bar < number || (row.bar === number && row.first <= (tone?.event ?? 0)),
      );
      setRowIndex(Math.max(0, at));
      light([tone?.event ?? -1, reading.two_hands ? (lastOf(score.tones, begun, isLeft)?.event ?? -1) : -1]);
      const beats = span.begin + ((within - from) / (to - from)) * (span.end - span.begin);
      if (arm.current) {
        const travel = ARM * place.scale;
        arm.current.style.setProperty("--arm", `${armAt(reading.rows[Math.max(0, at)], beats) * travel}px`);
        arm.current.style.setProperty("--row", `${topOf(Math.max(0, at))}px`);
      }
      if (bar) {
        const x = place.x(beats) * (opposite ? -1 : 1);
        bar.hidden = false;
        const y = topOf(Math.max(0, at));
        keepInSight(pegs.current, Math.abs(x), y, place.height);
        bar.style.transform = `translate(${x}px, ${y}px)`;
      }
    },
  }));

  // The grip of what comes is read before it is there.
  const next = reading.rows[(rowIndex + 1) % reading.rows.length];
  const nextChord = short ? null : chordOf(next);
  return (
    <div
      className={`card-plain ${short ? "stand-rail-short" : "stand-rail"} ${large ? "stand-rail-large" : ""} ${opposite ? "from-opposite" : ""}`}
    >
      {hidden && (
        <p className="text-soft">
          The rail is hidden. Where is beat 1? Press “Reveal” to hear the click and see it.
        </p>
      )}
      <section
        className={short ? "overflow-x-auto" : "stand-rows"}
        aria-label="The rail, as it is played"
        ref={pegs}
        hidden={hidden}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached from the keyboard
        tabIndex={0}
      >
        <div
          className="relative"
          style={{
            height: step * inView.places - BETWEEN,
            width: opposite ? place.width : undefined,
          }}
        >
          {swings && (
            <div
              className="arm-track"
              style={{
                [opposite ? "right" : "left"]: place.gutter - 16,
                top: place.top + 26 * place.scale,
                height: ARM * place.scale,
              }}
              aria-hidden="true"
            >
              <div ref={arm} className="arm-weight" />
            </div>
          )}
          {width > 0 &&
            inView.shown.map(({ row: index, place: at }) => {
              const row = reading.rows[index];
              return (
                row && (
                  <div key={at} className="absolute left-0" style={{ top: at * step }}>
                    <RailRow
                      row={row}
                      division={reading.legs[row.leg]?.division ?? ""}
                      left={reading.legs[row.leg]?.left}
                      saysHolds={reading.says_holds}
                      place={place}
                      barLabel={`bar ${row.bar}`}
                      off={off}
                    />
                  </div>
                )
              );
            })}
          <div ref={line} hidden className="moving-line" style={{ height: place.height }} />
        </div>
      </section>
      {nextChord && <Chords reading={reading} now={chordOf(reading.rows[rowIndex])} next={nextChord} />}
    </div>
  );
}

const chordOf = (row: Reading["rows"][number] | undefined) =>
  row?.events.find((event) => event.chord)?.chord ?? null;

/** The chord of the bar that sounds and of the next one, as they are gripped. */
function Chords({ reading, now, next }: { reading: Reading; now: string | null; next: string }) {
  const grip = (symbol: string | null) => reading.shapes.find((one) => one.symbol === symbol);
  const [here, then] = [grip(now), grip(next)];
  return (
    <div className="flex items-center gap-x-3">
      {here && <Grip grip={here} />}
      {next !== now && (
        <>
          <span className="text-soft">
            then {!then && <strong className="text-base-content font-display">{next}</strong>}
          </span>
          {then && <Grip grip={then} />}
        </>
      )}
    </div>
  );
}

/** How far the arm goes down, before it grows with the scale. */
const ARM = 54;

/** Where the arm is at a moment of a bar, 0 up to 1 down: it arrives with each stroke, through the silences too. */
function armAt(row: Reading["rows"][number] | undefined, beats: number): number {
  const strokes = row?.events.filter((event) => event.stroke === "D" || event.stroke === "U") ?? [];
  const index = strokes.findLastIndex((event) => event.x <= beats + 1e-6);
  const [from, to] = [strokes[index], strokes[index + 1]];
  if (!from) return 0;
  const level = from.stroke === "D" ? 1 : 0;
  const end = to?.x ?? from.x + from.width;
  const share = Math.min(1, (beats - from.x) / Math.max(1e-6, end - from.x));
  // Two strokes one way take a way back between them; after the last of a bar the other way comes.
  if (to && to.stroke === from.stroke) return Math.abs(level - Math.sin(Math.PI * share));
  return level + (1 - 2 * level) * share;
}

type Tone = { event: number };

/** The last of the first so many notes that belongs to a hand. */
function lastOf(tones: readonly Tone[], begun: number, is: (event: number) => boolean): Tone | undefined {
  for (let index = begun - 1; index >= 0; index--) {
    const tone = tones[index];
    if (tone && is(tone.event)) return tone;
  }
  return undefined;
}

/** The row in which an event stands, in either hand. */
function rowOf(reading: Reading, event: number): number {
  const inLeft = (row: Reading["rows"][number]) =>
    row.other.length > 0 && row.other_first <= event && event < row.other_first + row.other.length;
  const left = reading.rows.findIndex(inLeft);
  return left >= 0 ? left : reading.rows.findLastIndex((row) => row.first <= event);
}

/** Turn the page of a rail that is wider or taller than the screen once the line has left it. */
function keepInSight(box: HTMLElement | null, x: number, y: number, tall: number): void {
  if (!box) return;
  if (
    box.scrollHeight > box.clientHeight &&
    (y < box.scrollTop || y + tall > box.scrollTop + box.clientHeight)
  )
    box.scrollTop = y - BETWEEN;
  if (box.scrollWidth <= box.clientWidth) return;
  if (x < box.scrollLeft || x > box.scrollLeft + box.clientWidth - 24) box.scrollLeft = x - 60;
}
