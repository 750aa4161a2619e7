"""Tempo and speed: bpm, notes a second, gaps, settings of a metronome, speed twins.

Speed in notes a second is ``bpm * notes per beat / 60``: sixty seconds to the
minute. Everything is exact; rounding is left to whoever shows it.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import median
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label, round_half_up

SLOWEST_BPM = Fraction(1)
FASTEST_BPM = Fraction(1000)

Settings = Literal["whole", "halves", "numbered"]

#: Numbers engraved on mechanical metronomes since the 19th century.
NUMBERED = (*range(40, 60, 2), *range(60, 72, 3), *range(72, 120, 4), *range(120, 144, 6), *range(144, 209, 8))

SETTINGS: dict[Settings, tuple[str, str]] = {
    "whole": ("whole bpm", "Any metronome of today can be set to it."),
    "halves": ("half bpm", "Finer steps near the top, where a whole bpm is felt."),
    "numbered": ("the numbered series", "For a mechanical metronome, which clicks into these places only."),
}


def check_bpm(bpm: Fraction, field: str = "bpm") -> Fraction:
    """Return the tempo, if it is one that can be played.

    Raises:
        OutOfRange: It is below 1 or above 1000 bpm (our limits).
    """
    if not SLOWEST_BPM <= bpm <= FASTEST_BPM:
        raise OutOfRange(
            f"A tempo of {label(bpm)} bpm cannot be played. Use {SLOWEST_BPM} to {FASTEST_BPM} bpm.", field=field
        )
    return bpm


def span_seconds(beats: Fraction, bpm: Fraction) -> Fraction:
    """Return how long ``beats`` last at a steady tempo, in seconds: ``beats * 60 / bpm``.

    >>> span_seconds(Fraction(1, 3), Fraction(90))
    Fraction(2, 9)
    """
    return beats * 60 / bpm


def gap_seconds(bpm: Fraction, division: Fraction) -> Fraction:
    """Return the time from note to note, in seconds: ``60 / (bpm * notes per beat)``.

    >>> gap_seconds(Fraction(84), Fraction(5))
    Fraction(1, 7)
    """
    return 60 / (bpm * division)


def speed_nps(bpm: Fraction, division: Fraction) -> Fraction:
    """Return the speed in notes a second: ``bpm * notes per beat / 60``.

    >>> speed_nps(Fraction(108), Fraction(4))
    Fraction(36, 5)
    """
    return bpm * division / 60


def bpm_for_speed(nps: Fraction, division: Fraction) -> Fraction:
    """Return the tempo that gives a speed: ``60 * notes a second / notes per beat``.

    Raises:
        OutOfRange: The speed is not above zero.

    >>> bpm_for_speed(Fraction(10), Fraction(4))
    Fraction(150, 1)
    """
    if nps <= 0:
        raise OutOfRange("A speed has to be above 0 notes a second.", field="nps")
    return 60 * nps / division


def setting(bpm: Fraction, settings: Settings) -> Fraction:
    """Return the nearest tempo that a metronome can be set to; halfway goes up.

    >>> setting(Fraction(336, 5), "whole"), setting(Fraction(70), "numbered")
    (Fraction(67, 1), Fraction(69, 1))
    """
    match settings:
        case "whole":
            return Fraction(max(1, round_half_up(bpm)))
        case "halves":
            return Fraction(max(1, round_half_up(bpm * 2)), 2)
        case "numbered":
            # The larger number first, so that min() keeps it where two are as near.
            return Fraction(min(reversed(NUMBERED), key=lambda number: abs(number - bpm)))


def speed_twins(nps: Fraction, divisions: Iterable[Fraction]) -> tuple[tuple[Fraction, Fraction], ...]:
    """Return (division, bpm) for every way to reach the same speed.

    >>> speed_twins(Fraction(28, 5), [Fraction(4), Fraction(5)])
    ((Fraction(4, 1), Fraction(84, 1)), (Fraction(5, 1), Fraction(336, 5)))
    """
    return tuple((division, bpm_for_speed(nps, division)) for division in divisions)


#: How far one press of slower or faster goes where no climb says: our choice, the step of a per-cent climb.
_NUDGE = Fraction(104, 100)


def neighbours(bpm: Fraction) -> tuple[Fraction, Fraction]:
    """Return the whole bpm one press slower and one press faster: about 4 %, at least 1 bpm, within the limits.

    >>> neighbours(Fraction(100))
    (Fraction(96, 1), Fraction(104, 1))
    """
    slower = min(setting(bpm / _NUDGE, "whole"), Fraction(math.ceil(bpm) - 1))
    faster = max(setting(bpm * _NUDGE, "whole"), Fraction(math.floor(bpm) + 1))
    return max(SLOWEST_BPM, slower), min(FASTEST_BPM, faster)


def band_place(nps: Fraction, low: Fraction, high: Fraction) -> Literal["below", "inside", "above"]:
    """Return where a speed stands to a target band; both edges belong to it."""
    if nps < low:
        return "below"
    return "inside" if nps <= high else "above"


MIDDLE_RATE = Fraction(140)
_PULSES = (Fraction(1, 2), *(Fraction(n) for n in (1, 2, 3, 4)))


def inner_pulse(bpm: Fraction, middle: Fraction = MIDDLE_RATE) -> Fraction:
    """Return which multiple of the beat (½, 1, 2, 3, 4) to count silently.

    The one whose rate is nearest to ``middle`` a minute by ratio: the school
    *middle rate*.

    >>> inner_pulse(Fraction(54))
    Fraction(3, 1)
    """
    return min(_PULSES, key=lambda multiple: abs(math.log(multiple * bpm / middle)))


#: Gear changes below this ratio are the hardest to place; marked (DOMAIN: ratios under 1.3).
NARROW_GEAR = Fraction(13, 10)


FEWEST_TAPS = 3
#: Taps further apart than this, in seconds, begin a new count: 20 bpm is slower than anyone taps.
_LONGEST_TAP = Fraction(3)


def tapped_bpm(taps: Sequence[float]) -> Fraction:
    """Return the whole bpm of beats that were tapped, from the median of the last gaps between them.

    The median, because one late tap should not drag the tempo. Only what was
    tapped without a pause counts, the last eight gaps at most.

    Args:
        taps: Moments in seconds, rising.

    Raises:
        OutOfRange: Fewer than three taps without a pause, or a tempo that cannot be played.

    >>> tapped_bpm([0.0, 0.5, 1.0, 1.52])
    Fraction(120, 1)
    """
    gaps: list[float] = []
    for before, after in pairwise(taps):
        gap = after - before
        if gap <= 0:
            raise OutOfRange("Taps come one after the other.", field="taps")
        gaps = [] if gap > _LONGEST_TAP else [*gaps, gap]
    if len(gaps) < FEWEST_TAPS - 1:
        raise OutOfRange(f"Tap at least {FEWEST_TAPS} beats without a pause.", field="taps")
    return check_bpm(Fraction(round(60 / median(gaps[-8:]))))


@dataclass(frozen=True, slots=True)
class GearChange:
    """The step from one division to the next; the beat does not move.

    Args:
        before, after: Notes per beat.
        gap_before, gap_after: Seconds from note to note.
    """

    before: Fraction
    after: Fraction
    gap_before: Fraction
    gap_after: Fraction

    @property
    def gap_ratio(self) -> Fraction:
        """New gap / old gap."""
        return self.gap_after / self.gap_before

    @property
    def speed_change(self) -> Fraction:
        """Change of speed as a share: 1/5 is 20 % faster."""
        return self.gap_before / self.gap_after - 1

    @property
    def is_narrow(self) -> bool:
        """Whether the two are under 1.3 apart, in either direction."""
        ratio = max(self.gap_ratio, 1 / self.gap_ratio)
        return 1 < ratio < NARROW_GEAR


def gear_change(
    before: Fraction, after: Fraction, bpm: Fraction, slots: tuple[Fraction, Fraction] | None = None
) -> GearChange:
    """Return what changes from one division to the next at a tempo.

    Args:
        before, after: Notes per beat.
        slots: Beats that a note of each lasts, where beats are unequal.

    >>> float(round(gear_change(Fraction(5), Fraction(6), Fraction(84)).gap_ratio, 3))
    0.833
    """
    first, second = slots or (1 / before, 1 / after)
    return GearChange(before, after, span_seconds(first, bpm), span_seconds(second, bpm))
