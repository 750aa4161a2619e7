"""The verdict: is a take clean, by a school of evenness.

The rule is stated before the try, and a person's ear overrules it.
"""

from dataclasses import dataclass
from fractions import Fraction
from math import floor
from typing import Literal

from ripresa.core.takes.figures import FEWEST_NOTES, Figures

Mark = Literal["clean", "shaky", "unclear"]

EVENNESS: dict[str, tuple[Fraction, Fraction, Fraction, str]] = {
    # School: share of the gap, floor in seconds, share of notes that may be missed or extra, why.
    "easy": (Fraction(15, 100), Fraction(15, 1000), Fraction(6, 100), "For first steps, and for tired days."),
    "working": (Fraction(10, 100), Fraction(10, 1000), Fraction(3, 100), "What sounds even in a lesson room."),
    "strict": (Fraction(7, 100), Fraction(8, 1000), Fraction(1, 100), "For a recording or an audition."),
}
Evenness = Literal["easy", "working", "strict"]

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


def _ms(seconds: float) -> int:
    return round(seconds * 1000)
