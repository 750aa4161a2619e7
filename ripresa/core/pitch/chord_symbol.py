"""Chord symbols: ``D/F#`` or a typed grip, ``C=x32010``, read into tones."""

import re
from dataclasses import dataclass

from ripresa.core.errors import Unreadable
from ripresa.core.exact import plain_signs
from ripresa.core.pitch.frets import Frets, is_typed, parse_frets
from ripresa.core.pitch.instrument import STANDARD_STRINGS
from ripresa.core.pitch.pitch import Pitch, above, parse_tonic
from ripresa.core.pitch.scales import CHORDS, SCALE_OF_CHORD, SCALES, Scale

#: What follows the root in a symbol → key of ``CHORDS``.
QUALITIES: dict[str, str] = {
    "": "major_triad",
    "m": "minor_triad",
    "dim": "diminished_triad",
    "aug": "augmented_triad",
    "5": "fifth",
    "sus2": "suspended_second",
    "sus4": "suspended_fourth",
    "6": "sixth",
    "m6": "minor_sixth",
    "7": "dominant_seventh",
    "maj7": "major_seventh",
    "m7": "minor_seventh",
    "m7b5": "half_diminished",
    "dim7": "diminished_seventh",
    "add9": "added_ninth",
    "9": "dominant_ninth",
}
_SYMBOL = re.compile(
    r"^(?P<root>[A-G][b#]?)(?P<quality>maj7|m7b5|dim7|dim|aug|sus2|sus4|add9|m6|m7|m|5|6|7|9)?(?:/(?P<bass>[A-G][b#]?))?$"
)


@dataclass(frozen=True, slots=True)
class Chord:
    """A chord.

    Args:
        symbol: As it is typed, without its grip. root: In octave 4.
        bass: Another bass, if one is written. quality: What follows the root: ``m7``.
        frets: A grip that is typed, the thickest string first; empty without.
    """

    symbol: str
    root: Pitch
    tones: Scale
    bass: Pitch | None = None
    quality: str = ""
    frets: Frets = ()

    @property
    def shown(self) -> str:
        """The symbol with music signs."""
        return re.sub(r"(?<=[A-G])b", "♭", self.symbol).replace("#", "♯")

    def holds(self, pitch: Pitch) -> bool:
        """Whether a pitch, in any octave, is a tone of the chord."""
        return (pitch.midi - self.root.midi) % 12 in {semitones for _, semitones in self.tones.up}

    @property
    def scale(self) -> Scale:
        """The scale that is usual over it, on its root; by its third where it is a grip without a name."""
        known = next((SCALE_OF_CHORD.get(key) for key, tones in CHORDS.items() if tones == self.tones), None)
        is_minor = any(semitones == 3 for _, semitones in self.tones.up)
        return SCALES[known or ("dorian" if is_minor else "major")]


def parse_chord(symbol: str, where: str = "", field: str = "material.chords") -> Chord:
    """Return the chord of a symbol: ``C``, ``F#m7``, ``G/B``; with a grip, ``C=x32010``, or of a grip alone.

    Raises:
        Unreadable: It is not one; ``where`` is put before the sentence.

    >>> parse_chord("Am=x02210").frets, parse_chord("x32010").root.name
    ((None, 0, 2, 2, 1, 0), 'C4')
    """
    name, _, grip = plain_signs(symbol).partition("=")
    if not grip and is_typed(name):
        return _of_grip(name, parse_frets(name, where, field))
    found = _SYMBOL.match(name)
    if not found or ("=" in symbol and not is_typed(grip)):
        raise Unreadable(
            f"{where}“{symbol}” is not a chord. Write a root and what it is: C, Am, F#m7, Bb7, Dsus4, G/B; on strings "
            "its grip too, if another than the usual one is meant: C=x32010.",
            field=field,
        )
    bass = parse_tonic(found["bass"]) if found["bass"] else None
    quality = found["quality"] or ""
    frets = parse_frets(grip, where, field) if grip else ()
    return Chord(name, parse_tonic(found["root"]), CHORDS[QUALITIES[quality]], bass, quality, frets)


def _of_grip(text: str, frets: Frets) -> Chord:
    """Return the chord of a grip without a name: its lowest string is its root, on the usual tuning of a guitar."""
    strings = (*STANDARD_STRINGS, *STANDARD_STRINGS)[: len(frets)]
    sounding = [open_note + fret for open_note, fret in zip(strings, frets, strict=True) if fret is not None]
    root = above(_C, _STEPS[sounding[0] % 12], sounding[0] % 12)
    over = sorted({(midi - sounding[0]) % 12 for midi in sounding})
    tones = tuple((_STEPS[one], one) for one in over)
    return Chord(text, root, Scale("typed", tones, tones), frets=frets)


#: Semitones over a root → the steps of the letter by which they are spelt.
_STEPS = (0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6)
_C = Pitch(0, 0, 4)
