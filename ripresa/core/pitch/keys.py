"""Key signatures: the one under which the fewest notes need a sign of their own."""

from collections.abc import Iterable
from dataclasses import dataclass

from ripresa.core.pitch.pitch import Pitch
from ripresa.core.pitch.scales import SCALES

#: The letters in the order in which sharps are added; flats are added the other way round.
_SHARPS = (3, 0, 4, 1, 5, 2, 6)
#: How many sharps the major key on each natural letter has, C first.
_ON_NATURAL = (0, 2, 4, -1, 1, 3, 5)
_MOST = 7


@dataclass(frozen=True, slots=True)
class Key:
    """A key signature.

    Args:
        fifths: Sharps, or flats below 0; −7 to 7.
        mode: ``"major"``, ``"minor"``, or a mode's name.
    """

    fifths: int
    mode: str = "major"

    def alter(self, letter: int) -> int:
        """Return the semitones by which the signature alters a letter, 0 (C) to 6 (B).

        >>> Key(1).alter(3), Key(-2).alter(2), Key(0).alter(0)
        (1, -1, 0)
        """
        place = _SHARPS.index(letter)
        if self.fifths > 0:
            return int(place < self.fifths)
        return -int(_MOST - 1 - place < -self.fifths)


def key_of(notes: Iterable[Pitch], tonic: Pitch | None = None, scale: str = "") -> Key:
    """Return the signature that fits some notes best; where several do, the one nearest to the tonic's own.

    Args:
        notes: In any octave; each spelling counts once.
        tonic: The note that they are at home on; C where nobody says.
        scale: Key of ``SCALES``; whether its third is minor decides the tonic's own signature.

    >>> key_of([Pitch(0, 1, 4), Pitch(6, 0, 4), Pitch(3, 1, 4)], Pitch(1, 0, 4), "major")
    Key(fifths=2, mode='major')
    """
    spelt = {(note.letter, note.alter) for note in notes}
    is_minor = scale in SCALES and SCALES[scale].is_minor
    home = _own(tonic, is_minor=is_minor) if tonic else 0
    fifths = min(
        range(-_MOST, _MOST + 1),
        key=lambda one: (sum(Key(one).alter(letter) != alter for letter, alter in spelt), abs(one - home), abs(one)),
    )
    named = scale if scale in _MODES else ""
    return Key(fifths, named or ("minor" if is_minor else "major"))


def _own(tonic: Pitch, *, is_minor: bool) -> int:
    return major_fifths(tonic) - 3 * is_minor


def major_fifths(tonic: Pitch) -> int:
    """Return the sharps of the tonic's major key, flats under 0: each sharp of the tonic is seven more.

    >>> major_fifths(Pitch(3, 0, 4)), major_fifths(Pitch(0, 1, 4))
    (-1, 7)
    """
    return _ON_NATURAL[tonic.letter] + 7 * tonic.alter


#: Black keys by sharps and by flats.
_BY_SHARPS = {1: (0, 1), 3: (1, 1), 6: (3, 1), 8: (4, 1), 10: (5, 1)}
_BY_FLATS = {1: (1, -1), 3: (2, -1), 6: (4, -1), 8: (5, -1), 10: (6, -1)}
_NATURALS = {0: 0, 2: 1, 4: 2, 5: 3, 7: 4, 9: 5, 11: 6}


def chromatic(tonic: Pitch, semitones: int, *, going_down: bool = False) -> Pitch:
    """Return a note of a chromatic scale as it is spelt in the tonic's major key.

    Its own notes as the key has them; the others are raised on the way up and lowered on the way down, and no E sharp,
    C flat or double sign stands but in a key that has it.

    >>> [chromatic(Pitch(2, 0, 4), step).name for step in range(6)]
    ['E4', 'F4', 'F#4', 'G4', 'G#4', 'A4']
    """
    midi = tonic.midi + semitones
    inside = midi % 12
    fifths = major_fifths(tonic)
    own = {}
    if abs(fifths) <= _MOST:
        key = Key(fifths)
        own = {(natural + key.alter(letter)) % 12: (letter, key.alter(letter)) for natural, letter in _NATURALS.items()}
    black = _BY_FLATS if going_down else _BY_SHARPS
    letter, alter = own.get(inside) or black.get(inside) or (_NATURALS[inside], 0)
    if inside == tonic.midi % 12:
        letter, alter = tonic.letter, tonic.alter
    return Pitch(letter, alter, (midi - alter) // 12 - 1)


_MODES = {"dorian", "phrygian", "lydian", "mixolydian", "locrian"}
