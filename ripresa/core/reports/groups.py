"""Displacement: groups that cross the beat, where they start and when they come home.

Group j of n notes at s per beat starts at note jn. A beat is met after
lcm(n, s) notes, a bar of B beats after lcm(n, s·B).
"""

from dataclasses import dataclass
from fractions import Fraction
from math import lcm

from ripresa.core.rhythm import Meter, count_word


@dataclass(frozen=True, slots=True)
class Realignment:
    """When groups come home.

    Args:
        size: Notes in a group. division: Notes per beat.
        beat_notes, beat_beats: Notes and beats until a group starts on a beat again.
        bar_notes, bars, groups: Notes, bars and groups until one starts on a bar line again.
    """

    size: int
    division: Fraction
    beat_notes: int
    beat_beats: Fraction
    bar_notes: int
    bars: Fraction
    groups: int

    @property
    def crosses_beat(self) -> bool:
        """Whether groups start anywhere but on beats."""
        return self.beat_notes > self.size or self.division.numerator > self.size


@dataclass(frozen=True, slots=True)
class Landing:
    """Where one group starts: bar and beat from 1, slot from 0, and its count word."""

    group: int
    bar: int
    beat: int
    slot: int
    count: str


def realignment(size: int, division: Fraction, meter: Meter) -> Realignment:
    """Return when groups of ``size`` notes come home to the beat and to the bar line.

    >>> from ripresa.core.rhythm import METERS
    >>> home = realignment(5, Fraction(4), METERS["4/4"])
    >>> home.beat_notes, home.bar_notes, home.groups
    (20, 80, 16)
    """
    beat_notes = lcm(size, division.numerator)
    # A beat holds as many notes whatever its length, so bars are counted in beats.
    bar_notes = lcm(size, (division * len(meter.beats)).numerator)
    return Realignment(
        size=size,
        division=division,
        beat_notes=beat_notes,
        beat_beats=beat_notes / division,
        bar_notes=bar_notes,
        bars=bar_notes / division / len(meter.beats),
        groups=bar_notes // size,
    )


def landings(size: int, division: Fraction, meter: Meter) -> tuple[Landing, ...]:
    """Return where every group starts, up to the one before it comes home to a bar line."""
    found = []
    for group in range(realignment(size, division, meter).groups):
        bar, within = divmod(group * size / division, len(meter.beats))
        beat, inside = divmod(within, 1)
        slot = int(inside * division)
        found.append(Landing(group, int(bar) + 1, int(beat) + 1, slot, count_word(division, int(beat) + 1, slot)))
    return tuple(found)


def note_on_beat(beat: int, division: int, size: int) -> int:
    """Return which note of the group a beat hits, from 1: ``(b·s mod n) + 1``, beats counted from 0.

    >>> [note_on_beat(beat, 4, 5) for beat in range(6)]
    [1, 5, 4, 3, 2, 1]
    """
    return beat * division % size + 1
