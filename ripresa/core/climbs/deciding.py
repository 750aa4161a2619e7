"""Deciding: does a climb go up, stay here or go back.

The moving rule is stated before the try, and the teacher's word overrules it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ripresa.core.climbs.moving import PACES
from ripresa.core.climbs.plan import ClimbPlan
from ripresa.core.climbs.rungs import LaidRungs
from ripresa.core.exact import Fraction, decimal, label
from ripresa.core.exact import plural as counted
from ripresa.core.takes import Mark

Decision = Literal["up", "stay", "back"]


@dataclass(frozen=True, slots=True)
class Word:
    """What the rule says after a take.

    Args:
        decision: Up, stay or back.
        rung: Number of the rung it leads to, from 1.
        heading: In three words: ``Up to 100``.
        sentence: Why, with the numbers that decided it.
        clean_to_go: Clean takes that are still missing to go up.
    """

    decision: Decision
    rung: int
    heading: str
    sentence: str
    clean_to_go: int = 0


def decide(
    plan: ClimbPlan,
    steps: LaidRungs,
    rung: int,
    marks: Sequence[Mark],
    *,
    came_from: int | None = None,
    seconds: float = 0.0,
) -> Word:
    """Return up, stay or back.

    Args:
        steps: What the rungs set. rung: Number of the present one, from 1.
        marks: Of the takes on this rung since it was reached, oldest first; unclear ones do not count.
        came_from: The rung of the last move; None where there was none.
        seconds: How long those takes lasted together.
    """
    if plan.moving == "time_box":
        return _by_the_clock(plan, steps, rung, marks, seconds)
    clean, shaky = run_of(marks, "clean"), run_of(marks, "shaky")
    if clean >= plan.clean_to_rise:
        return _up(plan, steps, rung, f"{_takes(clean, 'clean')} in a row at {_here(steps, rung)}", came_from)
    if shaky >= plan.shaky_to_fall:
        return _back(plan, steps, rung, f"{_takes(shaky, 'shaky')} in a row at {_here(steps, rung)}.")
    to_go = plan.clean_to_rise - clean
    if clean:
        sentence = f"{_takes(clean, 'clean')}, {to_go} more to go up."
    elif shaky:
        sentence = f"{_takes(shaky, 'shaky')} at {_here(steps, rung)}; {plan.clean_to_rise} clean in a row go up."
    else:
        sentence = f"{plan.clean_to_rise} clean in a row at {_here(steps, rung)} go up."
    return Word("stay", rung, "Stay here", sentence, to_go)


def beside(steps: LaidRungs, rung: int, other: int) -> str:
    """Return what another rung differs in: its tempo; at the same tempo what is played, or its click."""
    here, there = steps[rung - 1], steps[other - 1]
    if there.bpm != here.bpm:
        return label(there.bpm)
    if there.words != here.words:
        return there.words or "all of it"
    return there.click.words if there.click else label(there.bpm)


def run_of(marks: Sequence[Mark], wanted: Mark) -> int:
    """Return how many takes at the end are all of this mark, unclear ones left out."""
    run = 0
    for mark in reversed([mark for mark in marks if mark in {"clean", "shaky"}]):
        if mark != wanted:
            break
        run += 1
    return run


def _by_the_clock(plan: ClimbPlan, steps: LaidRungs, rung: int, marks: Sequence[Mark], seconds: float) -> Word:
    clean, shaky = marks.count("clean"), marks.count("shaky")
    tally = f"{_takes(clean, 'clean')} and {shaky} shaky at {_here(steps, rung)}"
    if seconds < plan.box_minutes * 60:
        played = _minutes(seconds)
        return Word("stay", rung, "Stay here", f"{played} of {counted(plan.box_minutes, 'minute')} at this rung.", 0)
    if clean > shaky:
        return _up(plan, steps, rung, f"{tally}, in {counted(plan.box_minutes, 'minute')}", None)
    if shaky > clean:
        return _back(plan, steps, rung, f"{tally}, in {counted(plan.box_minutes, 'minute')}.")
    return Word("stay", rung, "Stay here", f"{tally}: one take more decides.", 1)


def _minutes(seconds: float) -> str:
    return decimal(Fraction(seconds) / 60, 1)


def _up(plan: ClimbPlan, steps: LaidRungs, rung: int, because: str, came_from: int | None) -> Word:
    if rung == len(steps):
        return Word("stay", rung, "The target stands", f"{because}, the target.")
    paces = PACES[plan.moving]
    came_by_two = came_from is not None and rung - came_from == paces.up and paces.up > 1
    pace = paces.after_two if came_by_two else paces.up
    other = min(len(steps), rung + pace)
    if other < rung:
        # Not for being shaky: the rung between is made firm.
        return Word("back", other, f"Back to {beside(steps, rung, other)}", f"{because}; now the one between.")
    # With all clicks at each tempo the next rung may be the same tempo: nothing goes up then.
    heading = "Up to" if steps[other - 1].bpm > steps[rung - 1].bpm else "On to"
    return Word("up", other, f"{heading} {beside(steps, rung, other)}", f"{because}.")


def _back(plan: ClimbPlan, steps: LaidRungs, rung: int, because: str) -> Word:
    if rung == 1:
        return Word("stay", 1, "Stay here", f"{because[:-1]} on the lowest rung. A lower start may help.")
    other = max(1, rung - PACES[plan.moving].back)
    return Word("back", other, f"Back to {beside(steps, rung, other)}", because)


def _here(steps: LaidRungs, rung: int) -> str:
    step = steps[rung - 1]
    more = [step.words] if step.words else []
    if step.click:
        more.append(f"click: {step.click.words}")
    return f"{label(step.bpm)} ({', '.join(more)})" if more else label(step.bpm)


def _takes(count: int, kind: str) -> str:
    words = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")
    number = words[count] if count < len(words) else str(count)
    return f"{number} {kind} take" + ("" if count == 1 else "s")
