"""Scales and modes as data: each degree is a step of the letter and a count of semitones."""

from dataclasses import dataclass

from ripresa.core.errors import OutOfRange


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
    def degrees(self) -> int:
        """Notes in an octave, the upper tonic not counted."""
        return len(self.up)

    def degree(self, index: int, *, going_down: bool = False) -> tuple[int, int]:
        """Return (letter steps, semitones) of a degree counted from 0, in any octave."""
        octave, place = divmod(index, self.degrees)
        letters, semitones = (self.down if going_down else self.up)[place]
        return letters + 7 * octave, semitones + 12 * octave


_MAJOR = (0, 2, 4, 5, 7, 9, 11)


def _degrees(text: str) -> tuple[tuple[int, int], ...]:
    # "b3" is the third letter, a semitone under its place in the major scale.
    found = []
    for word in text.split():
        step = int(word.lstrip("b#")) - 1
        found.append((step, _MAJOR[step] + word.count("#") - word.count("b")))
    return tuple(found)


def _scale(name: str, up: str, down: str | None = None) -> Scale:
    return Scale(name, _degrees(up), _degrees(down or up))


SCALES: dict[str, Scale] = {
    "major": _scale("major", "1 2 3 4 5 6 7"),
    "natural_minor": _scale("natural minor", "1 2 b3 4 5 b6 b7"),
    "harmonic_minor": _scale("harmonic minor", "1 2 b3 4 5 b6 7"),
    "melodic_minor": _scale("melodic minor", "1 2 b3 4 5 6 7", "1 2 b3 4 5 b6 b7"),
    "major_pentatonic": _scale("major pentatonic", "1 2 3 5 6"),
    "minor_pentatonic": _scale("minor pentatonic", "1 b3 4 5 b7"),
    "blues": _scale("blues", "1 b3 4 b5 5 b7"),
    "dorian": _scale("dorian", "1 2 b3 4 5 6 b7"),
    "mixolydian": _scale("mixolydian", "1 2 3 4 5 6 b7"),
    "chromatic": _scale("chromatic", "1 #1 2 #2 3 4 #4 5 #5 6 #6 7", "1 b2 2 b3 3 4 b5 5 b6 6 b7 7"),
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
