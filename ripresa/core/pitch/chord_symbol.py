"""Chord symbols: ``D/F#`` or a typed grip, ``C=x32010``, read into tones."""

import re
from dataclasses import dataclass

from ripresa.core.errors import Unreadable
from ripresa.core.exact import plain_signs
from ripresa.core.pitch.frets import Frets, is_typed, parse_frets
from ripresa.core.pitch.instruments import STANDARD_STRINGS
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
    "maj9": "major_ninth",
    "m9": "minor_ninth",
    "13": "thirteenth",
    "7sus4": "suspended_seventh",
    "7#9": "sharp_ninth",
    "7b9": "flat_ninth",
}
#: What is written otherwise → as it stands above.
_ALSO: dict[str, str] = {
    **dict.fromkeys(("maj", "M", "ma"), ""),
    **{f"{minor}{more}": f"m{more}" for minor in ("min", "mi", "-") for more in ("", "6", "7", "9", "7b5")},
    **{f"{major}{more}": f"maj{more}" for major in ("M", "ma", "Maj", "Δ", "j") for more in ("7", "9")},
    **dict.fromkeys(("Δ",), "maj7"),
    **dict.fromkeys(("ø", "ø7"), "m7b5"),
    **dict.fromkeys(("°", "o"), "dim"),
    **dict.fromkeys(("°7", "o7"), "dim7"),
    "+": "aug",
    "sus": "sus4",
    "7sus": "7sus4",
    "2": "sus2",
    "dom7": "7",
}
#: No chord: nothing sounds until the next one.
NO_CHORD = "N.C."
#: What the tones of a grip without a name are called.
_GRIP = "typed"
_NONE = {"N.C.", "NC", "N.C", "n.c."}
_QUALITY = "|".join(re.escape(one) for one in sorted({*QUALITIES, *_ALSO} - {""}, key=len, reverse=True))
_SYMBOL = re.compile(rf"^(?P<root>[A-G][b#]?)(?P<quality>{_QUALITY})?(?:/(?P<bass>[A-G][b#]?))?$")


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
    def is_grip(self) -> bool:
        """Whether it is a typed grip without a name."""
        return self.tones.name == _GRIP

    @property
    def is_none(self) -> bool:
        """Whether it is no chord, ``N.C.``: nothing sounds under it."""
        return not self.tones.up

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
    if name in _NONE and not grip:
        return Chord(NO_CHORD, _C, Scale("no chord", (), ()))
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
    quality = _ALSO.get(quality, quality)
    frets = parse_frets(grip, where, field) if grip else ()
    name = found["root"] + quality + (f"/{found['bass']}" if bass else "")
    return Chord(name, parse_tonic(found["root"]), CHORDS[QUALITIES[quality]], bass, quality, frets)


def _of_grip(text: str, frets: Frets) -> Chord:
    """Return the chord of a grip without a name: its lowest string is its root, on the usual tuning of a guitar."""
    strings = (*STANDARD_STRINGS, *STANDARD_STRINGS)[: len(frets)]
    sounding = [open_note + fret for open_note, fret in zip(strings, frets, strict=True) if fret is not None]
    root = above(_C, _STEPS[sounding[0] % 12], sounding[0] % 12)
    over = sorted({(midi - sounding[0]) % 12 for midi in sounding})
    tones = tuple((_STEPS[one], one) for one in over)
    return Chord(text, root, Scale(_GRIP, tones, tones), frets=frets)


#: Semitones over a root → the steps of the letter by which they are spelt.
_STEPS = (0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6)
_C = Pitch(0, 0, 4)
