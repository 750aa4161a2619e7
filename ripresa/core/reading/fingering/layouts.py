"""Layouts on strings: all in one position, or the same number of notes on each string."""

from collections.abc import Sequence
from functools import lru_cache

from ripresa.core.grid import Touch

#: Frets that a position holds: one for each finger, and one that the first or the fourth stretches to.
_FRETS = 5
_FINGERS = 4

Midis = tuple[int | None, ...]


@lru_cache(maxsize=256)
def in_position(strings: tuple[int, ...], frets: int, midis: Midis) -> tuple[Touch | None, ...] | None:
    """Return each note in one position, the lowest on the neck that holds all; None where none does.

    Args:
        strings: Open strings as written MIDI notes, the thickest first. frets: The highest fret.
        midis: Written MIDI notes, None for a note without pitch.

    >>> found = in_position((52, 57, 62, 67, 71, 76), 22, (60, 62, 64, 65, 67, 69, 71, 72))
    >>> [touch.shown for touch in found or () if touch]
    ['5·3', '5·5', '4·2', '4·3', '4·5', '3·2', '3·4', '2·1']
    """
    wanted = sorted({midi for midi in midis if midi is not None})
    for position in range(1, frets - _FRETS + 2):
        placed = {midi: _within(strings, position, midi) for midi in wanted}
        if all(placed.values()):
            return tuple(None if midi is None else placed[midi] for midi in midis)
    return None


def _within(strings: Sequence[int], position: int, midi: int) -> Touch | None:
    """Return how a note is taken from a position: under the four fingers if it can be, else stretched to."""
    ways = [
        Touch(min(fret - position + 1, _FINGERS), len(strings) - index, fret, position)
        for index, open_note in enumerate(strings)
        if position <= (fret := midi - open_note) < position + _FRETS
    ]
    return min(ways, key=lambda touch: (touch.fret or 0) - position >= _FINGERS, default=None)


@lru_cache(maxsize=256)
def so_many_a_string(strings: tuple[int, ...], frets: int, midis: Midis, count: int) -> tuple[Touch | None, ...] | None:
    """Return the notes with so many on each string, from the thickest string that has them; None where the neck ends.

    Each pitch has one place, whichever way the line goes.

    >>> found = so_many_a_string((52, 57, 62, 67, 71, 76), 22, (55, 57, 59, 60, 62, 64), 3)
    >>> [touch.shown for touch in found or () if touch]
    ['6·3', '6·5', '6·7', '5·3', '5·5', '5·7']
    """
    wanted = sorted({midi for midi in midis if midi is not None})
    groups = [wanted[at : at + count] for at in range(0, len(wanted), count)]
    for first in range(len(strings) - len(groups) + 1):
        placed: dict[int, Touch] = {}
        for group, open_note, number in zip(groups, strings[first:], range(len(strings) - first, 0, -1), strict=False):
            held = [midi - open_note for midi in group]
            if held[0] < 0 or held[-1] > frets:
                break
            position = max(1, min((fret for fret in held if fret), default=1))
            for midi, fret in zip(group, held, strict=True):
                finger = 0 if fret == 0 else min(fret - position + 1, _FINGERS)
                placed[midi] = Touch(finger, number, fret, position)
        if len(placed) == len(wanted):
            return tuple(None if midi is None else placed[midi] for midi in midis)
    return None
