"""The rungs of a climb: its tempi as they are set, what is played of the drill, and the click that is due on each."""

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import NamedTuple

from ripresa.core.changes import Part
from ripresa.core.climbs.bare import MOST_RUNGS, Bare, raised
from ripresa.core.climbs.ladders import Order, laid
from ripresa.core.climbs.plan import ClimbPlan
from ripresa.core.climbs.rules import EvenSteps, PerCent, beats_told
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, division_label
from ripresa.core.rhythm import gap_seconds, speed_nps


class Step(NamedTuple):
    """What a rung sets.

    Args:
        bpm: The tempo. click: The plan of the click ladder that is due; None without a ladder.
        bare: The step of the rung rule that it is. place: Its number among those, from 0.
    """

    bpm: Fraction
    click: Click | None
    bare: Bare
    place: int

    @property
    def part(self) -> Part | None:
        """How the drill is practised on it; None where it is as it is written."""
        return self.bare.part

    @property
    def words(self) -> str:
        """What it is besides its tempo and its click; empty where those are all."""
        if self.bare.division is not None:
            return f"{division_label(self.bare.division)} a beat"
        return beats_told(self.bare.burst) if self.bare.burst is not None else self.bare.words


@dataclass(frozen=True, slots=True)
class Rung:
    """One step of a climb.

    Args:
        number: From 1.
        bpm: The tempo that is set.
        nps: Notes a second at the division; gap_seconds: from note to note.
        click: The plan of the click ladder that is due; None without a ladder.
        part: How the drill is practised on it; words: that, or what it is, in words.
    """

    number: int
    bpm: Fraction
    division: Fraction
    nps: Fraction
    gap_seconds: Fraction
    click: Click | None = None
    part: Part | None = None
    words: str = ""


def tempi(plan: ClimbPlan) -> tuple[Fraction, ...]:
    """Return the tempi of the steps of a climb as they are set, the last the target exactly.

    Raises:
        OutOfRange: There would be more than 200.

    >>> [int(bpm) for bpm in tempi(ClimbPlan(start=Fraction(84)))]
    [84, 87, 91, 94, 98, 102, 106, 111, 115, 120]
    """
    return tuple(step.bpm for step in plan.bare_steps())


def exact_steps(plan: ClimbPlan) -> int:
    """Return how many steps the climb has in exact tempi, before any two fall together.

    For *per cent* this is ⌈ln(target / start) / ln(1 + step)⌉, found without logarithms.

    >>> exact_steps(ClimbPlan(start=Fraction(84)))
    10
    """
    if plan.is_without_speed or not isinstance(plan.rule, PerCent | EvenSteps):
        return len(tempi(plan)) - 1
    return raised(plan.rule.tempi(plan.start), plan.start, plan.goal, plan.settings).exact_steps


LaidRungs = tuple[Step, ...]


@lru_cache(maxsize=4096)
def laid_rungs(plan: ClimbPlan) -> LaidRungs:
    """Return what each rung of a climb sets; the click is None without a click ladder.

    Raises:
        OutOfRange: There would be more than 200.
    """
    steps = tuple(enumerate(plan.bare_steps()))
    # Where the tempo stays, the click alone is climbed: every plan of the ladder at every step.
    order: Order = "each_tempo" if plan.is_without_speed else plan.click_order
    found = tuple(Step(bare.bpm, click, bare, place) for (place, bare), click in laid(plan.clicks, steps, order))
    if len(found) > MOST_RUNGS:
        raise OutOfRange(
            f"{len(plan.clicks)} clicks at each tempo make {len(found)} rungs, more than {MOST_RUNGS}. "
            "Take larger steps or fewer clicks.",
            field="clicks",
        )
    return found


@lru_cache(maxsize=4096)
def rungs(plan: ClimbPlan, division: Fraction) -> tuple[Rung, ...]:
    """Return the rungs of a climb with their speed, the first at the start.

    Args:
        division: Notes per beat of what is played, where a rung does not say it itself.
    """
    return tuple(_rung(number, step, division) for number, step in enumerate(laid_rungs(plan), start=1))


def _rung(number: int, step: Step, peak: Fraction) -> Rung:
    division = peak if step.bare.division is None else step.bare.division
    return Rung(
        number,
        step.bpm,
        division,
        speed_nps(step.bpm, division),
        gap_seconds(step.bpm, division),
        step.click,
        step.part,
        step.words,
    )


def rung_of(
    passed: LaidRungs, bpm: Fraction, click: Click | None, wanted: int | None, part: Part | None = None
) -> int | None:
    """Return the rung on which a take was played, found by its tempo, its part and its click; None where none has both.

    Args:
        passed: The steps of the plan.
        click: What sounded; None where that is known in words only.
        wanted: The rung it says itself, which decides where several have the tempo.
        part: What was practised of the drill; None is all of it.
    """
    same = [number for number, step in enumerate(passed, start=1) if (step.bpm, step.part) == (bpm, part)]
    fits = [number for number in same if passed[number - 1].click in (None, click)]
    # A click that is on no rung of the ladder still belongs to the tempo; better its first rung than none.
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
        OutOfRange: As ``ClimbPlan`` and ``laid_rungs``.
    """
    changed = replace(plan, clicks=clicks, click_order=order)
    new = laid_rungs(changed)
    places: dict[int, int] = {}
    for number, step in enumerate(laid_rungs(plan), start=1):
        same = [place for place, other in enumerate(new, start=1) if other.place == step.place]
        places[number] = next((place for place in same if new[place - 1].click == step.click), same[0])
    return changed, places
