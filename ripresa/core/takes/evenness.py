"""Evenness: how each division lies beside its limits, by its spread, its slots, and the swing of its pairs."""

from collections.abc import Iterator, Sequence
from itertools import accumulate
from math import sqrt

from ripresa.core.exact import division_label
from ripresa.core.takes.fault import HAND_WORDS, Checked, Fault, state_of
from ripresa.core.takes.figures import Figures, LegFigures
from ripresa.core.takes.limits import Limits

#: Crowding: the last share of a beat longer than the mean of the others by this part.
CROWDED = 0.25
#: A division is told from so many notes on, and is too near to call by itself from so many.
_FEWEST_IN_LEG, _OWN = 8, 16
#: What is longer by less beside its neighbour is straight.
_STRAIGHT = 1.2
#: Of a pair the first is no longer than this share of both.
_LONGEST = 0.95


def checked_legs(figures: Figures, limits: Limits) -> Iterator[Checked]:
    """Yield the spread and the slots of each division beside their limits."""
    legs = [leg for leg in figures.legs if leg.spread is not None and leg.spread.count >= _FEWEST_IN_LEG]
    slots = sum(slot.habit is not None for leg in legs for slot in leg.slots)
    is_even = _is_even(figures, legs, limits)
    for leg in legs:
        name = division_label(leg.division)
        if leg.spread is not None:
            limit = limits.of("spread").at(leg.gap)
            where = f"{name}, {HAND_WORDS[leg.hand]}" if leg.hand else name
            fault = Fault("spread", where, leg.spread.value, leg.spread.half_width, limit, division=name)
            state = state_of(leg.spread, limit, len(legs))
            yield Checked(fault, "inside" if state == "near" and leg.spread.count < _OWN and is_even else state)
        yield from _slots(leg, name, limits, max(1, slots))


def _is_even(figures: Figures, legs: Sequence[LegFigures], limits: Limits) -> bool:
    """Return whether all divisions together lie inside: that is said where a division has too few notes of its own."""
    if figures.spread is None or not legs:
        return False
    counts = [leg.spread.count if leg.spread else 0 for leg in legs]
    squares = [count * limits.of("spread").at(leg.gap) ** 2 for count, leg in zip(counts, legs, strict=True)]
    return state_of(figures.spread, sqrt(sum(squares) / max(1, sum(counts)))) == "inside"


def _slots(leg: LegFigures, name: str, limits: Limits, family: int) -> Iterator[Checked]:
    limit = limits.of("habit").at(leg.gap)
    swung = _swung(leg, name, limit, family)
    if swung:
        yield swung
    for slot in leg.slots:
        if slot.habit is None or swung:
            continue
        fault = Fault(
            "habit",
            slot.count,
            slot.habit.value,
            slot.habit.half_width,
            limit,
            division=name,
            slot=slot.slot,
            symbol=leg.hand,
        )
        yield Checked(fault, state_of(slot.habit, limit, family))
    is_swing = swung is not None and swung.state == "outside"
    if not is_swing and leg.crowding is not None and leg.crowding.value - leg.crowding.half() > CROWDED:
        last = leg.slots[-1]
        value, half = leg.crowding.value * 100, leg.crowding.half_width * 100
        fault = Fault("crowding", last.count, value, half, CROWDED * 100, "%", division=name, slot=last.slot)
        yield Checked(fault, "outside")


def _swung(leg: LegFigures, name: str, limit: float, family: int) -> Checked | None:
    """Return that pairs are long and short otherwise than asked: that, and no slot by itself, is what was played."""
    habits = [slot.habit for slot in leg.slots if slot.habit is not None]
    shifts = swing_shifts(leg)
    states = {state_of(one, limit, family) for one in habits}
    if leg.swing is None or not shifts or states == {"inside"}:
        return None
    if any(abs(one.value - shift) > limit for one, shift in zip(habits, shifts, strict=True)):
        return None
    heard, asked = leg.swing.heard, float(leg.swing.asked)
    if heard.value < 1 / _STRAIGHT:
        return None
    # The second of a pair lies half as far from its place as the pair’s lengths differ from what was asked.
    away = limit * leg.swing.on / (leg.gap * len(habits))
    long = min(_LONGEST, asked / (1 + asked) + (away if heard.value > asked else -away))
    edge = long / (1 - long)
    weight = max(abs(one.value) for one in habits) / limit
    fault = Fault(
        "swing",
        f"{leg.swing.asked}:1" if asked != 1 else "",
        heard.value,
        heard.half_width,
        edge,
        ":1",
        division=name,
        slot=len(habits) - 1,
        symbol=leg.hand,
    )
    return Checked(fault, "outside" if "outside" in states else "near", weight * edge / heard.value)


def swing_shifts(leg: LegFigures) -> list[float]:
    """Return how far each slot of a division lies from its place, around their mean, by its swing alone, in seconds."""
    slots = len(leg.slots)
    if leg.swing is None or slots != leg.division or any(slot.habit is None for slot in leg.slots):
        return []
    ways = [leg.swing.shares(ratio, slots) for ratio in (leg.swing.heard.value, float(leg.swing.asked))]
    heard, asked = (list(accumulate(way, initial=0.0))[:-1] for way in ways)
    beat = leg.gap * slots
    late = [(one - other) * beat for one, other in zip(heard, asked, strict=True)]
    return [one - sum(late) / slots for one in late]


def is_straight(ratio: float) -> bool:
    """Return whether a ratio of long to short is heard as none."""
    return ratio <= _STRAIGHT
