"""The plan of a climb: from where to where, how its rungs are spaced, and when it moves."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Annotated, Literal

from ripresa.core.climbs.ladders import MOST_PLANS, Order
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import ByKind, Exact, label
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.rhythm import Settings, bpm_for_speed, check_bpm
from ripresa.core.takes import But, Evenness, Limits

MOST_RUNGS = 200


@dataclass(frozen=True, slots=True)
class PerCent:
    """Each rung is so many per cent above the one before: the same effort at every height.

    Args:
        step: Per cent, above 0 up to 100.
    """

    kind: Literal["percent"] = field(default="percent", kw_only=True)
    step: Annotated[
        Exact,
        Between(
            Fraction(1, 100),
            100,
            "A step of {value} % leads nowhere. Use more than 0, up to {most} %.",
            "4 per cent is what a patient teacher takes; 2 near the top.",
        ),
    ] = Fraction(4)

    def __post_init__(self) -> None:
        check_bounds(self, "rule")

    def tempi(self, start: Fraction) -> Iterator[Fraction]:
        """Yield exact tempi from the start on, without end."""
        factor = 1 + self.step / 100
        while True:
            yield start
            start *= factor


@dataclass(frozen=True, slots=True)
class EvenSteps:
    """Each rung is so many bpm above the one before: easy to count by hand.

    Args:
        step: bpm, ½ to 100.
    """

    kind: Literal["even"] = field(default="even", kw_only=True)
    step: Annotated[
        Exact,
        Between(
            Fraction(1, 2),
            100,
            "A step of {value} bpm cannot be used. Use {least} to {most} bpm.",
            "4 bpm are few at 120 and many at 60.",
        ),
    ] = Fraction(4)

    def __post_init__(self) -> None:
        check_bounds(self, "rule")

    def tempi(self, start: Fraction) -> Iterator[Fraction]:
        """Yield exact tempi from the start on, without end."""
        while True:
            yield start
            start += self.step


RungRule = Annotated[PerCent | EvenSteps, ByKind()]
#: All kinds of rule, in the order in which they are offered.
RULES: tuple[Kind[RungRule], ...] = (
    Kind(PerCent(), "per cent", "The same effort at every height: steps grow with the tempo."),
    Kind(EvenSteps(), "bpm", "Even steps: easy to count by hand, harder at the bottom than at the top."),
)


@dataclass(frozen=True, slots=True)
class BpmTarget:
    """A target tempo in bpm."""

    kind: Literal["bpm"] = field(default="bpm", kw_only=True)
    bpm: Exact = Fraction(120)

    def tempo(self) -> Fraction:
        """Return the tempo."""
        return self.bpm


@dataclass(frozen=True, slots=True)
class SpeedTarget:
    """A target speed in notes a second at a division."""

    kind: Literal["speed"] = field(default="speed", kw_only=True)
    nps: Exact = Fraction(8)
    division: Exact = Fraction(4)

    def __post_init__(self) -> None:
        if self.division <= 0:
            raise OutOfRange("Notes per beat have to be above 0.", field="target.division")
        if self.nps <= 0:
            raise OutOfRange("A speed has to be above 0 notes a second.", field="target")

    def tempo(self) -> Fraction:
        """Return the tempo that gives the speed: 60 · n/s / notes per beat."""
        return bpm_for_speed(self.nps, self.division)


Target = Annotated[BpmTarget | SpeedTarget, ByKind()]
#: All kinds of target, in the order in which they are offered.
TARGETS: tuple[Kind[Target], ...] = (
    Kind(BpmTarget(), "a tempo of", "Where the piece stands."),
    Kind(SpeedTarget(), "a speed of", "Notes a second, whatever the division: speeds compare between drills."),
)


@dataclass(frozen=True, slots=True)
class ClimbPlan:
    """From a start tempo to a target, by a rung rule and a moving rule (stay until clean).

    Args:
        start: bpm: the fastest tempo without a mistake.
        target: A tempo or a speed.
        rule: How rungs are spaced.
        settings: Which tempi can be set.
        clean_to_rise: Clean takes in a row that lead up, 1 to 9.
        shaky_to_fall: Shaky takes in a row that lead back, 2 to 9.
        evenness: The school by which a take counts as clean; but: figures that have another one.
        clicks: A click ladder: plans that the rungs pass in order, up to 12; none is the drill's own click.
        click_order: How the rungs pass them: with the tempo, all at each tempo, or at the target.

    Raises:
        OutOfRange: The target is not above the start, or a number is out of its range.
    """

    start: Exact
    target: Target = BpmTarget()
    rule: RungRule = PerCent()
    settings: Settings = "whole"
    clean_to_rise: int = 2
    shaky_to_fall: int = 3
    evenness: Evenness = "working"
    but: tuple[But, ...] = ()
    clicks: tuple[Click, ...] = ()
    click_order: Order = "with_tempo"

    def __post_init__(self) -> None:
        check_bpm(self.start, "start")
        goal = check_bpm(self.target.tempo(), "target")
        if goal <= self.start:
            raise OutOfRange(
                f"The target, {label(goal)} bpm, has to be above the start, {label(self.start)} bpm.", field="target"
            )
        if len(self.clicks) > MOST_PLANS:
            raise OutOfRange(f"A click ladder has up to {MOST_PLANS} plans, not {len(self.clicks)}.", field="clicks")
        if len(set(self.clicks)) < len(self.clicks):
            twice = next(one for index, one in enumerate(self.clicks) if one in self.clicks[:index])
            raise OutOfRange(f"“{twice.words}” stands twice in the click ladder. Keep one of them.", field="clicks")
        if not 1 <= self.clean_to_rise <= 9:
            raise OutOfRange("Rise after 1 to 9 clean takes.", field="clean_to_rise")
        if not 2 <= self.shaky_to_fall <= 9:
            raise OutOfRange("Step back after 2 to 9 shaky takes.", field="shaky_to_fall")
        self.limits  # noqa: B018 - a figure that stands twice is refused here

    @property
    def limits(self) -> Limits:
        """What a take is held to."""
        return Limits(self.evenness, self.but)
