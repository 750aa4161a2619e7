"""The shape of a reading: rows for the rail, and the sums column, at a tempo."""

from bisect import bisect_left
from collections.abc import Iterator, Sequence
from fractions import Fraction
from itertools import groupby

from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.changes import is_pressable
from ripresa.core.drill.click import ClickLevel
from ripresa.core.drill.material import own_rhythm
from ripresa.core.exact import decimal, label, plural, short
from ripresa.core.grid import Event
from ripresa.core.reading import Reading, count_text
from ripresa.core.reports import breath_marks, click_report, closest_told, paragraphs, peak_of, sums, warnings, working
from ripresa.core.rhythm import Level, SlotKind
from ripresa.web.shapes.sums import (
    GearShape,
    HomeShape,
    LegShape,
    TwinShape,
    gear_shape,
    home_shape,
    leg_shapes,
)

#: Bars that are shown as a count; a longer drill is known by its first bars.
MOST_BARS_COUNTED = 4
#: How a note of the second layer is drawn.
_SECOND = "●"


class EventShape(BaseModel):
    """One event; ``x`` and ``width`` in beats from the start of its row."""

    x: float
    width: float
    beat: int
    slot: int
    count: str
    kind: SlotKind
    pitch: str | None
    chord: str | None
    stroke: str | None
    touch: str | None
    in_group: int | None
    slurred: bool
    accent: Level
    group: int | None
    words: str


class BayShape(BaseModel):
    """One beat of a row, in beats from its start."""

    x: float
    width: float


class ClickShape(BaseModel):
    """A click in a row, in beats from its start."""

    x: float
    level: ClickLevel


class GroupShape(BaseModel):
    """A bracket over a group, or the part of it that lies in this row; number from 1."""

    x: float
    end: float
    number: int


class MarkShape(BaseModel):
    """A word under the rail, at a place in beats from the start of its row."""

    x: float
    word: str


class LineShape(BaseModel):
    """A line under the rail: a second layer, or the body."""

    name: str
    marks: list[MarkShape]


class RowShape(BaseModel):
    """One bar of one leg.

    ``first`` is the index in the reading of its first event; ``words`` says
    the row to a person who listens.
    """

    leg: int
    bar: int
    first: int
    bays: list[BayShape]
    events: list[EventShape]
    clicks: list[ClickShape]
    groups: list[GroupShape]
    breaths: list[float]
    lines: list[LineShape]
    words: str


class ReadingShape(BaseModel):
    """All that Bench and Stand draw of a drill at a tempo.

    ``own_rhythm``: whether its material brings its own divisions; ``has_closing``: whether it has a closing tonic;
    ``pressable``: whether notes can be pressed on and off on the rail.
    """

    bpm: str
    own_rhythm: bool
    has_closing: bool
    pressable: bool
    sign: str
    sign_name: str
    meter: str
    beats_a_bar: float
    rows: list[RowShape]
    legs: list[LegShape]
    extent: str
    bars_said: str
    notes: int
    beats: str
    bars: str
    seconds: str
    peak_nps: str
    average_nps: str
    closest: str
    working: str
    gears: list[GearShape]
    twins: list[TwinShape]
    homes: list[HomeShape]
    count: str
    click: list[str]
    warnings: list[str]


def reading_shape(reading: Reading, bpm: Fraction) -> ReadingShape:
    """Return the shape of a reading at a tempo."""
    found = sums(reading, bpm)
    breaths = breath_marks(reading, bpm)
    return ReadingShape(
        bpm=label(bpm),
        own_rhythm=own_rhythm(reading.drill.material),
        has_closing=any(leg.has_closing for leg in reading.legs),
        pressable=is_pressable(reading.drill),
        sign=reading.meter.sign,
        sign_name=reading.meter.counted_name,
        meter=reading.meter.name,
        beats_a_bar=float(max(bar.length for bar in reading.meter.bars)),
        rows=list(_rows(reading, breaths)),
        legs=leg_shapes(found),
        extent=f"{plural(found.beats, 'beat')}, {plural(found.bars, 'bar')}, {plural(found.notes, 'note')}",
        bars_said=plural(found.bars, "bar"),
        notes=found.notes,
        beats=label(found.beats),
        bars=label(found.bars),
        seconds=decimal(found.seconds, 1),
        peak_nps=short(found.speeds.peak_nps),
        average_nps=short(found.speeds.average_nps),
        closest=closest_told(reading, bpm),
        working=working(bpm, peak_of(reading)),
        gears=[gear_shape(change) for change in found.gears],
        twins=[TwinShape(division=label(division), bpm=label(tempo)) for division, tempo in found.twins],
        homes=[home_shape(told) for told in paragraphs(reading, found, bpm)],
        count=count_text(event for event in reading.events if event.bar <= MOST_BARS_COUNTED) or "",
        click=list(click_report(reading.click_cycle, reading.meter, bpm)),
        warnings=list(warnings(reading)),
    )


