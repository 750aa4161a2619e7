"""Scales and modes as data: each degree is a step of the letter and a count of semitones."""

import re
from dataclasses import dataclass

from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import plain_signs


@dataclass(frozen=True, slots=True)
class Scale:
    """A scale over one octave.

    Args:
        name: As a teacher says it.
        up: (letter steps, semitones) of each degree above the tonic, the tonic first.
        down: The same, where the way down differs (melodic minor, chromatic); else ``up``.
    """

    name: str
    up: tuple[tuple[int, int], ...]
    down: tuple[tuple[int, int], ...]

    @property
    def is_minor(self) -> bool:
        """Whether its third is minor, and no major one beside it."""
        semitones = {above for _, above in self.up}
        return 3 in semitones and 4 not in semitones

    @property
    def degrees(self) -> int:
        """Notes in an octave, the upper tonic not counted."""
        return len(self.up)

    def degree(self, index: int, *, going_down: bool = False) -> tuple[int, int]:
        """Return (letter steps, semitones) of a degree counted from 0, in any octave."""
        octave, place = divmod(index, self.degrees)
        letters, semitones = (self.down if going_down else self.up)[place]
        return letters + 7 * octave, semitones + 12 * octave


_MAJOR = (0, 2, 4, 5, 7, 9, 11)


_DEGREE = re.compile(r"^(bb|b|##|#)?([1-7])$")


def parse_degrees(text: str, field: str = "material.own") -> tuple[tuple[int, int], ...]:
    """Return the degrees written as ``"1 2 b3 4 5 b6 7"``: (letter steps, semitones) above the tonic.

    "b3" is the third letter, a semitone under its place in the major scale.

    Raises:
        Unreadable: A word is not a degree, they do not start on 1, or they do not rise.

    >>> parse_degrees("1 b3 5")
    ((0, 0), (2, 3), (4, 7))
    """
    found: list[tuple[int, int]] = []
    for place, word in enumerate(plain_signs(text).split(), start=1):
        read = _DEGREE.match(word)
        if not read:
            raise Unreadable(
                f"Step {place}, “{word}”, is not a degree. Write 1 to 7, with b or # before it if needed: 1 b3 4 5 b7.",
                field=field,
            )
        # A degree keeps its letter: b3 on C is E flat, never D sharp, whatever sounds the same.
        step, sign = int(read[2]) - 1, read[1] or ""
        semitones = _MAJOR[step] + sign.count("#") - sign.count("b")
        if found and semitones <= found[-1][1]:
            raise Unreadable(f"Step {place}, “{word}”, is not above the one before it.", field=field)
        found.append((step, semitones))
    if len(found) < 2 or found[0] != (0, 0):
        raise Unreadable("Own steps start on 1 and have at least one more: 1 b3 4 5 b7.", field=field)
    if found[-1][1] > 11:
        raise Unreadable("Own steps stay under the octave, which follows by itself.", field=field)
    return tuple(found)


def _scale(name: str, up: str, down: str | None = None) -> Scale:
    return Scale(name, parse_degrees(up), parse_degrees(down or up))


SCALES: dict[str, Scale] = {
    "major": _scale("major", "1 2 3 4 5 6 7"),
    "natural_minor": _scale("natural minor", "1 2 b3 4 5 b6 b7"),
    "harmonic_minor": _scale("harmonic minor", "1 2 b3 4 5 b6 7"),
    "melodic_minor": _scale("melodic minor", "1 2 b3 4 5 6 7", "1 2 b3 4 5 b6 b7"),
    "major_pentatonic": _scale("major pentatonic", "1 2 3 5 6"),
    "minor_pentatonic": _scale("minor pentatonic", "1 b3 4 5 b7"),
    "blues": _scale("blues", "1 b3 4 b5 5 b7"),
    "dorian": _scale("dorian", "1 2 b3 4 5 6 b7"),
    "phrygian": _scale("phrygian", "1 b2 b3 4 5 b6 b7"),
    "lydian": _scale("lydian", "1 2 3 #4 5 6 7"),
    "mixolydian": _scale("mixolydian", "1 2 3 4 5 6 b7"),
    "locrian": _scale("locrian", "1 b2 b3 4 b5 b6 b7"),
    "lydian_dominant": _scale("lydian dominant", "1 2 3 #4 5 6 b7"),
    "mixolydian_b6": _scale("mixolydian ♭6", "1 2 3 4 5 b6 b7"),
    "altered": _scale("altered", "1 b2 b3 b4 b5 b6 b7"),
    "phrygian_dominant": _scale("phrygian dominant", "1 b2 3 4 5 b6 b7"),
    "dorian_s4": _scale("dorian ♯4", "1 2 b3 #4 5 6 b7"),
    "harmonic_major": _scale("harmonic major", "1 2 3 4 5 b6 7"),
    "double_harmonic": _scale("double harmonic", "1 b2 3 4 5 b6 7"),
    "hungarian_minor": _scale("Hungarian minor", "1 2 b3 #4 5 b6 7"),
    "major_blues": _scale("major blues", "1 2 b3 3 5 6"),
    "mixed_blues": _scale("mixed blues (major and minor)", "1 2 b3 3 4 b5 5 6 b7"),
    "major_minor_pentatonic": _scale("major and minor pentatonic", "1 2 b3 3 4 5 6 b7"),
    "dominant_bebop": _scale("dominant bebop", "1 2 3 4 5 6 b7 7"),
    "major_bebop": _scale("major bebop", "1 2 3 4 5 #5 6 7"),
    "dorian_bebop": _scale("dorian bebop", "1 2 b3 3 4 5 6 b7"),
    "whole_tone": _scale("whole tone", "1 2 3 #4 #5 b7"),
    "diminished": _scale("diminished (whole, half)", "1 2 b3 4 b5 b6 6 7"),
    "dominant_diminished": _scale("diminished (half, whole)", "1 b2 b3 3 #4 5 6 b7"),
    "chromatic": _scale("chromatic", "1 #1 2 #2 3 4 #4 5 #5 6 #6 7", "1 b2 2 b3 3 4 b5 5 b6 6 b7 7"),
}

