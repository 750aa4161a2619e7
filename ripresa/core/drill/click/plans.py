"""The named click plans: they fit any meter and need nothing else."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from math import gcd, lcm
from typing import Literal

from ripresa.core.drill.click.cycle import ClickCycle, ClickLevel, ClickSlot, level_at
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.kind import Kind
from ripresa.core.rhythm import Bar, Meter


@dataclass(frozen=True, slots=True)
class ClickPlan:
    """A plan that fits any meter: its name, why one would choose it, and its cycle."""

    name: str
    why: str
    cycle: Callable[[Meter], ClickCycle]


def _by_bar(meter: Meter, chosen: Callable[[Bar], Iterable[Fraction]]) -> ClickCycle:
    """Return what a plan chooses of each bar, over all bars that take turns; strong on the bar lines."""
    found = []
    for number, bar in enumerate(meter.bars, start=1 + len(meter.head)):
        start = meter.bar_start(number) - meter.bar_start(1 + len(meter.head))
        found += [(start + at, _level(at)) for at in chosen(bar)]
    return ClickCycle(meter.cycle_beats, tuple(found))


def _level(inside: Fraction) -> ClickLevel:
    return "plain" if inside else "strong"


def _every_bars(bars: int) -> Callable[[Meter], ClickCycle]:
    def cycle(meter: Meter) -> ClickCycle:
        # Once in 2 bars over three meters in turn comes back after six: bars are counted, not beats.
        turns = lcm(bars, len(meter.bars))
        starts = [meter.bar_start(number) for number in range(1, turns + 2)]
        return ClickCycle(starts[-1], tuple((at, "strong") for at in starts[:-1:bars]))

    return cycle


def _smallest(meter: Meter) -> ClickCycle:
    """Return a click on the smallest length that all beats are made of: the eighths of 7/8 as 2+2+3."""
    beats = [beat for bar in meter.bars for beat in bar.beats]
    below = lcm(*(beat.denominator for beat in beats))
    cell = Fraction(gcd(*(int(beat * below) for beat in beats)), below)
    positions = [cell * number for number in range(int(meter.cycle_beats / cell))]
    return ClickCycle(meter.cycle_beats, tuple((at, level_at(at, meter)) for at in positions))


def _through(meter: Meter) -> ClickCycle:
    """Return a click on each note that bpm counts, which runs on over the bar lines of uneven meters."""
    # So many bars that they are whole beats together: 7/8 at a quarter a click is home after two.
    length = meter.cycle_beats.denominator * meter.cycle_beats
    positions = [Fraction(at) for at in range(int(length))]
    return ClickCycle(length, tuple((at, "strong" if not meter.to_bar_line(at) else "plain") for at in positions))


def _off_beats(meter: Meter) -> ClickCycle:
    def halves(bar: Bar) -> list[Fraction]:
        return [at + length / 2 for at, length in zip(bar.beat_starts(), bar.beats, strict=True)]

    return _by_bar(meter, halves)


CLICK_PLANS: dict[str, ClickPlan] = {
    "every_beat": ClickPlan(
        "every beat", "The surest: nothing is left to guess.", lambda meter: _by_bar(meter, Bar.beat_starts)
    ),
    "two_and_four": ClickPlan(
        "2 and 4",
        "The student places beat 1. Where a bar has fewer beats, its even beats.",
        lambda meter: _by_bar(meter, lambda bar: bar.beat_starts()[1::2]),
    ),
    "one_and_three": ClickPlan(
        "1 and 3",
        "Half the clicks: the strong beats are given, the others are kept.",
        lambda meter: _by_bar(meter, lambda bar: bar.beat_starts()[::2]),
    ),
    "off_beats": ClickPlan("the off-beats", "Each beat is the student's own.", _off_beats),
    "every_bar": ClickPlan("once a bar", "Three beats out of four are kept alone.", _every_bars(1)),
    "every_2_bars": ClickPlan("once in 2 bars", "Shows slow drift.", _every_bars(2)),
    "every_4_bars": ClickPlan("once in 4 bars", "A test of the inner pulse.", _every_bars(4)),
    "through": ClickPlan(
        "straight through", "It does not mind the bar: in uneven meters it falls off the beat and comes back.", _through
    ),
    "groups": ClickPlan(
        "the groups of the bar",
        "In 7/4 as 3+4: one click for each group, where a meter has groups; else each beat.",
        lambda meter: _by_bar(meter, Bar.group_starts),
    ),
    "smallest": ClickPlan(
        "the smallest part of the beats", "For uneven beats: what they are all made of, the beats strong.", _smallest
    ),
    "none": ClickPlan("never", "Nothing but the student.", lambda meter: ClickCycle(meter.cycle_beats, ())),
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
