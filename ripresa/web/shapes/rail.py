"""The shape of the rail: a row for each bar of each leg, with all that is drawn in it."""

from bisect import bisect_left
from collections.abc import Iterable, Iterator, Sequence
from itertools import accumulate, chain, groupby, islice

from msgspec.structs import replace

from ripresa.core.drill.click import ClickLevel
from ripresa.core.exact import Fraction
from ripresa.core.grid import ORNAMENTS, Event
from ripresa.core.reading import Reading
from ripresa.core.reports import sounding_pitch
from ripresa.core.rhythm import Level, SlotKind, count_word
from ripresa.web.shapes.sent import Sent
from ripresa.web.shapes.table import Table

#: How a note of the second layer is drawn.
_SECOND = "●"
#: How a hit is drawn, full or light.
_FULL, _LIGHT = "■", "□"


class StringShape(Sent, frozen=True):
    """A string that sounds: its number from 1, the thinnest, its fret, and the finger that plays it."""

    string: int
    fret: int
    finger: str


class EventShape(Sent, frozen=True):
    """One event; ``x`` and ``width`` in beats from the start of its row."""

    x: float
    width: float
    beat: int
    slot: int
    count: str
    words: str
    kind: SlotKind = "note"
    pitch: str | None = None
    chord: str | None = None
    stroke: str | None = None
    touch: str | None = None
    in_group: int | None = None
    slurred: bool = False
    accent: Level = "plain"
    strings: tuple[StringShape, ...] = ()
    dead: bool = False
    ornament: str | None = None
    sounds: str | None = None
    hit: str | None = None


class BayShape(Sent, frozen=True):
    """One beat of a row, in beats from its start."""

    x: float
    width: float


class ClickShape(Sent, frozen=True):
    """A click in a row, in beats from its start."""

    x: float
    level: ClickLevel


class GroupShape(Sent, frozen=True):
    """A bracket over a group, or the part of it that lies in this row; number from 1."""

    x: float
    end: float
    number: int


class MarkShape(Sent, frozen=True):
    """A word under the rail, at a place in beats from the start of its row."""

    x: float
    word: str


class LineShape(Sent, frozen=True):
    """A line under the rail: a second layer, or the body."""

    name: str
    marks: list[MarkShape]


class RowShape(Sent, frozen=True):
    """One bar of one leg.

    ``first`` is the index in the reading of its first event; ``is_counted`` whether the count has entered. ``other``
    are the events of the left hand under it, from the index ``other_first`` on.
    """

    leg: int
    bar: int
    first: int
    bays: Table[BayShape]
    events: Table[EventShape]
    clicks: Table[ClickShape]
    groups: Table[GroupShape]
    breaths: list[float]
    lines: list[LineShape]
    other: Table[EventShape]
    other_first: int
    is_counted: bool


def row_shapes(
    reading: Reading, breathed: Sequence[Event], said: Sequence[tuple[Fraction, str]] = ()
) -> Iterator[RowShape]:
    """Yield a row for each bar of each leg.

    Args:
        breathed: The notes before which to breathe. said: (onset, word) of the voice row.
    """
    meter = reading.meter
    breaths = {event.onset for event in breathed}
    clicks = _clicks_by_bar(reading)
    layers = [(name, marks) for name, marks in _layers(reading, said) if marks]
    indexed = enumerate(reading.events)
    others = _others(reading)
    for (leg, bar), inside in groupby(indexed, key=lambda pair: (pair[1].leg, pair[1].bar)):
        pairs = list(inside)
        start, laid = meter.bar_start(bar), meter.bar(bar)
        events = [event for _, event in pairs]
        end = events[-1].onset + events[-1].length
        other_first, left = others.get((leg, bar), (0, []))
        yield RowShape(
            leg=leg,
            bar=bar,
            first=pairs[0][0],
            bays=Table(map(BayShape, map(float, laid.beat_starts()), map(float, laid.beats))),
            events=Table(_event(reading, event, start, breaths) for event in events),
            clicks=Table(
                ClickShape(float(onset - start), level)
                for onset, level in clicks.get(bar, ())
                if events[0].onset <= onset < end
            ),
            groups=Table(_groups(reading, events, start)),
            breaths=[float(event.onset - start) for event in events if event.onset in breaths] if breaths else [],
            lines=[LineShape(name=name, marks=_marks(marks, events, start)) for name, marks in layers],
            other=Table(_event(reading, event, start, set()) for event in left),
            other_first=other_first,
            is_counted=bar >= reading.drill.enters.count,
        )