CHORDS: dict[str, Scale] = {
    "major_triad": _scale("major", "1 3 5"),
    "minor_triad": _scale("minor", "1 b3 5"),
    "diminished_triad": _scale("diminished", "1 b3 b5"),
    "augmented_triad": _scale("augmented", "1 3 #5"),
    "dominant_seventh": _scale("dominant seventh", "1 3 5 b7"),
    "major_seventh": _scale("major seventh", "1 3 5 7"),
    "minor_seventh": _scale("minor seventh", "1 b3 5 b7"),
    "half_diminished": _scale("half-diminished", "1 b3 b5 b7"),
    "diminished_seventh": _scale("diminished seventh", "1 b3 b5 bb7"),
    "fifth": _scale("fifth", "1 5"),
    "suspended_second": _scale("suspended second", "1 2 5"),
    "suspended_fourth": _scale("suspended fourth", "1 4 5"),
    "sixth": _scale("sixth", "1 3 5 6"),
    "minor_sixth": _scale("minor sixth", "1 b3 5 6"),
    "added_ninth": _scale("added ninth", "1 2 3 5"),
    "dominant_ninth": _scale("dominant ninth", "1 2 3 5 b7"),
    "major_ninth": _scale("major ninth", "1 2 3 5 7"),
    "minor_ninth": _scale("minor ninth", "1 2 b3 5 b7"),
    "thirteenth": _scale("thirteenth", "1 2 3 5 6 b7"),
    "suspended_seventh": _scale("suspended seventh", "1 4 5 b7"),
    "sharp_ninth": _scale("dominant sharp ninth", "1 #2 3 5 b7"),
    "flat_ninth": _scale("dominant flat ninth", "1 b2 3 5 b7"),
}

#: Kind of chord → the scale that is usual over it: what a line is kept inside of.
SCALE_OF_CHORD: dict[str, str] = {
    "major_triad": "major",
    "minor_triad": "dorian",
    "diminished_triad": "locrian",
    "augmented_triad": "lydian",
    "dominant_seventh": "mixolydian",
    "dominant_ninth": "mixolydian",
    "minor_seventh": "dorian",
    "minor_sixth": "dorian",
    "half_diminished": "locrian",
    "suspended_fourth": "mixolydian",
    "suspended_seventh": "mixolydian",
    "thirteenth": "mixolydian",
    "minor_ninth": "dorian",
    "sharp_ninth": "altered",
    "flat_ninth": "phrygian_dominant",
}

TONICS = ("C", "C#", "Db", "D", "D#", "Eb", "E", "F", "F#", "Gb", "G", "G#", "Ab", "A", "A#", "Bb", "B", "Cb")


def scale_named(name: str) -> Scale:
    """Return a scale by its key.

    Raises:
        OutOfRange: No scale of that name is known.
    """
    try:
        return SCALES[name]
    except KeyError:
        raise OutOfRange(
            f"“{name}” is not a scale that Ripresa knows. Use one of {', '.join(SCALES)}.", field="material.scale"
        ) from None


def chord_named(name: str) -> Scale:
    """Return the tones of a chord by its key, as a scale over one octave.

    Raises:
        OutOfRange: No chord of that name is known.
    """
    try:
        return CHORDS[name]
    except KeyError:
        raise OutOfRange(
            f"“{name}” is not a chord that Ripresa knows. Use one of {', '.join(CHORDS)}.", field="material.chord"
        ) from None
