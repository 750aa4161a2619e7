import { memo, useEffect, useMemo, useRef, useState } from "react";
import type { Reading, Row } from "../../api/client";
import { OppositeSwitch } from "../OppositeSwitch";
import { useOpposite } from "../useOpposite";
import { useWidth } from "../useWidth";
import { fold } from "./fold";
import { Grips } from "./Grip";
import { type Geometry, geometry, sameGeometry } from "./geometry";
import { RailRow, type Words } from "./RailRow";
import { useCursor } from "./useCursor";

/** A bar of each leg; what a teacher looks at first, because legs then stand under one another. */
type View = number | "all" | "stations";

const WORDS: [Words, string][] = [
  ["count", "count words"],
  ["pitch", "note names"],
  ["sounds", "note names as they sound"],
  ["group", "both counts: the group’s and the bar’s"],
];

const NO_KEYS = {};
/** Rows drawn above and below what is in sight. */
const SPARE = 2;

type Props = {
  reading: Reading;
  /** Where places can be pressed: what happens with the one of this number. */
  onPress?: ((event: number) => void) | undefined;
  /** Where the click can be pressed: what happens with the one at the event of this number. */
  onClick?: ((event: number) => void) | undefined;
  /** What a letter does with the place in hand. */
  byKey?: Readonly<Record<string, (event: number) => void>> | undefined;
  /** Where grips can be pressed: what happens with the one of this number. */
  onGrip?: ((grip: number) => void) | undefined;
  /** Numbers of the notes whose stroke turned round by the last change. */
  turned?: ReadonlySet<number> | undefined;
};

