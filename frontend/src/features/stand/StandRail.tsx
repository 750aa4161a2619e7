import { type Ref, useEffect, useImperativeHandle, useMemo, useRef, useState } from "react";
import type { Reading } from "../../api/client";
import { firstAt, type Position } from "../../audio/schedule";
import { Grip } from "../../ui/rail/Grip";
import { geometry } from "../../ui/rail/geometry";
import { type Off, RailRow } from "../../ui/rail/RailRow";
import { useOpposite } from "../../ui/useOpposite";
import { useWidth } from "../../ui/useWidth";

export type RailHandle = {
  show: (position: Position | null) => void;
  /** Show the bar of a note, and light it. */
  point: (event: number) => void;
};

/** A row that is taller than this, in pixels, stands alone: two would push all else off the screen. */
const TALLEST_OF_TWO = 230;

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
 * The rail while it is played: two bars, the one that sounds and the one that comes. They leapfrog, so that
 * the eye never has to jump in the middle of a bar. `short` leaves the second out, to give a take its room.
 */
export function StandRail({ reading, large, short, hidden, swings, off, onLit, ref }: Props) {
  const [opposite] = useOpposite();
  const arm = useRef<HTMLDivElement>(null);
  const [box, width] = useWidth<HTMLDivElement>();
  const pegs = useRef<HTMLElement>(null);
  const line = useRef<HTMLDivElement>(null);
  const lit = useRef<{ event: number; node: Element | null }[]>([]);
  const told = useRef<readonly number[]>([]);
  const [rowIndex, setRowIndex] = useState(0);
  const [pointed, setPointed] = useState<number | null>(null);
  const place = useMemo(
    () =>
      geometry(reading.rows, reading.beats_a_bar, width, {
        scale: large ? 1.5 : 1.05,
        strings: reading.strings,
      }),
    [reading, width, large],
  );

  const oneRow = short || place.height > TALLEST_OF_TWO;
  const wasShown = useRef(false);
  const isOneRow = useRef(oneRow);
  isOneRow.current = oneRow;

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
      box.current?.scrollIntoView({ block: "nearest" });
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
      if (!wasShown.current) box.current?.parentElement?.scrollIntoView({ block: "nearest" });
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
      }
      if (bar) {
        const x = place.x(beats) * (opposite ? -1 : 1);
        bar.hidden = false;
        keepInSight(pegs.current, Math.abs(x));
        const slot = isOneRow.current ? 0 : Math.max(0, at) % 2;
        bar.style.transform = `translate(${x}px, ${slot * (place.height + 8)}px)`;
      }
    },
  }));

  const even = rowIndex % 2 === 0 ? rowIndex : rowIndex + 1;
  const odd = rowIndex % 2 === 0 ? rowIndex + 1 : rowIndex;
  const rows = [reading.rows[even % reading.rows.length], reading.rows[odd]];
  // The row after the last is the first again, for what goes round.
  if (!rows[1] && reading.rows.length > 1) rows[1] = reading.rows[0];
  if (even >= reading.rows.length) rows[0] = reading.rows[0];
  // One row alone is the one that sounds, or the one that a note was pointed at in.
  const shown = oneRow ? [reading.rows[rowIndex] ?? rows[0]] : rows.slice(0, 2);
  const next = oneRow && !short ? reading.rows[(rowIndex + 1) % reading.rows.length] : undefined;
  const nextChord = chordOf(next);
  return (
    <div className={`card-plain stand-rail ${opposite ? "from-opposite" : ""}`}>
      <div ref={box} />
      {hidden && (
        <p className="text-soft">
          The rail is hidden. Where is beat 1? Press “Reveal” to hear the click and see it.
        </p>
      )}
      <section
        className="overflow-x-auto"
        aria-label="The rail, as it is played"
        ref={pegs}
        hidden={hidden}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached from the keyboard
        tabIndex={0}
      >
        <div
          className="relative"
          style={{
            height: (place.height + 8) * (reading.rows.length > 1 && !oneRow ? 2 : 1) - 8,
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
            shown.map(
              (row, slot) =>
                row && (
                  <div key={slot} className="absolute left-0" style={{ top: slot * (place.height + 8) }}>
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
                ),
            )}
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

/** Turn the page of a rail that is wider than the screen once the line has left it. */
function keepInSight(box: HTMLElement | null, x: number): void {
  if (!box || box.scrollWidth <= box.clientWidth) return;
  if (x < box.scrollLeft || x > box.scrollLeft + box.clientWidth - 24) box.scrollLeft = x - 60;
}
