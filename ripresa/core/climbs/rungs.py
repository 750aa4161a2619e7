"""The rungs of a climb: its tempi as they are set, and the click that is due on each."""

from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache

from ripresa.core.climbs.ladders import Order, laid
from ripresa.core.climbs.plan import MOST_RUNGS, ClimbPlan
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.rhythm import gap_seconds, setting, speed_nps


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
        # A small step can end on the setting of the rung before, or of the target: such a rung is none.
        if found[-1] < tempo < goal:
            found.append(tempo)
    # The target stays exact, and a metronome of whole bpm is set to its neighbour: that is not a rung of its own too.
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
        # Past the bound nobody reads the number: ``tempi`` refuses so many rungs.
        if exact >= goal or count > 10 * MOST_RUNGS:
            return count
    raise AssertionError("a rung rule never ends by itself")


LaidRungs = tuple[tuple[Fraction, Click | None], ...]


@lru_cache(maxsize=1024)
def laid_rungs(plan: ClimbPlan) -> LaidRungs:
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
        for number, (bpm, click) in enumerate(laid_rungs(plan), start=1)
    )


def rung_of(passed: LaidRungs, bpm: Fraction, click: Click | None, wanted: int | None) -> int | None:
    """Return the rung on which a take was played, found by its tempo and its click; None where no rung has the tempo.

    Args:
        passed: The steps of the plan.
        click: What sounded; None where that is known in words only.
        wanted: The rung it says itself, which decides where several have the tempo.
    """
    same = [number for number, (tempo, _) in enumerate(passed, start=1) if tempo == bpm]
    fits = [number for number in same if passed[number - 1][1] in (None, click)]
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
    for number, (bpm, click) in enumerate(laid_rungs(plan), start=1):
        same = [place for place, (tempo, _) in enumerate(new, start=1) if tempo == bpm]
        places[number] = next((place for place in same if new[place - 1][1] == click), same[0])
    return changed, places