/** The picture of a drill: legs stacked so that beats line up, one bar of each leg or all of them. */
export const Rail = memo(function Rail({ reading, onPress, onClick, byKey, onGrip, turned }: Props) {
  const { stations } = reading;
  const [chosen, setView] = useState<View | null>(null);
  // A walk is all of its stations, side by side, until someone wants something else.
  const view =
    chosen === null || (chosen === "stations" && !stations.length)
      ? stations.length
        ? "stations"
        : 1
      : chosen;
  const [opposite] = useOpposite();
  const [words, setWords] = useState<Words>("count");
  const hasPitch = reading.rows.some((row) => row.events.some((event) => event.pitch !== null));
  const [box, width] = useWidth<HTMLDivElement>();
  const [top, setTop] = useState(0);
  const bars = useMemo(() => inLegs(reading.rows), [reading.rows]);
  const most = Math.max(...bars.map((leg) => leg.length));
  const shown = useMemo(
    () =>
      fold(
        view === "all"
          ? reading.rows
          : view === "stations"
            ? reading.rows.filter((row) => row.leg === 0 && stations.includes(row.bar))
            : bars.flatMap((leg) => leg[Math.min(view, most) - 1] ?? []),
      ),
    [reading.rows, bars, most, view, stations],
  );
  const hasGroups = reading.rows.some((row) => row.groups.length > 0);
  const transposes = reading.rows.some((row) => row.events.some((event) => event.sounds !== null));
  const has = { count: true, pitch: hasPitch, sounds: transposes, group: hasGroups };
  const offered = WORDS.filter(([kind]) => has[kind]);
  const above = offered.some(([kind]) => kind === words) ? words : "count";
  const lastPlace = useRef<Geometry | null>(null);
  const place = useMemo(() => {
    const options = { secondLine: above === "group", strings: reading.strings };
    const now = geometry(reading.rows, reading.beats_a_bar, width, options);
    lastPlace.current = sameGeometry(lastPlace.current, now);
    return lastPlace.current;
  }, [reading, width, above]);
  const cursor = useCursor(shown, onPress, byKey ?? NO_KEYS);
  const height = place.height + 8;
  const inSight = Math.ceil(520 / height) + SPARE;
  const first = Math.max(0, Math.floor(top / height) - SPARE);
  const section = useRef<HTMLElement>(null);
  // Whatever is in hand is in sight.
  useEffect(() => {
    const view = section.current;
    if (!view || cursor.at === null) return;
    const [y, x] = [cursor.line * height, place.x(cursor.x)];
    if (y < view.scrollTop || y + height > view.scrollTop + view.clientHeight) view.scrollTop = y;
    if (x < view.scrollLeft + place.gutter || x + 20 > view.scrollLeft + view.clientWidth)
      view.scrollLeft = x - view.clientWidth / 2;
  }, [cursor.at, cursor.line, cursor.x, height, place]);
  return (
    <div className={`card-plain ${opposite ? "from-opposite" : ""}`}>
      <div ref={box} />
      <section
        ref={section}
        className="overflow-auto max-h-130 relative"
        aria-label="The rail: arrow keys go from note to note"
        onKeyDown={cursor.onKeyDown}
        onBlur={cursor.leave}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached from the keyboard
        tabIndex={0}
        onScroll={(event) => setTop(event.currentTarget.scrollTop)}
      >
        <div className="relative" style={{ height: shown.length * height, width: place.width }}>
          {width > 0 &&
            shown.slice(first, first + inSight + 2 * SPARE).map(({ row, times }, index) => (
              <div key={row.first} className="absolute left-0" style={{ top: (first + index) * height }}>
                <RailRow
                  row={row}
                  division={reading.legs[row.leg]?.division ?? ""}
                  left={reading.legs[row.leg]?.left}
                  saysHolds={reading.says_holds}
                  place={place}
                  words={above}
                  at={cursor.at}
                  turned={turned}
                  onPress={onPress}
                  onClick={onClick}
                  barLabel={times > 1 ? `bar ${row.bar}, × ${times}` : `bar ${row.bar}`}
                />
              </div>
            ))}
        </div>
      </section>
      <p className="sr-only" aria-live="polite">
        {cursor.words}
      </p>
      <Grips grips={reading.shapes} onPress={onGrip} />
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 mt-1">
        {most > 1 && (
          <BarPicker most={most} view={view} hasStations={stations.length > 0} onChange={setView} />
        )}
        {offered.length > 1 && (
          <label className="flex items-center gap-2 text-soft">
            with
            <select
              className="brief-word"
              aria-label="words above the pegs"
              value={above}
              onChange={(event) => setWords(event.target.value as Words)}
            >
              {offered.map(([kind, name]) => (
                <option key={kind} value={kind}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
        <OppositeSwitch />
        <Legend reading={reading} turned={(turned?.size ?? 0) > 0} />
        {reading.count && !reading.two_hands && (
          <p className="text-soft text-sm basis-full">
            As a count: <span className="text-base-content select-all">{reading.count}</span>
            {reading.rows.some((row) => row.bar > 4) && " …"}
          </p>
        )}
      </div>
    </div>
  );
});

function inLegs(rows: readonly Row[]): Row[][] {
  const legs: Row[][] = [];
  for (const row of rows) {
    const leg = legs[row.leg] ?? [];
    legs[row.leg] = leg;
    leg.push(row);
  }
  return legs;
}

type PickerProps = { most: number; view: View; hasStations: boolean; onChange: (view: View) => void };

function BarPicker({ most, view, hasStations, onChange }: PickerProps) {
  return (
    <label className="flex items-center gap-2 text-soft">
      Showing
      <select
        className="brief-word"
        aria-label="bars shown"
        value={String(view)}
        onChange={({ target: { value } }) =>
          onChange(value === "all" || value === "stations" ? value : Number(value))
        }
      >
        {hasStations && <option value="stations">each station of the walk</option>}
        {Array.from({ length: Math.min(most, 64) }, (_, index) => (
          <option key={index} value={index + 1}>
            {index === 0 ? "the first bar of each leg" : `bar ${index + 1} of each leg`}
          </option>
        ))}
        <option value="all">every bar</option>
      </select>
    </label>
  );
}

function Legend({ reading, turned }: { reading: Reading; turned: boolean }) {
  const some = (is: (event: Row["events"][number]) => unknown) =>
    reading.rows.some((row) => row.events.some(is));
  const has = {
    groups: reading.rows.some((row) => row.groups.length > 0),
    breaths: reading.rows.some((row) => row.breaths.length > 0),
    clicks: reading.rows.some((row) => row.clicks.length > 0),
    rests: some((event) => event.kind === "rest" || event.kind === "air"),
    frets: reading.strings === 0 && some((event) => event.touch?.includes("·")),
    fingers: reading.strings === 0 && some((event) => event.touch && !event.touch.includes("·")),
    slurs: some((event) => event.slurred),
    air: some((event) => event.kind !== "note" && event.stroke),
    dead: some((event) => event.dead),
    hits: some((event) => event.hit !== null),
  };
  const two = reading.two_hands;
  return (
    <p className="text-soft text-sm">
      {two && "Up: right hand. Down: left hand. Through the line: together. "}
      Tall with a head: accent.{has.clicks && " ◆ click."}
      {has.groups && " Brackets: groups, numbered."}
      {has.breaths && " ’ breathe."}
      {has.rests && " Dashed: silence."}
      {has.air && " Hollow: in the air."}
      {has.dead && " ×: damped."}
      {has.hits && " ■ hit, □ light hit."}
      {turned && " Ringed: the stroke turned round."}
      {has.frets && " 5·3: string 5, fret 3."}
      {has.fingers && (two ? " Small figures: fingers." : " Numbers below: fingers.")}
      {reading.strings > 0 && " Under it the strings, the thickest below."}
      {has.slurs && " Bow: slurred."}
    </p>
  );
}
