"""Beams: notes shorter than a quarter are joined within their beat, or their tuplet; a rest parts them."""

from collections.abc import Sequence

from ripresa.formats.notation.ticks import TickBar
from ripresa.formats.notation.values import Written

#: How many beams a note value has.
_BEAMS = {"eighth": 1, "16th": 2, "32nd": 3, "64th": 4, "128th": 5, "256th": 6, "512th": 7, "1024th": 8}
#: MusicXML numbers beams up to this.
_MOST = 8


def beam(bar: TickBar, notes: Sequence[Written]) -> None:
    """Write into the notes of a bar what their beams do."""
    group: list[Written] = []
    where: object = None
    for note in notes:
        here = _stretch(bar, note) if note.sounds and note.value in _BEAMS else None
        if here is None or here != where:
            _join(group)
            group = []
        where = here
        if here is not None:
            group.append(note)
    _join(group)


def _stretch(bar: TickBar, note: Written) -> object:
    """Return a mark that is the same for all notes that one beam may join."""
    if note.tuplet:
        return note.tuplet
    return bar.beat_of(note.start)[0]


def _join(group: Sequence[Written]) -> None:
    if len(group) < 2:
        return
    counts = [_BEAMS[note.value] for note in group]
    for number, note in enumerate(group):
        before = counts[number - 1] if number else 0
        after = counts[number + 1] if number + 1 < len(group) else 0
        note.beams = tuple(_at(level, before, after) for level in range(1, min(counts[number], _MOST) + 1))


def _at(level: int, before: int, after: int) -> str:
    """Return what a beam of a level does at a note, by the beams of its neighbours."""
    if level <= before:
        return "continue" if level <= after else "end"
    if level <= after:
        return "begin"
    return "backward hook" if before else "forward hook"
