"""Climbs: the rungs from a start tempo to a target."""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import lru_cache
from typing import Annotated, Literal

from ripresa.core.click import Click, laid
from ripresa.core.click.ladders import MOST_PLANS, Order
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import ByKind, Exact, label
from ripresa.core.tempo import Settings, bpm_for_speed, check_bpm, gap_seconds, setting, speed_nps

MOST_RUNGS = 200


@dataclass(frozen=True, slots=True)
class PerCent:
    """Each rung is so many per cent above the one before: the same effort at every height.

    Args:
        step: Per cent, above 0 up to 100.
    """

    kind: Literal["percent"] = field(default="percent", kw_only=True)
    step: Exact = Fraction(4)

    def __post_init__(self) -> None:
        if not 0 < self.step <= 100:
            raise OutOfRange(
                f"A step of {label(self.step)} % leads nowhere. Use more than 0, up to 100 %.", field="rule.step"
            )

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
    step: Exact = Fraction(4)

    def __post_init__(self) -> None:
        if not Fraction(1, 2) <= self.step <= 100:
            raise OutOfRange(f"A step of {label(self.step)} bpm cannot be used. Use ½ to 100 bpm.", field="rule.step")

    def tempi(self, start: Fraction) -> Iterator[Fraction]:
        """Yield exact tempi from the start on, without end."""
        while True:
            yield start
            start += self.step


RungRule = Annotated[PerCent | EvenSteps, ByKind()]


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
        bpm_for_speed(self.nps, self.division)

    def tempo(self) -> Fraction:
        """Return the tempo that gives the speed: 60 · n/s / notes per beat."""
        return bpm_for_speed(self.nps, self.division)


Target = Annotated[BpmTarget | SpeedTarget, ByKind()]

EVENNESS: dict[str, tuple[Fraction, Fraction, Fraction, str]] = {
    # School: share of the gap, floor in seconds, share of notes that may be missed or extra, why.
    "easy": (Fraction(15, 100), Fraction(15, 1000), Fraction(6, 100), "For first steps, and for tired days."),
    "working": (Fraction(10, 100), Fraction(10, 1000), Fraction(3, 100), "What sounds even in a lesson room."),
    "strict": (Fraction(7, 100), Fraction(8, 1000), Fraction(1, 100), "For a recording or an audition."),
}
Evenness = Literal["easy", "working", "strict"]


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
        evenness: The school by which a take counts as even.
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


@dataclass(frozen=True, slots=True)
class Rung:
    """One step of a climb.

    Args:
        number: From 1.
        bpm: The tempo that is set.
        nps: Notes a second at the division; gap_seconds: from note to note.
        click: The plan of the click ladder that is due; None without a ladder.
    """

    number: int
    bpm: Fraction
    division: Fraction
    nps: Fraction
    gap_seconds: Fraction
    click: Click | None = None


def tempi(plan: ClimbPlan) -> tuple[Fraction, ...]:
    """Return the tempi of a climb as they are set, the last the target exactly, no two the same setting.

    Raises:
        OutOfRange: There would be more than 200.

    >>> [int(bpm) for bpm in tempi(ClimbPlan(start=Fraction(84)))]
    [84, 87, 91, 94, 98, 102, 106, 111, 115, 120]
    """
    goal = plan.target.tempo()
    found: list[Fraction] = [plan.start]
    for count, exact in enumerate(plan.rule.tempi(plan.start)):
        if exact >= goal:
            break
        if count >= MOST_RUNGS:
            raise OutOfRange(
                f"That makes more than {MOST_RUNGS} rungs. Take larger steps or a nearer target.", field="rule.step"
            )
        tempo = setting(exact, plan.settings)
        if found[-1] < tempo < goal:
            found.append(tempo)
    if setting(found[-1], plan.settings) == setting(goal, plan.settings) and len(found) > 1:
        found.pop()
    return (*found, goal)


def exact_steps(plan: ClimbPlan) -> int:
    """Return how many steps the climb has in exact tempi, before any two fall together.

    For *per cent* this is ⌈ln(target / start) / ln(1 + step)⌉, found without logarithms.

    >>> exact_steps(ClimbPlan(start=Fraction(84)))
    10
    """
    goal = plan.target.tempo()
    for count, exact in enumerate(plan.rule.tempi(plan.start)):
        if exact >= goal or count > 10 * MOST_RUNGS:
            return count
    raise AssertionError("a rung rule never ends by itself")


Steps = tuple[tuple[Fraction, Click | None], ...]


@lru_cache(maxsize=1024)
def steps(plan: ClimbPlan) -> Steps:
    """Return (bpm, click) of each rung of a climb; the click is None without a click ladder.

    Raises:
        OutOfRange: There would be more than 200.
    """
    found = laid(plan.clicks, tempi(plan), plan.click_order)
    if len(found) > MOST_RUNGS:
        raise OutOfRange(
            f"{len(plan.clicks)} clicks at each tempo make {len(found)} rungs, more than {MOST_RUNGS}. "
            "Take larger steps or fewer clicks.",
            field="clicks",
        )
    return found


def rungs(plan: ClimbPlan, division: Fraction) -> tuple[Rung, ...]:
    """Return the rungs of a climb with their speed at a division, the first at the start tempo."""
    return tuple(
        Rung(number, bpm, division, speed_nps(bpm, division), gap_seconds(bpm, division), click)
        for number, (bpm, click) in enumerate(steps(plan), start=1)
    )


def rung_of(passed: Steps, bpm: Fraction, click: Click | None, wanted: int | None) -> int | None:
    """Return the rung on which a take was played, found by its tempo and its click; None where no rung has the tempo.

    Args:
        passed: The steps of the plan.
        click: What sounded; None where that is known in words only.
        wanted: The rung it says itself, which decides where several have the tempo.
    """
    same = [number for number, (tempo, _) in enumerate(passed, start=1) if tempo == bpm]
    fits = [number for number in same if passed[number - 1][1] in (None, click)]
    for found in (fits, same):
        if wanted in found:
            return wanted
        if found:
            return found[0]
    return None


def with_clicks(plan: ClimbPlan, clicks: tuple[Click, ...], order: Order) -> tuple[ClimbPlan, dict[int, int]]:
    """Return a plan with another click ladder, and where each rung of the old one is in the new one.

    A rung keeps its tempo; where its click is gone, it is the first rung of that tempo.

    Raises:
        OutOfRange: As ``ClimbPlan`` and ``steps``.
    """
    changed = replace(plan, clicks=clicks, click_order=order)
    new = steps(changed)
    places: dict[int, int] = {}
    for number, (bpm, click) in enumerate(steps(plan), start=1):
        same = [place for place, (tempo, _) in enumerate(new, start=1) if tempo == bpm]
        places[number] = next((place for place in same if new[place - 1][1] == click), same[0])
    return changed, places
