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
    is_minor = scale in SCALES and _is_minor(scale)
    home = _own(tonic, is_minor=is_minor) if tonic else 0
    fifths = min(
        range(-_MOST, _MOST + 1),
        key=lambda one: (sum(Key(one).alter(letter) != alter for letter, alter in spelt), abs(one - home), abs(one)),
    )
    named = scale if scale in _MODES else ""
    return Key(fifths, named or ("minor" if is_minor else "major"))


def _own(tonic: Pitch, *, is_minor: bool) -> int:
    """Return the sharps of the tonic's major or minor key: each sharp of the tonic is seven more."""
    return _ON_NATURAL[tonic.letter] + 7 * tonic.alter - 3 * is_minor


def _is_minor(scale: str) -> bool:
    semitones = {above for _, above in SCALES[scale].up}
    return 3 in semitones and 4 not in semitones


_MODES = {"dorian", "phrygian", "lydian", "mixolydian", "locrian"}
