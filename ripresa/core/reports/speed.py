"""How fast a drill is: from the gaps between its notes as it goes round, the one across the repeat among them."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from itertools import groupby, pairwise

from ripresa.core.drill import Drill
from ripresa.core.grid import Event
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import Swing, span_seconds


@dataclass(frozen=True, slots=True)
class Speeds:
    """Peak (shortest gap of the loop) and average speed, in notes a second."""

    peak_nps: Fraction
    average_nps: Fraction


@dataclass(frozen=True, slots=True)
class LegSpeed:
    """The speed of a leg, in beats of the bpm.

    Args:
        gap: The shortest distance between its notes as they are written, straight: what its notes a second come from.
        gaps: The shortest distances as they are played, the longest first: two where a pair swings.
    """

    gap: Fraction
    gaps: tuple[Fraction, ...]


def peak_per_beat(reading: Reading) -> Fraction:
    """Return notes per beat where the notes of a drill are closest, as it goes round; a lone note has the whole turn.

    >>> from ripresa.core.drill import Drill
    >>> from ripresa.core.drill.material import Count
    >>> str(peak_per_beat(read(Drill(material=Count("1 (&) (2) (3) & (4)")))))
    '2/3'
    """
    return 1 / min(loop_gaps(reading), default=reading.beats)


def peak_of(reading: Reading) -> Fraction:
    """Return notes per beat at the peak, 0 for a drill without notes."""
    return peak_per_beat(reading) if reading.notes else Fraction(0)


@lru_cache(maxsize=1024)
def peak_of_drill(drill: Drill) -> Fraction:
    """Return notes per beat at the peak of a drill; remembered, because climbs and logs ask for the same few."""
    return peak_of(read(drill))


def speeds(reading: Reading, bpm: Fraction) -> Speeds:
    """Return peak and average speed of a drill at a tempo; average is notes / seconds of a turn."""
    return Speeds(peak_of(reading) * bpm / 60, len(reading.notes) / span_seconds(reading.beats, bpm))


def loop_gaps(reading: Reading) -> Iterator[Fraction]:
    """Yield the beats from each note to the next, from the last to the first of the next turn too."""
    onsets = [event.onset for event in reading.notes]
    yield from (after - before for before, after in pairwise(onsets))
    if onsets:
        yield reading.beats - onsets[-1] + onsets[0]


def leg_speeds(reading: Reading) -> tuple[LegSpeed, ...]:
    """Return the speed of each leg: of the notes that follow each other inside it, gone round by itself."""
    written = reading if reading.drill.swing.ratio == 1 else read(replace(reading.drill, swing=Swing()))
    played = dict(_gaps_by_leg(reading))
    straight = dict(_gaps_by_leg(written))
    found = []
    for leg in reading.legs:
        gaps = straight.get(leg.index, [leg.beats])
        shortest = min(gaps)
        # Swing moves notes and none away, so that both are the same notes in the same order.
        swung = {gap for gap, even in zip(played.get(leg.index, gaps), gaps, strict=True) if even == shortest}
        found.append(LegSpeed(shortest, tuple(sorted(swung, reverse=True))))
    return tuple(found)


def _gaps_by_leg(reading: Reading) -> Iterator[tuple[int, list[Fraction]]]:
    """Yield each leg that has notes with its gaps: inside it, and from its last note to its first."""
    for index, inside in groupby(reading.notes, key=lambda event: event.leg):
        notes: list[Event] = list(inside)
        leg = reading.legs[index]
        around = leg.beats - notes[-1].onset + notes[0].onset
        gaps = [after.onset - before.onset for before, after in pairwise(notes)]
        yield index, [*gaps, around]
