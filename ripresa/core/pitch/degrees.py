"""Degrees: which tone of a scale a pitch is, and the way back, so that a line can be moved or mirrored in its scale."""

from collections.abc import Sequence

from ripresa.core.pitch.keys import chromatic
from ripresa.core.pitch.pitch import Pitch, above
from ripresa.core.pitch.scales import SCALES, Scale


def degree_of(pitch: Pitch, tonic: Pitch, tones: Scale, *, going_down: bool = False) -> tuple[int, int]:
    """Return the number of a tone above the tonic, from 0, and the semitones by which the pitch is raised from it.

    >>> from ripresa.core.pitch.scales import SCALES
    >>> degree_of(Pitch(2, -1, 5), Pitch(0, 0, 4), SCALES["major"])
    (8, 1)
    """
    octaves, inside = divmod(pitch.midi - tonic.midi, 12)
    row = tones.down if going_down else tones.up
    other = tones.up if going_down else tones.down
    for steps in (row, other):
        for number, (_, semitones) in enumerate(steps):
            if semitones == inside:
                return number + octaves * tones.degrees, 0
    number = max(number for number, (_, semitones) in enumerate(row) if semitones < inside)
    return number + octaves * tones.degrees, inside - row[number][1]


def on_degree(number: int, raised: int, tonic: Pitch, tones: Scale, *, going_down: bool = False) -> Pitch:
    """Return the pitch of a tone above a tonic, raised by so many semitones."""
    letters, semitones = tones.degree(number, going_down=going_down)
    if tones == SCALES["chromatic"]:
        return chromatic(tonic, semitones + raised, going_down=going_down)
    return above(tonic, letters, semitones + raised)


def directions(pitches: Sequence[Pitch | None]) -> list[bool]:
    """Return for each pitch whether it belongs to a way down: the next is lower; the last goes as the one before.

    >>> directions([Pitch(0, 0, 4), Pitch(1, 0, 4), Pitch(0, 0, 4)])
    [False, True, True]
    """
    midis = [pitch.midi if pitch else None for pitch in pitches]
    found: list[bool] = []
    for now, after in zip(midis, [*midis[1:], None], strict=True):
        if now is None or after is None or now == after:
            found.append(bool(found) and found[-1])
        else:
            found.append(after < now)
    return found
