"""A leg as it would go on: laid again and again by the same cursor, for whatever comes home later than the leg ends."""

from collections.abc import Callable, Iterator
from dataclasses import replace
from itertools import chain
from typing import Protocol

from ripresa.core.exact import Fraction
from ripresa.core.grid import Cursor, LegReading, Place, Slot, altered, slot_numbers
from ripresa.core.reading.reading import Reading
from ripresa.core.rhythm import Meter, Swing

#: So many slots are looked through for something that comes home; what comes later is said not to.
FARTHEST_HOME = 20_000


def unlike_legs(
    reading: Reading, told_apart_by: Callable[[LegReading], object] | None = None
) -> tuple[LegReading, ...]:
    """Return the legs that are laid in different ways, the first of those that are laid alike.

    The same divisions lie elsewhere where they begin at another place of the bar.

    Args:
        told_apart_by: What else makes two legs different; nothing else by default.
    """
    different: dict[object, LegReading] = {}
    for leg in reading.legs:
        way = (leg.divisions, leg.rhythm, reading.meter.phase(leg.start))
        different.setdefault((way, told_apart_by(leg)) if told_apart_by else way, leg)
    return tuple(different.values())


class Bars(Protocol):
    """What a leg goes on in: a reading, or a layout that nobody has to hear."""

    @property
    def meter(self) -> Meter: ...  # noqa: D102
    @property
    def swing(self) -> Swing: ...  # noqa: D102


def rounds(reading: Bars, leg: LegReading) -> Iterator[list[Place]]:
    """Yield the places of a leg, round after round, without end.

    A round is what lies between two moments at which the divisions, or a rhythm of its own, begin anew at the same
    place in the bar. Where the divisions give the rhythm they go on and on; a rhythm that the material brings is
    played again with the seam that follows it.
    """
    cursor = Cursor(reading.meter, reading.swing)
    cursor.go_to(leg.start)
    turn = _own_turn(cursor, leg) if leg.rhythm else _division_turns(cursor, leg)
    while True:
        begin, at, bar = _inside_bar(reading, cursor), cursor.at, cursor.bar
        found: list[Place] = []
        while not found or (_inside_bar(reading, cursor) != begin and len(found) <= FARTHEST_HOME):
            found += next(turn)
        yield found
        if _inside_bar(reading, cursor) == begin and _comes_alike(reading, leg):
            yield from _moved(found, cursor.at - at, cursor.bar - bar)


def _comes_alike(reading: Bars, leg: LegReading) -> bool:
    """Whether each round is the first, moved: all bars take turns, and nothing runs on from the round before."""
    return not reading.meter.head and (not leg.rhythm or leg.rhythm[0].number == 0)


def _moved(places: list[Place], beats: Fraction, bars: int) -> Iterator[list[Place]]:
    """Yield places again and again, each time so many beats and bars later."""
    while True:
        places = [altered(place, onset=place.onset + beats, bar=place.bar + bars) for place in places]
        yield places


def slots_on(reading: Bars, leg: LegReading, divisions: tuple[Fraction, ...]) -> Callable[[int], Place]:
    """Return how any slot of some divisions lies, from the start of a leg on and without end: by its number, from 0."""
    going = rounds(reading, replace(leg, divisions=divisions, rhythm=()))
    known = [place for place in next(going) if place.on_grid]
    ends = known[-1].onset + known[-1].span * reading.swing.share(known[-1].division, known[-1].slot)
    begins = known[0].onset
    comes_alike = not reading.meter.head and reading.meter.phase(ends) == reading.meter.phase(begins)
    count, beats, bars = len(known), ends - begins, reading.meter.place(ends)[0] - known[0].bar

    def slot(number: int) -> Place:
        if comes_alike:
            turns, index = divmod(number, count)
            found = known[index]
            return altered(found, onset=found.onset + turns * beats, bar=found.bar + turns * bars) if turns else found
        while number >= len(known):
            known.extend(place for place in next(going) if place.on_grid)
        return known[number]

    return slot


def onward(reading: Bars, leg: LegReading) -> Iterator[Place]:
    """Yield the places of a leg as it would go on, without end."""
    return chain.from_iterable(rounds(reading, leg))


def _division_turns(cursor: Cursor, leg: LegReading) -> Iterator[list[Place]]:
    numbers = slot_numbers(leg.divisions)
    slots = sum(division.numerator for division in leg.divisions)
    while True:
        yield [place for _ in range(slots) for place in cursor.lay(leg.index, Slot(*next(numbers)))]


def _own_turn(cursor: Cursor, leg: LegReading) -> Iterator[list[Place]]:
    meter = cursor.meter
    end = leg.start + leg.pass_beats
    beyond = leg.beats - leg.pass_beats - meter.to_bar_line(end)
    while True:
        start, bar = cursor.at, cursor.bar
        rhythm = leg.turns[(bar - 1) % len(leg.turns)] if leg.turns and not cursor.inside else leg.rhythm
        found = [place for slot in rhythm for place in cursor.lay(leg.index, slot)]
        left = max(Fraction(0), leg.beats - (cursor.at - start))
        if leg.turns and beyond >= 0:
            # It goes on to the bar line, wherever that is now, and over a bar's rest where it did.
            left = meter.to_bar_line(cursor.at)
            left += meter.bar(meter.place(cursor.at + left)[0]).length if beyond else 0
        found += cursor.fill(leg.index, leg.rhythm[0].division, left, "rest")
        yield found


def _inside_bar(reading: Bars, cursor: Cursor) -> tuple[int, int, Fraction]:
    return reading.meter.phase(cursor.at)
