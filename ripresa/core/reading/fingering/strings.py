"""Strings: which string and fret takes each note, by least movement.

A hand position covers four frets, a finger for each. Going through the notes,
the way is taken that costs least: leaving a position costs one and 0.3 a
fret, a string further 0.05, and a position a little for each fret up the neck,
so that low ones win where nothing else decides. The weights are our choice
(docs/decisions/0007); the search is the usual one for the cheapest path
(Viterbi).
"""

from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ripresa.core.grid import Touch

_FINGERS = 4
#: Open strings are taken from positions up to this one.
_LAST_OPEN = 3
_SHIFT, _PER_FRET, _PER_STRING, _HEIGHT = 1.0, 0.3, 0.05, 0.005


@lru_cache(maxsize=256)
def on_strings(strings: tuple[int, ...], frets: int, midis: tuple[int | None, ...]) -> tuple[Touch | None, ...]:
    """Return string, fret, finger and position of each note; None for what cannot be taken.

    Args:
        strings: Open strings as written MIDI notes, the thickest first.
        frets: Highest fret.
        midis: Written MIDI notes, None for a note without pitch.

    >>> [touch.shown for touch in on_strings((52, 57, 62, 67, 71, 76), 22, (60, 62, 64, 65)) if touch]
    ['5·3', '4·0', '4·2', '4·3']
    """
    ways = [_ways(strings, frets, midi) if midi is not None else [] for midi in midis]
    found: list[Touch | None] = [None] * len(midis)
    reached = [at for at, way in enumerate(ways) if way]
    if not reached:
        return tuple(found)
    backs: list[NDArray[np.intp]] = []
    cost = _standing(ways[reached[0]])
    for before, after in pairwise(reached):
        total = cost[:, None] + _moving(ways[before], ways[after])
        backs.append(total.argmin(axis=0))
        cost = total.min(axis=0) + _standing(ways[after])
    best = int(cost.argmin())
    for at, back in zip(reversed(reached), [*reversed(backs), None], strict=True):
        found[at] = ways[at][best]
        if back is not None:
            best = int(back[best])
    return tuple(found)


def _ways(strings: tuple[int, ...], frets: int, midi: int) -> list[Touch]:
    """Return every way to take a note: string, fret, and the position from which a finger reaches it."""
    found: list[Touch] = []
    for index, open_note in enumerate(strings):
        string, fret = len(strings) - index, midi - open_note
        if fret == 0:
            found += [Touch(0, string, 0, position) for position in range(1, _LAST_OPEN + 1)]
        elif 0 < fret <= frets:
            lowest = max(1, fret - _FINGERS + 1)
            found += [Touch(fret - position + 1, string, fret, position) for position in range(lowest, fret + 1)]
    return found


def _standing(ways: Sequence[Touch]) -> NDArray[np.float64]:
    return _HEIGHT * np.array([way.position or 0 for way in ways], dtype=np.float64)


def _moving(before: Sequence[Touch], after: Sequence[Touch]) -> NDArray[np.float64]:
    positions = [np.array([way.position or 0 for way in ways], dtype=np.float64) for ways in (before, after)]
    numbers = [np.array([way.string or 0 for way in ways], dtype=np.float64) for ways in (before, after)]
    frets = np.abs(positions[0][:, None] - positions[1][None, :])
    crossed = np.abs(numbers[0][:, None] - numbers[1][None, :])
    return (frets > 0) * _SHIFT + _PER_FRET * frets + _PER_STRING * crossed
