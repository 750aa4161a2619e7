"""The named click plans: they fit any meter and need nothing else."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from math import gcd, lcm
from typing import Literal

from ripresa.core.drill.click.cycle import ClickCycle, ClickSlot, level_at
from ripresa.core.errors import OutOfRange
from ripresa.core.kind import Kind
from ripresa.core.rhythm import Meter


@dataclass(frozen=True, slots=True)
class ClickPlan:
    """A plan that fits any meter: its name, why one would choose it, and its cycle."""

    name: str
    why: str
    cycle: Callable[[Meter], ClickCycle]


def _beats(meter: Meter, chosen: slice) -> ClickCycle:
    starts = meter.beat_starts()[chosen]
    return ClickCycle(meter.bar_length, tuple((at, "plain" if at else "strong") for at in starts))


def _every_bars(bars: int) -> Callable[[Meter], ClickCycle]:
    return lambda meter: ClickCycle(bars * meter.bar_length, ((Fraction(0), "strong"),))


def _smallest(meter: Meter) -> ClickCycle:
    """Return a click on the smallest length that all beats of a bar are made of: the eighths of 7/8 as 2+2+3."""
    below = lcm(*(beat.denominator for beat in meter.beats))
    cell = Fraction(gcd(*(int(beat * below) for beat in meter.beats)), below)
    positions = [cell * number for number in range(int(meter.bar_length / cell))]
    return ClickCycle(meter.bar_length, tuple((at, level_at(at, meter)) for at in positions))


def _through(meter: Meter) -> ClickCycle:
    """Return a click on each note that bpm counts, which runs on over the bar lines of uneven meters."""
    bars = meter.bar_length.denominator
    length = bars * meter.bar_length
    return ClickCycle(
        length,
        tuple((Fraction(at), "plain" if Fraction(at) % meter.bar_length else "strong") for at in range(int(length))),
    )


def _off_beats(meter: Meter) -> ClickCycle:
    halves = zip(meter.beat_starts(), meter.beats, strict=True)
    return ClickCycle(meter.bar_length, tuple((at + length / 2, "plain") for at, length in halves))


CLICK_PLANS: dict[str, ClickPlan] = {
    "every_beat": ClickPlan("every beat", "The surest: nothing is left to guess.", lambda m: _beats(m, slice(None))),
    "two_and_four": ClickPlan(
        "2 and 4",
        "The student places beat 1. Where a bar has fewer beats, its even beats.",
        lambda m: _beats(m, slice(1, None, 2)),
    ),
    "one_and_three": ClickPlan(
        "1 and 3",
        "Half the clicks: the strong beats are given, the others are kept.",
        lambda m: _beats(m, slice(0, None, 2)),
    ),
    "off_beats": ClickPlan("the off-beats", "Each beat is the student's own.", _off_beats),
    "every_bar": ClickPlan("once a bar", "Three beats out of four are kept alone.", _every_bars(1)),
    "every_2_bars": ClickPlan("once in 2 bars", "Shows slow drift.", _every_bars(2)),
    "every_4_bars": ClickPlan("once in 4 bars", "A test of the inner pulse.", _every_bars(4)),
    "through": ClickPlan(
        "straight through", "It does not mind the bar: in uneven meters it falls off the beat and comes back.", _through
    ),
    "smallest": ClickPlan(
        "the smallest part of the beats", "For uneven beats: what they are all made of, the beats strong.", _smallest
    ),
    "none": ClickPlan("never", "Nothing but the student.", lambda m: ClickCycle(m.bar_length, ())),
}


def click_words(kept: str) -> str:
    """Return the words of a click as a take keeps it: takes of old keep the key of a named plan."""
    return CLICK_PLANS[kept].name if kept in CLICK_PLANS else kept


@dataclass(frozen=True, slots=True)
class NamedClick:
    """A built-in click plan.

    Args:
        plan: Key of ``CLICK_PLANS``.

    Raises:
        OutOfRange: No plan of that name is known.
    """

    kind: Literal["named"] = field(default="named", kw_only=True)
    plan: str = "every_beat"

    def __post_init__(self) -> None:
        if self.plan not in CLICK_PLANS:
            raise OutOfRange(
                f"“{self.plan}” is not a click plan that Ripresa knows. Use one of {', '.join(CLICK_PLANS)}.",
                field="click.plan",
            )

    @property
    def words(self) -> str:
        """What it is, in words."""
        return CLICK_PLANS[self.plan].name

    def cycle(self, meter: Meter, _slots: Sequence[ClickSlot], _beats: Fraction) -> ClickCycle:
        """Return its cycle in a meter."""
        return CLICK_PLANS[self.plan].cycle(meter)


#: The named plans, in the order in which they are offered.
KINDS: tuple[Kind[NamedClick], ...] = tuple(
    Kind(NamedClick(plan=key), plan.name, plan.why, key) for key, plan in CLICK_PLANS.items()
)
