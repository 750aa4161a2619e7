"""The words of a typed line, read and written: note names, degrees or rhythm alone, with lengths.

``E4`` is a note (middle C is C4), ``5`` and ``b3`` are degrees of the major
scale on the line's tonic, an octave higher with ``'`` and lower with ``,``;
``x`` is a note without pitch, ``r`` a rest. ``*2`` is a length, and holds
until another is written. ``>`` before a word is an accent, ``~`` a ghost.
``(E4)`` is silenced and keeps its length; ``/E4`` is cut and takes no time.
``|`` is a bar line.
"""

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import lru_cache

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction, fraction_of, plain_signs
from ripresa.core.pitch import LETTERS, Pitch, above
from ripresa.core.rhythm import Level

_FIELD = "material.text"
_MAJOR = (0, 2, 4, 5, 7, 9, 11)
_ALTERS = {"bb": -2, "b": -1, "": 0, "#": 1, "##": 2}
_ACCENTS: dict[str, Level] = {">": "accent", "~": "ghost", "": "plain"}
_SIGNS: dict[Level, str] = {level: sign for sign, level in _ACCENTS.items()}
_WORD = re.compile(
    r"^(?P<cut>/?)(?P<accent>[>~]?)(?P<open>\(?)"
    r"(?:(?P<letter>[A-G])(?P<alter>bb|b|##|#|)(?P<octave>-?\d{1,2})|(?P<sign>bb|b|##|#|)(?P<degree>\d{1,2})(?P<moved>'*|,*)"
    r"|(?P<plain>[xr]))"
    r"(?P<close>\)?)(?:\*(?P<length>\d{1,3}(?:/[1-9]\d{0,3})?))?$"
)
LONGEST_LENGTH = 256
HIGHEST_DEGREE = 21


@dataclass(frozen=True, slots=True)
class Degree:
    """A degree of the major scale, altered, in an octave: 0 is the one that the tonic begins."""

    number: int
    alter: int = 0
    octave: int = 0

    def on(self, tonic: Pitch) -> Pitch:
        """Return the pitch above a tonic.

        >>> Degree(3, -1).on(Pitch(4, 0, 4)).name
        'Bb4'
        """
        turns, step = divmod(self.number - 1, 7)
        octaves = turns + self.octave
        return above(tonic, step + 7 * octaves, _MAJOR[step] + self.alter + 12 * octaves)

    @property
    def text(self) -> str:
        """As it is typed."""
        signs = {alter: sign for sign, alter in _ALTERS.items()}
        return f"{signs[self.alter]}{self.number}" + ("'" * self.octave if self.octave > 0 else "," * -self.octave)


@dataclass(frozen=True, slots=True)
class LineNote:
    """One word of a line.

    Args:
        tone: A pitch, a degree, or None for a note without pitch.
        length: In slots or beats, as the line says; above 0.
        silent: Whether it is a rest, or a note that is silenced and keeps its length.
        is_cut: Whether it was cut out: it is still to be seen, and takes no time.
        bar: Its bar in the text, from 1.
    """

    tone: Pitch | Degree | None
    length: Fraction = Fraction(1)
    accent: Level = "plain"
    silent: bool = False
    is_cut: bool = False
    bar: int = 1

    def pitch(self, tonic: Pitch) -> Pitch | None:
        """Return the pitch that it has over a tonic."""
        return self.tone.on(tonic) if isinstance(self.tone, Degree) else self.tone

    @property
    def word(self) -> str:
        """As it is typed, without its length."""
        if self.tone is None:
            bare = "r" if self.silent else "x"
        else:
            bare = self.tone.text if isinstance(self.tone, Degree) else self.tone.name
            bare = f"({bare})" if self.silent else bare
        return ("/" if self.is_cut else "") + _SIGNS[self.accent] + bare


@lru_cache(maxsize=32)
def parse_line(text: str) -> tuple[LineNote, ...]:
    """Return the notes of a line in order.

    Raises:
        Unreadable: A word cannot be read, or nothing takes time; the sentence says which, and what would be right.

    >>> [note.word for note in parse_line("E4*1/2 G4 | b3 (5) r")]
    ['E4', 'G4', 'b3', '(5)', 'r']
    """
    notes: list[LineNote] = []
    length, bar = Fraction(1), 1
    for place, word in enumerate(plain_signs(text).replace("|", " | ").split(), start=1):
        if word == "|":
            bar += bool(notes)  # A bar line before the first note opens nothing.
            continue
        note, has_length = _note(word)
        if isinstance(note, str):
            raise _unreadable(place, word, note)
        if has_length:
            length = note.length
        notes.append(note if note.length == length and note.bar == bar else replace(note, length=length, bar=bar))
    if all(note.is_cut for note in notes):
        raise Unreadable("A line needs at least one note: E4 F#4 G4, or 1 2 b3.", field=_FIELD)
    return tuple(notes)


def write_line(notes: Iterable[LineNote]) -> str:
    """Return the text of a line; a length is written where it changes.

    >>> write_line(parse_line("E4*1/2 G4*1/2 | r*1 /x"))
    'E4*1/2 G4 | r*1 /x'
    """
    words: list[str] = []
    length, bar = Fraction(1), 1
    for note in notes:
        if note.bar != bar and words:
            words.append("|")
        bar = note.bar
        words.append(note.word + (f"*{note.length}" if note.length != length else ""))
        length = note.length  # It holds until another is written, as it is read.
    return " ".join(words)


def without_bars(notes: Iterable[LineNote]) -> tuple[LineNote, ...]:
    """Return the notes in one bar: what was moved does not stand where the bar lines were."""
    return tuple(replace(note, bar=1) for note in notes)


@lru_cache(maxsize=4096)
def _note(word: str) -> tuple[LineNote | str, bool]:
    """Return what a word says, and whether it has a length of its own; or else why it cannot be read."""
    found = _WORD.match(word)
    if not found or bool(found["open"]) != bool(found["close"]):
        return "is not a note of a line. Write E4, F#4, a degree such as b3, x, or r", False
    length = fraction_of(found["length"]) if found["length"] else Fraction(1)
    if not 0 < length <= LONGEST_LENGTH:
        return f"has a length that cannot be played. Use *1/2, *1 … *{LONGEST_LENGTH}", False
    tone = _tone(found)
    if isinstance(tone, str):
        return tone, False
    silent = bool(found["open"]) or found["plain"] == "r"
    return LineNote(tone, length, _ACCENTS[found["accent"]], silent, bool(found["cut"])), bool(found["length"])


def _tone(found: re.Match[str]) -> Pitch | Degree | str | None:
    if found["letter"]:
        return Pitch(LETTERS.index(found["letter"]), _ALTERS[found["alter"]], int(found["octave"]))
    if not found["degree"]:
        return None
    number = int(found["degree"])
    if not 1 <= number <= HIGHEST_DEGREE:
        return f"is not a degree. Use 1 to {HIGHEST_DEGREE}, ' for an octave higher"
    moved = found["moved"]
    return Degree(number, _ALTERS[found["sign"]], moved.count("'") - moved.count(","))


def _unreadable(place: int, word: str, why: str) -> Unreadable:
    return Unreadable(f"Word {place} of the line, “{word}”, {why}.", field=_FIELD)
