"""Deciding: does a climb go up, stay here or go back.

The rule is *stay until clean*: up after c clean takes in a row, back one rung
after f shaky ones in a row. The rule is stated before the try, and the
teacher's word overrules it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ripresa.core.climbs.plan import ClimbPlan
from ripresa.core.drill.click import Click
from ripresa.core.exact import label
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


def decide(plan: ClimbPlan, steps: Sequence[tuple[Fraction, Click | None]], rung: int, marks: Sequence[Mark]) -> Word:
    """Return up, stay or back.

    Args:
        steps: (bpm, click) of the rungs. rung: Number of the present one, from 1.
        marks: Of the takes on this rung since it was reached, oldest first; unclear ones do not count.
    """
    clean, shaky = _run(marks, "clean"), _run(marks, "shaky")
    bpm, click = steps[rung - 1]
    here = f"{label(bpm)} (click: {click.words})" if click else label(bpm)
    if clean >= plan.clean_to_rise:
        if rung == len(steps):
            return Word("stay", rung, "The target stands", f"{_takes(clean, 'clean')} in a row at {here}, the target.")
        # With all clicks at each tempo the next rung may be the same tempo: nothing goes up then.
        heading = "Up to" if steps[rung][0] != bpm else "On to"
        return Word(
            "up",
            rung + 1,
            f"{heading} {beside(steps, rung, rung + 1)}",
            f"{_takes(clean, 'clean')} in a row at {here}.",
        )
    if shaky >= plan.shaky_to_fall:
        if rung == 1:
            return Word(
                "stay", 1, "Stay here", f"{_takes(shaky, 'shaky')} in a row on the lowest rung. A lower start may help."
            )
        return Word(
            "back",
            rung - 1,
            f"Back to {beside(steps, rung, rung - 1)}",
            f"{_takes(shaky, 'shaky')} in a row at {here}.",
        )
    to_go = plan.clean_to_rise - clean
    if clean:
        sentence = f"{_takes(clean, 'clean')}, {to_go} more to go up."
    elif shaky:
        sentence = f"{_takes(shaky, 'shaky')} at {here}; {plan.clean_to_rise} clean in a row go up."
    else:
        sentence = f"{plan.clean_to_rise} clean in a row at {here} go up."
    return Word("stay", rung, "Stay here", sentence, to_go)


def beside(steps: Sequence[tuple[Fraction, Click | None]], rung: int, other: int) -> str:
    """Return what another rung differs in: its tempo, or at the same tempo its click."""
    bpm, click = steps[other - 1]
    return click.words if click and bpm == steps[rung - 1][0] else label(bpm)


def _run(marks: Sequence[Mark], wanted: Mark) -> int:
    """Return how many takes at the end are all of this mark, unclear ones left out."""
    run = 0
    for mark in reversed([mark for mark in marks if mark in {"clean", "shaky"}]):
        if mark != wanted:
            break
        run += 1
    return run


def _takes(count: int, kind: str) -> str:
    words = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")
    number = words[count] if count < len(words) else str(count)
    return f"{number} {kind} take" + ("" if count == 1 else "s")