#: So many beats tell a drill from others.
_MOST_SPECIAL = 8


def special_row(reading: Reading) -> RowShape:
    """Return what tells a drill from others, as one row: a beat of each stage, or all of the first bar of one stage."""
    rows = row_shapes(reading, ())
    if len(reading.legs) < 2:
        return next(rows)
    stages = groupby(rows, key=lambda row: row.leg)
    firsts = [next(inside) for _, inside in islice(stages, _MOST_SPECIAL)]
    widths = [row.bays[0].width for row in firsts]
    starts = list(accumulate(widths[:-1], initial=0.0))

    def beat(events: Iterable[EventShape], at: float, width: float) -> list[EventShape]:
        return [replace(event, x=event.x + at) for event in events if event.x < width]

    parts = list(zip(firsts, starts, widths, strict=True))
    return replace(
        firsts[0],
        bays=Table(BayShape(x=at, width=width) for _, at, width in parts),
        events=Table(chain.from_iterable(beat(row.events, at, width) for row, at, width in parts)),
        other=Table(chain.from_iterable(beat(row.other, at, width) for row, at, width in parts)),
        clicks=Table(()),
        groups=Table(()),
        lines=[],
        breaths=[],
    )


def _layers(
    reading: Reading, said: Sequence[tuple[Fraction, str]]
) -> Iterator[tuple[str, tuple[tuple[Fraction, str], ...]]]:
    """Yield the rows under the pegs, in the order in which they enter."""
    yield "second layer", tuple((onset, _SECOND) for onset in reading.second)
    yield "hits", tuple((onset, _LIGHT if light else _FULL) for onset, light in reading.hits)
    rows = {"foot": reading.foot, "count": tuple(said), "movement": reading.body}
    names = {"foot": "foot", "count": "voice", "movement": "body"}
    for entering, _ in reading.drill.enters.order:
        if entering in rows:
            yield names[entering], rows[entering]


def _others(reading: Reading) -> dict[tuple[int, int], tuple[int, list[Event]]]:
    """Return the events of the left hand by leg and bar, with the index in the reading of the first of each."""
    found: dict[tuple[int, int], tuple[int, list[Event]]] = {}
    for index, event in enumerate(reading.other, start=len(reading.events)):
        found.setdefault((event.leg, event.bar), (index, []))[1].append(event)
    return found


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


def _event(reading: Reading, event: Event, start: Fraction, breaths: set[Fraction]) -> EventShape:
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
        words=_said(event, event.onset in breaths if breaths else False),
        strings=_plucked(event) if event.how.plucks else (),
        dead=event.how.dead,
        ornament=ORNAMENTS[event.how.ornament][1] if event.how.ornament else None,
        hit=event.hit,
        sounds=sounding_pitch(reading, event.pitch).shown if event.pitch and reading.instrument.sounds % 12 else None,
    )


def _finger(event: Event) -> str:
    """Return the finger of the left hand, where the material is about that."""
    return str(event.touch.finger) if event.touch and not event.chord else ""


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


def _plucked(event: Event) -> tuple[StringShape, ...]:
    return tuple(StringShape(one.string, one.fret, one.finger or _finger(event)) for one in event.how.plucks)


def _said(event: Event, is_breathed: bool) -> str:
    """Return an event in words, for a person who listens."""
    # Where nothing is said aloud, who listens hears the place all the same.
    counted = event.count or count_word(event.division, event.beat, event.slot, event.span)
    if event.kind != "note":
        return f"{counted} {event.kind}"
    parts = (
        "breathe" if is_breathed else "",
        counted,
        event.pitch.shown if event.pitch else "",
        event.chord.symbol if event.chord else "",
        event.stroke or ("slurred" if event.slurred else ""),
        event.touch.words if event.touch else "",
        ORNAMENTS[event.how.ornament][0] if event.how.ornament else "damped" if event.how.dead else "",
        event.accent if event.accent != "plain" else "",
        f"{event.hit} hit" if event.hit else "",
    )
    return " ".join(part for part in parts if part)
