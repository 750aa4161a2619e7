"""Strings: which string and fret takes each note, by least movement.

A hand position covers four frets, a finger for each. Going through the notes, the way is taken that costs least:
leaving a position costs one and 0.3 a fret, a leap of over four frets more with its square, a string further 0.05, and
a position a little for each fret up the neck, so that low ones win where nothing else decides; an open string spares a
little. The weights are our choice (docs/decisions/0007); the search is the usual one for the cheapest path (Viterbi).
"""

from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ripresa.core.grid import Touch
from ripresa.core.reading.fingering.layouts import sounding_strings

_FINGERS = 4
#: Open strings are taken from positions up to this one.
_LAST_OPEN = 3
_SHIFT, _PER_FRET, _PER_STRING, _HEIGHT = 1.0, 0.3, 0.05, 0.005
#: Frets of a shift that the hand finds by itself, and what each further one adds, squared.
_NEAR, _LEAP = 4, 0.2
#: One finger on two neighbouring frets of a string: never, where there is another way.
_TWICE = 20.0
#: What an open string spares: less than any movement, so that it decides between two ways that are equal.
_OPEN = 0.02


@lru_cache(maxsize=256)
def on_strings(
    strings: tuple[int, ...], frets: int, midis: tuple[int | None, ...], each: int = 1
) -> tuple[Touch | None, ...]:
    """Return string, fret, finger and position of each note; None for what cannot be taken.

    Args:
        strings: Open strings as written MIDI notes, the thickest first.
        frets: Highest fret.
        midis: Written MIDI notes, None for a note without pitch.
        each: Frets under each finger: one, or two where the neck is short.

    >>> [touch.shown for touch in on_strings((52, 57, 62, 67, 71, 76), 22, (60, 62, 64, 65)) if touch]
    ['5·3', '4·0', '4·2', '4·3']
    """
    ways = [_ways(strings, frets, midi, each) if midi is not None else [] for midi in midis]
    found: list[Touch | None] = [None] * len(midis)
    reached = [at for at, way in enumerate(ways) if way]
    if not reached:
        return tuple(found)
    backs: list[NDArray[np.intp]] = []
    cost = _standing(ways[reached[0]])
    for before, after in pairwise(reached):
        total = cost[:, None] + _moving(ways[before], ways[after], each)
        backs.append(total.argmin(axis=0))
        cost = total.min(axis=0) + _standing(ways[after])
    best = int(cost.argmin())
    for at, back in zip(reversed(reached), [*reversed(backs), None], strict=True):
        found[at] = ways[at][best]
        if back is not None:
            best = int(back[best])
    return tuple(found)


def _ways(strings: tuple[int, ...], frets: int, midi: int, each: int) -> list[Touch]:
    """Return every way to take a note: string, fret, and the position from which a finger reaches it."""
    found: list[Touch] = []
    for string, open_note in sounding_strings(strings):
        fret = midi - open_note
        if fret == 0:
            found += [Touch(0, string, 0, position) for position in range(1, _LAST_OPEN + 1)]
        elif 0 < fret <= frets:
            # Two frets a finger: the fourth one reaches the seventh fret.
            lowest = max(1, fret - (_FINGERS - 1) * each)
            found += [
                Touch((fret - position) // each + 1, string, fret, position) for position in range(lowest, fret + 1)
            ]
    return found


def _standing(ways: Sequence[Touch]) -> NDArray[np.float64]:
    return np.array([_HEIGHT * (way.position or 0) - _OPEN * (way.fret == 0) for way in ways], dtype=np.float64)


def _moving(before: Sequence[Touch], after: Sequence[Touch], each: int) -> NDArray[np.float64]:
    positions = [np.array([way.position or 0 for way in ways], dtype=np.float64) for ways in (before, after)]
    numbers = [np.array([way.string or 0 for way in ways], dtype=np.float64) for ways in (before, after)]
    frets = np.abs(positions[0][:, None] - positions[1][None, :])
    crossed = np.abs(numbers[0][:, None] - numbers[1][None, :])
    taken = [np.array([(way.finger, way.string, way.fret) for way in ways]) for ways in (before, after)]
    same = (taken[0][:, None, :2] == taken[1][None, :, :2]).all(axis=2) & (taken[0][:, None, 0] > 0)
    twice = same & (np.abs(taken[0][:, None, 2] - taken[1][None, :, 2]) == 1)
    leap = _LEAP * np.maximum(0.0, frets - _NEAR) ** 2
    cost: NDArray[np.float64] = (
        (frets > 0) * _SHIFT + _PER_FRET * frets + leap + _PER_STRING * crossed + _TWICE * twice * (each == 1)
    )
    return cost
