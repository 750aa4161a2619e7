"""Layouts on strings: all in one position, or the same number of notes on each string.

A position is a place of four frets, a finger for each; the first and the fourth stretch by one fret where nothing else
has a note. No finger takes two neighbouring frets of a string.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import islice, pairwise, product

from ripresa.core.grid import Touch

_FINGERS = 4
#: Frets of a position with its stretches: one under the first finger, one over the fourth.
_REACH = 6
#: Ways in which stretched notes are tried on two strings.
_MOST_TRIED = 64

Midis = tuple[int | None, ...]
#: (string, fret) of a note.
Where = tuple[int, int]


@dataclass(frozen=True, slots=True)
class Neck:
    """Strings to finger on.

    Args:
        strings: Open strings as written MIDI notes, the thickest first. frets: The highest fret.
        fret: Of the first finger; 0 where it is looked for. root: The string that has the lowest note; 0 for any.
    """

    strings: tuple[int, ...]
    frets: int
    fret: int = 0
    root: int = 0


@lru_cache(maxsize=512)
def in_position(neck: Neck, midis: Midis) -> tuple[Touch | None, ...] | None:
    """Return each note in one position; None where none holds all of them.

    Of the positions it is the one with the fewest stretches, then with its lowest note on the thickest string, then
    without open strings, then with that note under the first fingers.

    Args:
        midis: Written MIDI notes, None for a note without pitch.

    >>> found = in_position(Neck((52, 57, 62, 67, 71, 76), 22), (55, 57, 59, 60, 62, 64, 66, 67))
    >>> [touch.shown for touch in found or () if touch]
    ['6·3', '6·5', '5·2', '5·3', '5·5', '4·2', '4·4', '4·5']
    """
    wanted = sorted({midi for midi in midis if midi is not None})
    if not wanted:
        return None
    ways: list[tuple[tuple[int, ...], dict[int, Touch]]] = []
    for position in [neck.fret] if neck.fret else range(1, max(2, neck.frets - _FINGERS + 2)):
        placed = _placed(neck, position, wanted)
        if placed is None:
            continue
        low = placed[wanted[0]]
        if neck.root and low.string != neck.root:
            continue
        stretched = sum(_is_stretch(touch, position) for touch in placed.values())
        opened = sum(touch.fret == 0 for touch in placed.values())
        ways.append(((stretched, -(low.string or 0), opened, low.finger, position), placed))
    if not ways:
        return None
    _, best = min(ways, key=lambda way: way[0])
    return tuple(None if midi is None else best[midi] for midi in midis)


@lru_cache(maxsize=512)
def notes_in(neck: Neck, position: int, midis: tuple[int, ...]) -> tuple[int, ...]:
    """Return which notes of a scale, rising, lie in a position without a gap from string to string; else none.

    >>> neck = Neck((52, 57, 62, 67, 71, 76), 22)
    >>> len(notes_in(neck, 5, tuple(midi for midi in range(52, 98) if midi % 12 in {9, 0, 2, 4, 7})))
    12
    """
    held: list[int] = []
    for midi in midis:
        if any(position <= midi - open_note < position + _FINGERS for open_note in neck.strings):
            held.append(midi)
    if not held:
        return ()
    run = tuple(midi for midi in midis if held[0] <= midi <= held[-1])
    return run if _placed(neck, position, run) else ()


def stretches(neck: Neck, position: int, midis: tuple[int, ...]) -> int:
    """Return how many notes of a position are stretched to."""
    placed = _placed(neck, position, midis) or {}
    return sum(_is_stretch(touch, position) for touch in placed.values())


def _is_stretch(touch: Touch, position: int) -> bool:
    return bool(touch.fret) and not position <= (touch.fret or 0) < position + _FINGERS


def _placed(neck: Neck, position: int, midis: Sequence[int]) -> dict[int, Touch] | None:
    """Return how each note is taken in a position: under the four fingers if it can be, else stretched to."""
    lowest = 0 if position == 1 else position - 1
    open_to: list[list[Where]] = []
    for midi in midis:
        ways = [
            (number, midi - open_note)
            for number, open_note in sounding_strings(neck.strings)
            if lowest <= midi - open_note < min(position + _REACH - 1, neck.frets + 1)
        ]
        if not ways:
            return None
        # Under the fingers or open first; of two strings the thinner one.
        ways.sort(key=lambda way: (_far(way[1], position), way[0]))
        # What is stretched to may lie on either of two strings: on one of them a finger may be free.
        open_to.append(ways if _far(ways[0][1], position) else ways[:1])
    tried = islice(product(*open_to), _MOST_TRIED)
    found = (_fingered(dict(zip(midis, way, strict=True)), position) for way in tried)
    return next((one for one in found if one), None)


def _far(fret: int, position: int) -> int:
    """Return how far a fret lies out of a position; what is open lies under no finger, and is always near."""
    return 0 if fret == 0 else max(0, position - fret, fret - position - _FINGERS + 1)


def sounding_strings(strings: Sequence[int]) -> Iterator[tuple[int, int]]:
    """Yield (string, open note) of those that a tune is played on: none that lies higher than its thinner neighbour."""
    for index, open_note in enumerate(strings):
        if index + 1 == len(strings) or open_note < strings[index + 1]:
            yield len(strings) - index, open_note


def _fingered(where: dict[int, Where], position: int) -> dict[int, Touch] | None:
    """Return notes with their fingers, string by string; None where one finger would take neighbouring frets."""
    found: dict[int, Touch] = {}
    for string in {string for string, _ in where.values()}:
        frets = sorted(fret for number, fret in where.values() if number == string)
        fingers = _on_one_string([fret for fret in frets if fret], position)
        if fingers is None:
            return None
        for midi, (number, fret) in where.items():
            if number == string:
                found[midi] = Touch(fingers[fret] if fret else 0, string, fret, position)
    return found


def _on_one_string(frets: Sequence[int], position: int) -> dict[int, int] | None:
    """Return the fingers of frets on one string: a fret each, or moved by one where the hand stretches."""
    for first in (position, position - 1, position + 1):
        if all(first <= fret < first + _FINGERS for fret in frets):
            return {fret: fret - first + 1 for fret in frets}
    fingers = {fret: max(1, min(_FINGERS, fret - position + 1)) for fret in frets}
    return None if _twice(fingers) else fingers


def _twice(fingers: dict[int, int]) -> bool:
    """Whether one finger takes two neighbouring frets."""
    return any(after == before + 1 and fingers[after] == fingers[before] for before, after in pairwise(sorted(fingers)))


@lru_cache(maxsize=256)
def so_many_a_string(neck: Neck, midis: Midis, count: int) -> tuple[Touch | None, ...] | None:
    """Return the notes with so many on each string, from the thickest string that has them; None where the neck ends.

    Each pitch has one place, whichever way the line goes. Where one position holds all of it, it stays there.

    >>> found = so_many_a_string(Neck((52, 57, 62, 67, 71, 76), 22), (55, 57, 59, 60, 62, 64), 3)
    >>> [f"{touch.shown} {touch.finger}" for touch in found or () if touch]
    ['6·3 1', '6·5 2', '6·7 4', '5·3 1', '5·5 2', '5·7 4']
    """
    wanted = sorted({midi for midi in midis if midi is not None})
    groups = [wanted[at : at + count] for at in range(0, len(wanted), count)]
    strings = list(sounding_strings(neck.strings))
    for first in range(len(strings) - len(groups) + 1):
        where: dict[int, Where] = {}
        for group, (number, open_note) in zip(groups, strings[first:], strict=False):
            held = [midi - open_note for midi in group]
            if held[0] < 0 or held[-1] > neck.frets:
                break
            where.update({midi: (number, fret) for midi, fret in zip(group, held, strict=True)})
        if len(where) < len(wanted):
            continue
        placed = _in_one_place(where) or _string_by_string(where)
        if placed:
            return tuple(None if midi is None else placed[midi] for midi in midis)
    return None


def _in_one_place(where: dict[int, Where]) -> dict[int, Touch] | None:
    """Return notes in the one position that holds all of them as they lie; None where none does."""
    frets = [fret for _, fret in where.values() if fret]
    if not frets or max(frets) - min(frets) >= _FINGERS:
        return None
    return _fingered(where, min(frets))


def _string_by_string(where: dict[int, Where]) -> dict[int, Touch] | None:
    """Return notes with the hand where each string wants it, with a shift on a string that four fingers do not hold."""
    found: dict[int, Touch] = {}
    for string in {string for string, _ in where.values()}:
        mine = {midi: fret for midi, (number, fret) in where.items() if number == string}
        hand = _along([fret for fret in sorted(mine.values()) if fret])
        if hand is None:
            return None
        for midi, fret in mine.items():
            finger, position = hand[fret] if fret else (0, hand[min(hand)][1] if hand else 1)
            found[midi] = Touch(finger, string, fret, position)
    return found


def _along(frets: Sequence[int]) -> dict[int, tuple[int, int]] | None:
    """Return (finger, position) of each fret of one string: in one place, stretched to, or with the smallest shift."""
    if not frets:
        return {}
    low, high = frets[0], frets[-1]
    if high - low < _FINGERS:
        return {fret: (fret - low + 1, low) for fret in frets}
    if high - low == _FINGERS and len(frets) <= _FINGERS - 1:
        # Five frets: the first finger or the fourth stretches, and the middle one lies where it falls.
        return {fret: (1 if fret == low else 4 if fret == high else max(2, min(3, fret - low)), low) for fret in frets}
    best: tuple[int, dict[int, tuple[int, int]]] | None = None
    for split in range(1, len(frets)):
        for after in range(max(low + 1, high - _FINGERS + 1), frets[split] + 1):
            hand = {fret: (fret - low + 1, low) for fret in frets[:split]}
            hand |= {fret: (fret - after + 1, after) for fret in frets[split:]}
            if frets[split - 1] - low >= _FINGERS or _twice({fret: finger for fret, (finger, _) in hand.items()}):
                continue
            if best is None or after - low < best[0]:
                best = after - low, hand
    return best[1] if best else None
