"""A leg as it would go on: laid again and again by the same cursor, for whatever comes home later than the leg ends."""

from collections.abc import Callable, Iterator
from fractions import Fraction
from itertools import chain

from ripresa.core.grid import Cursor, LegReading, Place, Slot, slot_numbers
from ripresa.core.reading.reading import Reading

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


def rounds(reading: Reading, leg: LegReading) -> Iterator[list[Place]]:
    """Yield the places of a leg, round after round, without end.

    A round is what lies between two moments at which the divisions, or a rhythm of its own, begin anew at the same
    place in the bar. Where the divisions give the rhythm they go on and on; a rhythm that the material brings is
    played again with the seam that follows it.
    """
    cursor = Cursor(reading.meter, reading.drill.swing)
    cursor.go_to(leg.start)
    turn = _own_turn(cursor, leg) if leg.rhythm else _division_turns(cursor, leg)
    while True:
        begin = _inside_bar(reading, cursor)
        found: list[Place] = []
        while not found or (_inside_bar(reading, cursor) != begin and len(found) <= FARTHEST_HOME):
            found += next(turn)
        yield found


def onward(reading: Reading, leg: LegReading) -> Iterator[Place]:
    """Yield the places of a leg as it would go on, without end."""
    return chain.from_iterable(rounds(reading, leg))


def _division_turns(cursor: Cursor, leg: LegReading) -> Iterator[list[Place]]:
    numbers = slot_numbers(leg.divisions)
    slots = sum(division.numerator for division in leg.divisions)
    while True:
        yield [place for _ in range(slots) for place in cursor.lay(leg.index, Slot(*next(numbers)))]


def _own_turn(cursor: Cursor, leg: LegReading) -> Iterator[list[Place]]:
    while True:
        start = cursor.at
        found = [place for slot in leg.rhythm for place in cursor.lay(leg.index, slot)]
        left = max(Fraction(0), leg.beats - (cursor.at - start))
        found += cursor.fill(leg.index, leg.rhythm[0].division, left, "rest")
        yield found


def _inside_bar(reading: Reading, cursor: Cursor) -> tuple[int, int, Fraction]:
    return reading.meter.phase(cursor.at)
