"""Pitches: a letter, what alters it, and an octave; middle C is C4, MIDI 60."""

import re
from dataclasses import dataclass

from ripresa.core.errors import Unreadable
from ripresa.core.exact import plain_signs

LETTERS = "CDEFGAB"
_NATURAL = (0, 2, 4, 5, 7, 9, 11)
_SIGNS = {-2: "bb", -1: "b", 0: "", 1: "#", 2: "##"}
_SHOWN = {-2: "𝄫", -1: "♭", 0: "", 1: "♯", 2: "𝄪"}
_PITCH = re.compile(r"^([A-G])(b|#)?([0-8])$")
_TONIC = re.compile(r"^([A-G])(b|#)?$")


#: The twelve notes as they are usually spelt.
_SPELT = ("C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B")


@dataclass(frozen=True, slots=True)
class Pitch:
    """A written pitch.

    Args:
        letter: 0 (C) to 6 (B).
        alter: Semitones from the natural, −2 to 2.
        octave: Scientific pitch notation: middle C is in octave 4.
    """

    letter: int
    alter: int
    octave: int

    @property
    def midi(self) -> int:
        """MIDI note number; middle C is 60."""
        return 12 * (self.octave + 1) + _NATURAL[self.letter] + self.alter

    @property
    def name(self) -> str:
        """Plain name, ``Bb3``, ``F##5``."""
        return f"{self.bare}{self.octave}"

    @property
    def bare(self) -> str:
        """Plain name without its octave, as a tonic is written: ``Bb``."""
        return f"{LETTERS[self.letter]}{_SIGNS[self.alter]}"

    @property
    def shown(self) -> str:
        """Name with music signs, ``B♭3``."""
        return f"{LETTERS[self.letter]}{_SHOWN[self.alter]}{self.octave}"


def parse_tonic(text: str) -> Pitch:
    """Return a tonic such as ``"Eb"`` as a pitch in octave 4.

    Raises:
        Unreadable: It is not a letter A–G with at most one sharp or flat.
    """
    found = _TONIC.match(plain_signs(text))
    if not found:
        raise Unreadable(
            f"“{text}” is not a tonic. Write a letter A to G, with b or # if needed: Eb.", field="material.tonic"
        )
    return Pitch(LETTERS.index(found[1]), {"b": -1, "#": 1}.get(found[2], 0), 4)


def parse_pitch(text: str) -> Pitch:
    """Return a written note with its octave, such as ``"Eb3"``; middle C is C4.

    Raises:
        Unreadable: It is not one.
    """
    found = _PITCH.match(plain_signs(text))
    if not found:
        raise Unreadable(f"“{text}” is not a note with its octave. Write a letter, b or # if needed, and 0 to 8: C3.")
    return Pitch(LETTERS.index(found[1]), {"b": -1, "#": 1}.get(found[2], 0), int(found[3]))


def show_tonic(text: str) -> str:
    """Return a tonic with music signs: ``"Eb"`` is ``"E♭"``."""
    return text.replace("b", "♭").replace("#", "♯")


def usually_spelt(midi: int) -> Pitch:
    """Return a note by its MIDI number as it is usually spelt where no key says it.

    >>> usually_spelt(63).name, usually_spelt(66).name
    ('Eb4', 'F#4')
    """
    name = _SPELT[midi % 12]
    return Pitch(LETTERS.index(name[0]), {"#": 1, "b": -1}.get(name[1:], 0), midi // 12 - 1)


def above(tonic: Pitch, steps: int, semitones: int) -> Pitch:
    """Return the pitch so many letters and semitones above (or below) a tonic.

    The letter is kept unless that needs more than two sharps or flats; then
    the nearest spelling that does not is taken.
    """
    octave, letter = divmod(tonic.letter + steps, 7)
    midi = tonic.midi + semitones
    for nudge in (0, 1, -1, 2, -2):
        carry, near = divmod(letter + nudge, 7)
        natural = Pitch(near, 0, tonic.octave + octave + carry)
        alter = midi - natural.midi
        if -2 <= alter <= 2:
            return Pitch(near, alter, natural.octave)
    raise AssertionError("every semitone has a spelling within two letters")
