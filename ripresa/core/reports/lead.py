"""The lead: which hand or direction starts each beat of a leg, and when that comes round again."""

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import accumulate, islice
from math import lcm

from ripresa.core.drill.hands import Articulated, ByOrder, ByPlace
from ripresa.core.grid import Event, LegReading, Place
from ripresa.core.reading import FARTHEST_HOME, Reading, rounds, unlike_legs, unreduced


@dataclass(frozen=True, slots=True)
class LeadHome:
    """When the lead of a leg comes home.

    Args:
        beats: Beats of the meter after which every beat starts as it did; 1 where each starts alike. None where
            nothing starts a beat, or it takes too long to be looked for.
        bars: Bars after which it is so on a bar line.
        starts: What starts each beat until then; None where nothing does.
    """

    leg: LegReading
    beats: int | None
    bars: int | None
    starts: tuple[str | None, ...]


def lead_homes(reading: Reading) -> tuple[LeadHome, ...]:
    """Return when the lead comes home, for each leg that is laid in another way; nothing where no law leads."""
    hands = reading.drill.hands
    # An ornament by hand stands on one place and shifts what follows: such a lead never comes round.
    if not isinstance(hands, Articulated | ByOrder | ByPlace) or reading.drill.ornaments:
        return ()
    law = _law(unreduced(reading), hands)
    return tuple(_home(reading, leg, law(leg)) for leg in unlike_legs(reading, law))


Law = Articulated | ByOrder | ByPlace


def _law(reading: Reading, hands: Law) -> Callable[[LegReading], Law]:
    """Return the law of a leg as its first note meets it: where it runs on, it has come somewhere by then."""
    played: Counter[int] = Counter()
    first_of: dict[int, Event] = {}
    for event in reading.events:
        played[event.leg] += event.kind == "note"
        if event.stroke:
            first_of.setdefault(event.leg, event)
    before = list(accumulate((played[leg.index] for leg in reading.legs), initial=0))

    def law(leg: LegReading) -> Law:
        if isinstance(hands, Articulated):
            return replace(hands, pattern=hands.of_leg(leg.index))
        if isinstance(hands, ByOrder) and hands.restart == "never":
            turn = before[leg.index] % len(hands.cycle)
            return replace(hands, cycle=hands.cycle[turn:] + hands.cycle[:turn])
        if isinstance(hands, ByPlace) and hands.odd == "through" and leg.index:
            # What lies before says which way the arm comes down first; even divisions go by their slots alone.
            first = first_of.get(leg.index)
            if first is not None and first.division.numerator % 2 and first.stroke == _UNDER[hands.lead]:
                return replace(hands, lead="up" if hands.lead == "down" else "down")
        return hands

    return law


#: The stroke that an arm does not begin with.
_UNDER = {"down": "U", "up": "D"}


def _home(reading: Reading, leg: LegReading, hands: Law) -> LeadHome:
    # After as many rounds as the cycle has symbols it stands where it stood, whatever a round holds; an arm that
    # alternates through threes may fall into another swing after the first round, which is seen in the fourth.
    cycle = 4 if isinstance(hands, ByPlace) else len(_cycle(hands, leg))
    if not cycle:
        # One slur over all of it: nothing goes round.
        return LeadHome(leg, None, None, ())
    places: list[Place] = []
    for one in islice(rounds(reading, leg), cycle):
        places += one
        if len(places) > FARTHEST_HOME:
            return LeadHome(leg, None, None, ())
    meter = reading.meter
    last = places[-1]
    first, end = meter.beats_passed(leg.start), meter.beats_passed(last.onset + last.length)
    starts: list[str | None] = [None] * int(end - first)
    for place, stroke in zip(places, hands.strokes(places), strict=True):
        if place.kind == "note" and not meter.to_beat(place.onset):
            starts[int(meter.beats_passed(place.onset) - first)] = stroke
    if not any(starts):
        return LeadHome(leg, None, None, ())
    lengths = (one for one in _divisors(len(starts)) if starts == starts[:one] * (len(starts) // one))
    beats = next(lengths)
    if beats == len(starts) and isinstance(hands, ByPlace):
        return LeadHome(leg, None, None, ())
    # Bars that take turns come home together.
    per_turn, turns = meter.cycle_count, len(meter.bars)
    return LeadHome(leg, beats, lcm(beats, per_turn) // per_turn * turns, tuple(starts[:beats]))


def _cycle(hands: Articulated | ByOrder, leg: LegReading) -> tuple[str, ...]:
    return hands.cycle if isinstance(hands, ByOrder) else hands.cycle_of(leg.index)


def _divisors(number: int) -> list[int]:
    return [one for one in range(1, number + 1) if number % one == 0]
