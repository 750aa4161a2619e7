"""Instruments as data: written range, and what is heard when a written note is played.

Ranges are those that method books give for the usual instrument: from the
lowest note to the highest that a student is asked for.
"""

from dataclasses import dataclass, replace
from math import ceil
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.pitch.pitch import Pitch

Voice = Literal["pluck", "keys", "wind", "struck"]
Level = Literal["full", "first_year"]

#: Level → its name, and why one would choose it.
LEVELS: dict[Level, tuple[str, str]] = {
    "full": ("in its full range", "What the instrument has, from the lowest note to the highest that is asked for."),
    "first_year": ("in the range of a first year", "What most method books reach in a year: notes beyond are told."),
}


@dataclass(frozen=True, slots=True)
class Instrument:
    """An instrument.

    Args:
        name: As a teacher says it.
        lowest, highest: Written range, as MIDI numbers.
        home: Where a run starts if nothing else is asked: its tonic lies here or within the octave above.
        sounds: Semitones from the written to the heard note.
        voice: Which reference voice imitates it: pluck, keys, wind, or struck where nothing has a pitch.
        strokes: Keys of ``CYCLES`` that are usual on it, the usual one first.
        strings: Written MIDI notes of the open strings, the thickest first; empty without strings.
        frets: The highest fret.
        hand: On keys, the hand that is fingered.
        breaks: Pairs of written notes, as MIDI numbers, between which the register changes.
        first_year: Written range of a first year, as MIDI numbers; the whole range where it is not told.
        is_loud: Whether an hour of it beside one's own ear is too much.
    """

    name: str
    lowest: int
    highest: int
    home: int
    sounds: int
    voice: Voice
    strokes: tuple[str, ...] = ()
    strings: tuple[int, ...] = ()
    frets: int = 0
    hand: Literal["left", "right"] | None = None
    breaks: tuple[tuple[int, int], ...] = ()
    first_year: tuple[int, int] | None = None
    is_loud: bool = False

    def at_level(self, level: Level) -> "Instrument":
        """Return the instrument with the range that a level has of it."""
        if level == "full" or self.first_year is None:
            return self
        low, high = self.first_year
        return replace(self, lowest=low, highest=high, home=max(low, min(self.home, high)))

    def fretted(self, string: int, fret: int) -> int:
        """Return the written MIDI note of a fret, 0 for open, on a string, 1 the thinnest."""
        return self.strings[len(self.strings) - string] + fret

    @property
    def breathes(self) -> bool:
        """Whether a breath limits a pass."""
        return self.voice == "wind"

    @property
    def is_struck(self) -> bool:
        """Whether it has no pitch: what is written for it is rhythm alone."""
        return self.voice == "struck"

    def holds(self, midi: int) -> bool:
        """Whether a written note lies in the range."""
        return self.lowest <= midi <= self.highest

    def folded(self, pitch: Pitch) -> Pitch:
        """Return a written pitch moved by octaves into the range, the nearest that there is.

        >>> INSTRUMENTS["guitar"].folded(Pitch(0, 0, 2)).name
        'C4'
        """
        if pitch.midi < self.lowest:
            return Pitch(pitch.letter, pitch.alter, pitch.octave + ceil((self.lowest - pitch.midi) / 12))
        if pitch.midi > self.highest:
            return Pitch(pitch.letter, pitch.alter, pitch.octave - ceil((pitch.midi - self.highest) / 12))
        return pitch


_PICKED = ("alternate",)
_TONGUED = ("single_tongue", "double_tongue", "triple_tongue", "slur_pairs", "slur_two_tongue_two")


def _guitar(name: str, *strings: int) -> Instrument:
    """Return a guitar in a tuning; it is written an octave above what is heard."""
    return Instrument(name, strings[0], 88, strings[0], -12, "pluck", _PICKED, strings, 22)


def _wind(
    name: str,
    lowest: int,
    highest: int,
    sounds: int,
    breaks: tuple[tuple[int, int], ...],
    first_year: tuple[int, int],
    is_loud: bool = False,
) -> Instrument:
    """Return a wind instrument, whose runs start from its lowest note."""
    return Instrument(
        name, lowest, highest, lowest, sounds, "wind", _TONGUED, breaks=breaks, first_year=first_year, is_loud=is_loud
    )


def _struck(name: str) -> Instrument:
    """Return an instrument without pitch: a rhythm and two hands."""
    return Instrument(name, 0, 127, 48, 0, "struck", ("hands",))


#: The usual tuning of a guitar, as it is written.
STANDARD_STRINGS = (52, 57, 62, 67, 71, 76)

#: Registers change between these written notes, as fingering charts show them: on the clarinet from the throat B♭ to
#: the B with the speaker key; on flute and saxophones from the open C sharp to the D with all fingers down; on the
#: descant recorder from D sharp to the E with the thumb hole half open. Brass change partials everywhere: none.
_CLARINET_BREAK, _OCTAVE_BREAK, _THUMB_BREAK = ((70, 71),), ((73, 74),), ((75, 76),)

INSTRUMENTS: dict[str, Instrument] = {
    "any": Instrument("any instrument", 21, 108, 48, 0, "keys"),
    "guitar": _guitar("guitar", *STANDARD_STRINGS),
    "piano": Instrument("piano", 21, 108, 48, 0, "keys", ("hands",), hand="right", first_year=(36, 84)),
    "flute": _wind("flute", 60, 96, 0, _OCTAVE_BREAK, (64, 79)),
    "clarinet": _wind("clarinet in B♭", 52, 91, -2, _CLARINET_BREAK, (52, 79)),
    "alto_saxophone": _wind("alto saxophone", 58, 90, -9, _OCTAVE_BREAK, (60, 81), is_loud=True),
    "trumpet": _wind("trumpet in B♭", 54, 84, -2, (), (60, 72), is_loud=True),
    "guitar_drop_d": _guitar("guitar, low string on D", 50, 57, 62, 67, 71, 76),
    "guitar_dadgad": _guitar("guitar tuned D A D G A D", 50, 57, 62, 67, 69, 74),
    "guitar_open_g": _guitar("guitar tuned D G D G B D", 50, 55, 62, 67, 71, 74),
    "guitar_bass": Instrument("bass guitar", 40, 79, 40, -12, "pluck", _PICKED, (40, 45, 50, 55), 24),
    "ukulele": Instrument("ukulele", 60, 81, 60, 0, "pluck", _PICKED, (67, 60, 64, 69), 12),
    "piano_left": Instrument("piano, left hand", 21, 67, 36, 0, "keys", ("hands",), hand="left"),
    "piano_right": Instrument("piano, right hand", 53, 108, 60, 0, "keys", ("hands",), hand="right"),
    "clarinet_a": _wind("clarinet in A", 52, 91, -3, _CLARINET_BREAK, (52, 79)),
    "tenor_saxophone": _wind("tenor saxophone", 58, 90, -14, _OCTAVE_BREAK, (60, 81), is_loud=True),
    "practice_pad": _struck("practice pad"),
    "hand_drum": _struck("hand drum"),
    "clapping": _struck("clapping"),
    "recorder": _wind("descant recorder", 60, 86, 12, _THUMB_BREAK, (60, 76)),
}


def instrument_named(name: str) -> Instrument:
    """Return an instrument by its key.

    Raises:
        OutOfRange: No instrument of that name is known.
    """
    try:
        return INSTRUMENTS[name]
    except KeyError:
        raise OutOfRange(
            f"“{name}” is not an instrument that Ripresa knows. Use one of {', '.join(INSTRUMENTS)}.",
            field="instrument",
        ) from None
