"""Endings: where a line is over, what is missing to the next 1, and how it goes through chords."""

from bisect import bisect_left
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise, takewhile

from ripresa.core.drill import Leg
from ripresa.core.drill.material import Line
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event, LegReading, Place, chord_at, parse_progression
from ripresa.core.pitch import Chord
from ripresa.core.reading import FARTHEST_HOME, Bars, Reading, lay, slots_on
from ripresa.core.reports.groups import Start, end_of, start_of

#: Two tones are a step apart up to a whole tone.
_STEP = 2


@dataclass(frozen=True, slots=True)
class Ending:
    """Where a pass is over.

    Args:
        end: Where what follows it stands.
        missing: Slots from there to the next 1, as the divisions go on; 0 on it.
    """

    end: Start
    missing: int


@dataclass(frozen=True, slots=True)
class Entries:
    """How a line that is played again and again enters.

    Args:
        second: Where its second statement enters.
        bars, statements: Until it enters as it did at first, its divisions anew.
        on_beats: Whether it always enters on a beat.
    """

    second: Start
    bars: Fraction
    statements: int
    on_beats: bool


@dataclass(frozen=True, slots=True)
class Landing:
    """How a line lies on one leg.

    Args:
        slots: Its length. enters: Where it begins. ending: Where it is over.
        entries: How it enters again and again; None where it always enters on the same place, or far too late.
        doubled: Where it is over at twice the division; None where it would be too fine.
    """

    leg: LegReading
    slots: int
    enters: Start
    ending: Ending
    entries: Entries | None
    doubled: Ending | None


@dataclass(frozen=True, slots=True)
class Statement:
    """How a statement lies on its chord.

    Args:
        chord: Its symbol. first, last: Its first and last pitch, in words.
        enters: Where it begins.
        on_root: Whether it starts on the root.
        cut: Notes of the line that do not fit on the chord.
        leads: Whether its last note goes by step, or stays, into a tone of the next chord; None at the end.
    """

    chord: str
    first: str
    last: str
    enters: Start
    on_root: bool
    cut: int
    leads: bool | None


def ending(reading: Bars, leg: LegReading) -> Ending:
    """Return where a leg's pass is over, and how many slots of its divisions are missing to the next 1."""
    return Ending(end_of(leg, reading.meter), _missing(reading, leg))


def landings(reading: Reading) -> Iterator[Landing]:
    """Yield how a line of the divisions lies on each leg that is laid in another way; nothing for other material."""
    line = reading.drill.material
    if not isinstance(line, Line) or line.rhythm != "legs" or reading.is_left:
        return
    different: dict[object, LegReading] = {}
    for leg in reading.legs:
        different.setdefault((leg.divisions, reading.meter.phase(leg.start)), leg)
    for leg in different.values():
        mine = (event for event in reading.events if event.leg == leg.index)
        first = next((event for event in mine if event.kind == "note"), None)
        if first is None:
            continue
        yield Landing(
            leg=leg,
            slots=int(line.length),
            enters=start_of(first, reading.meter),
            ending=ending(reading, leg),
            entries=None if line.through else _entries(reading, leg, line),
            doubled=None if line.through else _doubled(reading, leg, line),
        )


def statements(reading: Reading) -> tuple[Statement, ...]:
    """Return how each statement of a line through a progression lies on its chord, first leg alone; else nothing."""
    line = reading.drill.material
    if not isinstance(line, Line) or not line.through or reading.is_left:
        return ()
    spans = parse_progression(line.through, reading.meter)
    by_statement: dict[int, list[Event]] = {}
    for event in reading.notes:
        if event.leg == 0 and event.statement is not None and event.pitch:
            by_statement.setdefault(event.statement, []).append(event)
    groups = [(chord_at(spans, spans[number].start), events) for number, events in sorted(by_statement.items())]
    if not groups:
        # Nothing of it has a pitch.
        return ()
    whole = sum(not note.silent and note.tone is not None for note in line.played)
    leads = [_leads(before[-1], after[0], chord) for (_, before), (chord, after) in pairwise(groups)]
    return tuple(
        Statement(
            chord.shown,
            _shown(events[0]),
            _shown(events[-1]),
            start_of(events[0], reading.meter),
            _same_tone(events[0], chord),
            whole - len(events),
            lead,
        )
        for (chord, events), lead in zip(groups, [*leads, None], strict=True)
    )


def _missing(reading: Bars, leg: LegReading) -> int:
    """Return how many slots of a leg's divisions lie between the end of its pass and the next 1."""
    end = leg.start + leg.pass_beats
    line = end + reading.meter.to_bar_line(end)
    slot = slots_on(reading, leg, leg.divisions)
    return _first_from(slot, line) - _first_from(slot, end)


def _first_from(slot: Callable[[int], Place], position: Fraction) -> int:
    """Return the number of the first slot that does not begin before a position."""
    beyond = 1
    while slot(beyond).onset < position:
        beyond *= 2
    return bisect_left(range(beyond), position, key=lambda number: slot(number).onset)


def _entries(reading: Reading, leg: LegReading, line: Line) -> Entries | None:
    """Return how a line enters again and again, each statement right after the one before."""
    if line.around and any(line.shifts):
        return None
    length = int(line.length)
    before = _slots_before(leg, line)
    cycle = sum(division.numerator for division in leg.divisions)
    first: Fraction | None = None
    second: Start | None = None
    on_beats = True
    slot = slots_on(reading, leg, leg.divisions)
    for index in range(before, FARTHEST_HOME + 1, length):
        place = slot(index)
        on_beats = on_beats and not start_of(place, reading.meter).name
        if first is None:
            first = place.onset
            continue
        second = second or start_of(place, reading.meter)
        as_at_first = reading.meter.phase(place.onset) == reading.meter.phase(first)
        if as_at_first and (index - before) % cycle == 0:
            number = (index - before) // length
            bars = reading.meter.bars_passed(place.onset) - reading.meter.bars_passed(first)
            return Entries(second, bars, number, on_beats)
    return None


def _slots_before(leg: LegReading, line: Line) -> int:
    """Return the silent slots before a line that was moved, its own silence at the beginning left out."""
    silent = next((index for index, slot in enumerate(leg.rhythm) if slot.kind != "rest"), 0)
    own = sum((note.length for note in takewhile(lambda note: note.silent, line.played)), Fraction(0))
    return max(0, silent - int(own))


def _doubled(reading: Reading, leg: LegReading, line: Line) -> Ending | None:
    """Return where a line is over at twice the division."""
    try:
        twice = Leg(2 * leg.divisions[0], tuple(2 * division for division in leg.divisions[1:]))
        drill = replace(reading.drill, legs=(twice,), material=replace(line, after="open"))
        # Nobody hears it: where its legs lie is all that is asked.
        again = lay(drill)
    except RipresaError:
        # Too fine to be laid out.
        return None
    # Over before its hands enter, it is no drill.
    return ending(again, again.legs[0]) if again.places[-1].bar >= drill.enters.hands else None


def _leads(last: Event, following: Event, chord: Chord) -> bool:
    assert last.pitch
    assert following.pitch
    near = abs(following.pitch.midi - last.pitch.midi) <= _STEP
    return near and chord.holds(following.pitch)


def _same_tone(event: Event, chord: Chord) -> bool:
    return event.pitch is not None and (event.pitch.midi - chord.root.midi) % 12 == 0


def _shown(event: Event) -> str:
    return event.pitch.shown if event.pitch else ""
