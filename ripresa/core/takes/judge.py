"""Judging: is a take clean, and does the climb go up, stay here or go back.

The rule is *stay until clean*: up after c clean takes in a row, back one rung
after f shaky ones in a row. The rule is stated before the try, and the
teacher's word overrules it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import floor
from typing import Literal

from ripresa.core.click import Click
from ripresa.core.climb import EVENNESS, ClimbPlan, Evenness
from ripresa.core.exact import label
from ripresa.core.takes.figures import FEWEST_NOTES, Figures

Mark = Literal["clean", "shaky", "unclear"]
Decision = Literal["up", "stay", "back"]

#: Sources of a take, and the finest spread that each can resolve, in seconds: our estimate, decisions/0003.
SOURCES: dict[str, tuple[str, float]] = {
    "taps": ("taps", 0.003),
    "stand_in": ("the stand-in player", 0.0),
    "by_ear": ("by ear", 0.0),
}
Source = Literal["taps", "stand_in", "by_ear"]

#: Notes that are measured at once, those due and those heard: eight minutes at 8 notes a second.
MOST_MEASURED = 4_000

#: Below this share of matched notes nothing is said about the rest: the fit may be a slip by a slot.
_POOREST_FIT = 0.6


@dataclass(frozen=True, slots=True)
class Verdict:
    """Whether a take is clean.

    Args:
        mark: Clean, shaky, or unclear (no verdict).
        reasons: Sentences with the numbers that decided it.
        spread_limit: Seconds that count as even at this speed.
        slips, slips_allowed: Missed and extra notes, and how many may be.
    """

    mark: Mark
    reasons: tuple[str, ...]
    spread_limit: float
    slips: int
    slips_allowed: int


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


def spread_limit(evenness: Evenness, gap_seconds: float) -> float:
    """Return the spread that still counts as even, in seconds: a share of the gap with a floor.

    >>> round(spread_limit("working", 0.15625) * 1000)
    16
    """
    share, least, _, _ = EVENNESS[evenness]
    return max(float(share) * gap_seconds, float(least))


def verdict(figures: Figures, evenness: Evenness, source: Source) -> Verdict:
    """Return whether a measured take is clean; unclear where that cannot be said honestly."""
    limit = spread_limit(evenness, figures.gap_seconds)
    allowed = floor(EVENNESS[evenness][2] * figures.due)
    slips = figures.missed + figures.extra

    def say(mark: Mark, *reasons: str) -> Verdict:
        return Verdict(mark, reasons, limit, slips, allowed)

    if not figures.matched:
        return say("unclear", "Nothing was heard. Tap J or F with each note, or mark the take by ear.")
    if figures.matched < FEWEST_NOTES or figures.spread is None:
        return say(
            "unclear",
            f"{figures.matched} notes matched, too few to judge: {FEWEST_NOTES} are needed.",
        )
    if figures.matched < _POOREST_FIT * figures.due or figures.extra > figures.matched:
        return say(
            "unclear",
            f"Only {figures.matched} of {figures.due} notes fit the drill, with {figures.extra} extra: "
            "it may be another drill, or out by a slot. No verdict.",
        )
    resolution = SOURCES[source][1]
    if limit < 2 * resolution:
        return say("unclear", f"A limit of {_ms(limit)} ms cannot be judged with {SOURCES[source][0]}.")
    even = figures.spread.value <= limit
    spread = f"Spread {_ms(figures.spread.value)} ms (limit {_ms(limit)})"
    missed = f"{slips} missed or extra of {figures.due} (allowed {allowed})"
    return say("clean" if even and slips <= allowed else "shaky", f"{spread}, {missed}.")


def too_long(due: int) -> Verdict:
    """Return that a take is kept and not measured, because it has too many notes."""
    return Verdict(
        "unclear",
        (
            f"This take goes over {due:,} notes or more, and up to {MOST_MEASURED:,} are measured at once. "
            "It is kept as it was played. Play fewer passes, or mark it by ear.",
        ),
        0.0,
        0,
        0,
    )


def by_ear(mark: Literal["clean", "shaky"], who: str) -> Verdict:
    """Return the verdict of a person's ear; it stands as it is."""
    return Verdict(mark, (f"Marked {mark} by ear, by the {who}.",), 0.0, 0, 0)


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
    for mark in reversed([mark for mark in marks if mark != "unclear"]):
        if mark != wanted:
            break
        run += 1
    return run


def _takes(count: int, kind: str) -> str:
    words = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")
    number = words[count] if count < len(words) else str(count)
    return f"{number} {kind} take" + ("" if count == 1 else "s")


def _ms(seconds: float) -> int:
    return round(seconds * 1000)
