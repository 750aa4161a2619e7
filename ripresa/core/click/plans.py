"""Click plans: which positions of a cycle of bars click, and how strongly."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.meter import Meter

ClickLevel = Literal["strong", "plain"]


@dataclass(frozen=True, slots=True)
class ClickCycle:
    """A cycle of clicks.

    Args:
        length: Beats of the bpm until it starts again; a whole number of bars.
        clicks: (position in beats from the cycle's start, level), in order.
    """

    length: Fraction
    clicks: tuple[tuple[Fraction, ClickLevel], ...]

    def within(self, beats: Fraction) -> Iterator[tuple[Fraction, ClickLevel]]:
        """Yield every click of the first so many beats."""
        if not self.clicks:
            return
        start = Fraction(0)
        while True:
            for position, level in self.clicks:
                if start + position >= beats:
                    return
                yield start + position, level
            start += self.length


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
    "off_beats": ClickPlan("the off-beats", "Each beat is the student's own.", _off_beats),
    "every_bar": ClickPlan("once a bar", "Three beats out of four are kept alone.", _every_bars(1)),
    "every_2_bars": ClickPlan("once in 2 bars", "Shows slow drift.", _every_bars(2)),
    "every_4_bars": ClickPlan("once in 4 bars", "A test of the inner pulse.", _every_bars(4)),
    "none": ClickPlan("never", "Nothing but the student.", lambda m: ClickCycle(m.bar_length, ())),
}


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


def cycle_of(click: NamedClick, meter: Meter) -> ClickCycle:
    """Return the cycle that a click makes in a meter."""
    return CLICK_PLANS[click.plan].cycle(meter)
