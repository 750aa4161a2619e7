/** What the server sends in tables, as rows again: column by column it is a quarter of the signs. */
import type { components } from "./schema";
import defaults from "./tables.json";

type Schemas = components["schemas"];
type Packed = unknown[] | Schemas["Distinct"] | Schemas["CountedFrom"];
type Table = { rows: number };
type Named = keyof typeof defaults;

/** One row of a table. */
export type RowOf<Name extends Named> = {
  [Column in Exclude<keyof Schemas[Name], "rows">]-?: Extract<
    NonNullable<Schemas[Name][Column]>,
    readonly unknown[]
  >[number];
};

type Replaced<Shape, By> = Omit<Shape, keyof By> & By;

export type Event = RowOf<"EventTable">;
export type Row = Replaced<
  Schemas["RowShape"],
  {
    bays: RowOf<"BayTable">[];
    events: Event[];
    clicks: RowOf<"ClickTable">[];
    groups: RowOf<"GroupTable">[];
    other: Event[];
    /** The row in words, for a person who listens. */
    words: string;
  }
>;
export type Reading = Replaced<Schemas["ReadingShape"], { rows: Row[] }>;
/** A drill in seconds. */
export type Score = Replaced<
  Schemas["ScoreShape"],
  {
    bars: RowOf<"BarSpanTable">[];
    tones: RowOf<"TimedToneTable">[];
    ticks: RowOf<"TimedTickTable">[];
    pulse: RowOf<"PulseTickTable">[];
    backing: RowOf<"BackToneTable">[];
    said: RowOf<"TimedSaidTable">[];
  }
>;

/** The rows of the last reading by what was sent of them: a row that did not change stays the very same row. */
let known = new Map<string, Row>();

export function unpackReading(sent: Schemas["ReadingShape"]): Reading {
  const now = new Map<string, Row>();
  const rows = sent.rows.map((one) => {
    const key = JSON.stringify(one);
    const row = known.get(key) ?? unpackRow(one);
    now.set(key, row);
    return row;
  });
  known = now;
  return { ...sent, rows };
}

export function unpackRow(sent: Schemas["RowShape"]): Row {
  const events = unpack("EventTable", sent.events);
  const other = unpack("EventTable", sent.other);
  return {
    ...sent,
    bays: unpack("BayTable", sent.bays),
    events,
    clicks: unpack("ClickTable", sent.clicks),
    groups: unpack("GroupTable", sent.groups),
    other,
    words: other.length ? `right hand: ${said(events)}; left hand: ${said(other)}` : said(events),
  };
}

export function unpackScore(sent: Schemas["ScoreShape"]): Score {
  return {
    ...sent,
    bars: unpack("BarSpanTable", sent.bars),
    tones: unpack("TimedToneTable", sent.tones),
    ticks: unpack("TimedTickTable", sent.ticks),
    pulse: unpack("PulseTickTable", sent.pulse),
    backing: unpack("BackToneTable", sent.backing),
    said: unpack("TimedSaidTable", sent.said),
  };
}

/** The rows of a table: what is not sent is its default, what is sent once is so in all rows, or counts from there. */
export function unpack<Name extends Named>(name: Name, table: Table & Schemas[Name]): RowOf<Name>[] {
  const { rows, ...sent } = table as Table & Record<string, unknown>;
  const fresh: Record<string, unknown> = { ...defaults[name] };
  const columns: [string, (row: number) => unknown][] = [];
  for (const [column, values] of Object.entries(sent)) {
    if (Array.isArray(values) && values.length === 1) fresh[column] = values[0];
    else columns.push([column, reader(values as Packed)]);
  }
  return Array.from({ length: rows }, (_, row) => {
    const found = { ...fresh };
    for (const [column, read] of columns) found[column] = read(row);
    return found as RowOf<Name>;
  });
}

function reader(values: Packed): (row: number) => unknown {
  if (Array.isArray(values)) return (row) => values[row];
  if ("from" in values) return (row) => values.from + row;
  return (row) => values.of[values.at[row] ?? 0];
}

const said = (events: readonly Event[]) => events.map((event) => event.words).join(", ");