def _rows(reading: Reading, breathed: Sequence[Event]) -> Iterator[RowShape]:
    meter = reading.meter
    breaths = {event.onset for event in breathed}
    clicks = _clicks_by_bar(reading)
    second = tuple((onset, _SECOND) for onset in reading.second)
    under = [(name, marks) for name, marks in (("second layer", second), ("body", reading.body)) if marks]
    indexed = enumerate(reading.events)
    for (leg, bar), inside in groupby(indexed, key=lambda pair: (pair[1].leg, pair[1].bar)):
        pairs = list(inside)
        start, laid = meter.bar_start(bar), meter.bar(bar)
        events = [event for _, event in pairs]
        end = events[-1].onset + events[-1].length
        shapes = [_event(event, start, breaths) for event in events]
        yield RowShape(
            leg=leg,
            bar=bar,
            first=pairs[0][0],
            bays=[
                BayShape(x=float(at), width=float(length))
                for at, length in zip(laid.beat_starts(), laid.beats, strict=True)
            ],
            events=shapes,
            clicks=[
                ClickShape(x=float(onset - start), level=level)
                for onset, level in clicks.get(bar, ())
                if events[0].onset <= onset < end
            ],
            groups=_groups(reading, events, start),
            breaths=[float(event.onset - start) for event in events if event.onset in breaths],
            lines=[LineShape(name=name, marks=_marks(marks, events, start)) for name, marks in under],
            words=", ".join(shape.words for shape in shapes),
        )


def _marks(marks: tuple[tuple[Fraction, str], ...], events: list[Event], start: Fraction) -> list[MarkShape]:
    """Return the marks that lie in a row; they are in order, so that a row is found by its edges."""
    end = events[-1].onset + events[-1].length
    first = bisect_left(marks, events[0].onset, key=lambda mark: mark[0])
    after = bisect_left(marks, end, key=lambda mark: mark[0])
    return [MarkShape(x=float(at - start), word=word) for at, word in marks[first:after]]


def _clicks_by_bar(reading: Reading) -> dict[int, list[tuple[Fraction, ClickLevel]]]:
    found: dict[int, list[tuple[Fraction, ClickLevel]]] = {}
    for onset, level in reading.click_cycle.within(reading.beats):
        found.setdefault(reading.meter.place(onset)[0], []).append((onset, level))
    return found


def _event(event: Event, start: Fraction, breaths: set[Fraction]) -> EventShape:
    return EventShape(
        x=float(event.onset - start),
        width=float(event.length),
        beat=event.beat,
        slot=event.slot,
        count=event.count,
        kind=event.kind,
        pitch=event.pitch.shown if event.pitch else None,
        chord=event.chord.symbol if event.chord else None,
        stroke=event.stroke,
        touch=event.touch.shown if event.touch else None,
        in_group=event.in_group,
        slurred=event.slurred,
        accent=event.accent,
        group=event.group,
        words=_said(event, breaths),
    )


def _groups(reading: Reading, events: list[Event], start: Fraction) -> list[GroupShape]:
    found = []
    divisions = reading.legs[events[0].leg].divisions
    crosses = _crosses(reading, divisions)
    # Where accents make groups, these are what is looked for; else the statements of a line.
    numbered = [(event.group if crosses else event.statement, event) for event in events if event.kind == "note"]
    for number, inside in groupby(numbered, key=lambda pair: pair[0]):
        members = [event for _, event in inside]
        if number is None:
            continue
        last = members[-1]
        found.append(
            GroupShape(
                x=float(members[0].onset - start), end=float(last.onset + last.length - start), number=number + 1
            )
        )
    return found


def _crosses(reading: Reading, divisions: tuple[Fraction, ...]) -> bool:
    size = getattr(reading.drill.accents, "size", 0)
    return bool(size) and any(division % size != 0 for division in divisions)


def _said(event: Event, breaths: set[Fraction]) -> str:
    """Return an event in words, for a person who listens."""
    if event.kind != "note":
        return f"{event.count} {event.kind}"
    parts = (
        "breathe" if event.onset in breaths else "",
        event.count,
        event.pitch.shown if event.pitch else "",
        event.chord.symbol if event.chord else "",
        event.stroke or ("slurred" if event.slurred else ""),
        event.touch.words if event.touch else "",
        event.accent if event.accent != "plain" else "",
    )
    return " ".join(part for part in parts if part)
