"""Tools on the pattern of a strum: moved on its grid, twice or half as fast; the chords stay where they are.

A pattern that is built up step by step is taken as far as it is played: its steps are others at another speed.
"""

from collections.abc import Sequence
from dataclasses import replace
from itertools import chain

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Strum, moved_beats
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.rhythm import CountedBeat, Filled, coarse, leg_meters, meter_named, write_count

_UNSAID = Filled()


def pattern_moved(drill: Drill, strum: Strum, by: int) -> Drill:
    """Return a drill whose strokes come so many slots of their grid later, round from the end of the pattern.

    Raises:
        OutOfRange: The pattern has no one grid, or its bars differ.
    """
    return _with(drill, strum, moved_beats(_beats(drill, strum), by, meter_named(drill.meter), around=True))


def pattern_scaled(drill: Drill, strum: Strum, by: int | Fraction) -> Drill:
    """Return a drill whose strokes come twice as fast, ``by`` 2, or half as fast, ½; each pattern fills its bars.

    Raises:
        OutOfRange: The beats of the meter differ, or a beat would have more slots than can be counted.
    """
    if len(set(meter_named(drill.meter).beats_of(1))) > 1 or len(leg_meters(drill.meter)) > 1:
        raise OutOfRange("A pattern over unequal beats has no double. Take a meter of equal beats.", field="meter")
    beats = _beats(drill, strum)
    in_bar = len(meter_named(drill.meter).beats_of(1))
    slots = [beat.slots for beat in beats]
    if by == 2:
        # Half a bar is no pattern: it is played twice then.
        slots = [_joined(pair) for pair in zip(*[iter(slots * (1 + len(slots) // in_bar % 2))] * 2, strict=True)]
    else:
        slots = list(chain.from_iterable(_halves(one) for one in slots))
    return _with(
        drill,
        strum,
        [CountedBeat(at // in_bar + 1, at % in_bar + 1, len(one), one) for at, one in enumerate(map(coarse, slots))],
    )


def _beats(drill: Drill, strum: Strum) -> Sequence[CountedBeat]:
    bars = strum.bars(meter_named(drill.meter))
    return [beat._replace(bar=number) for number, bar in enumerate(bars, start=1) for beat in bar]


def _with(drill: Drill, strum: Strum, beats: Sequence[CountedBeat]) -> Drill:
    if not any(filled.kind == "note" for beat in beats for filled in beat.slots):
        raise OutOfRange("Nothing of this pattern would sound.", field="material.pattern")
    return replace(drill, material=replace(strum, pattern=write_count(beats), step=0))


def _joined(pair: Sequence[tuple[Filled, ...]]) -> tuple[Filled, ...]:
    """Return two beats in the time of one."""
    finest = max(len(slots) for slots in pair)
    if any(finest % len(slots) for slots in pair):
        raise OutOfRange("Beats of twos and threes make no one beat. Take one division.", field="material.pattern")
    fine = [[*one, *[_UNSAID] * (finest // len(slots) - 1)] for slots in pair for one in ([slot] for slot in slots)]
    return tuple(chain.from_iterable(fine))


def _halves(slots: tuple[Filled, ...]) -> Sequence[tuple[Filled, ...]]:
    """Return a beat in the time of two: three strokes fall on every other slot of two beats in threes."""
    if len(slots) % 2:
        slots = tuple(chain.from_iterable((slot, _UNSAID) for slot in slots))
    return coarse(slots[: len(slots) // 2]), coarse(slots[len(slots) // 2 :])
