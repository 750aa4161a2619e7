"""Instruments as data: written range, and what is heard when a written note is played.

Ranges are those that method books give for the usual instrument: from the
lowest note to the highest that a student is asked for.
"""

from dataclasses import dataclass
from math import ceil
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.pitch.pitch import Pitch

Voice = Literal["pluck", "keys", "wind"]


@dataclass(frozen=True, slots=True)
class Instrument:
    """An instrument.

    Args:
        name: As a teacher says it.
        lowest, highest: Written range, as MIDI numbers.
        home: Where a run starts if nothing else is asked: its tonic lies here or within the octave above.
        sounds: Semitones from the written to the heard note.
        voice: Which reference voice imitates it: pluck, keys or wind.
        strokes: Keys of ``CYCLES`` that are usual on it, the usual one first.
        strings: Written MIDI notes of the open strings, the thickest first; empty without strings.
        frets: The highest fret.
        hand: On keys, the hand that is fingered.
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

    @property
    def breathes(self) -> bool:
        """Whether a breath limits a pass."""
        return self.voice == "wind"

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


INSTRUMENTS: dict[str, Instrument] = {
    "any": Instrument("any instrument", 21, 108, 48, 0, "keys"),
    "guitar": _guitar("guitar", 52, 57, 62, 67, 71, 76),
    "piano": Instrument("piano", 21, 108, 48, 0, "keys", ("hands",), hand="right"),
    "flute": Instrument("flute", 60, 96, 60, 0, "wind", _TONGUED),
    "clarinet": Instrument("clarinet in B♭", 52, 91, 52, -2, "wind", _TONGUED),
    "alto_saxophone": Instrument("alto saxophone", 58, 90, 58, -9, "wind", _TONGUED),
    "trumpet": Instrument("trumpet in B♭", 54, 84, 54, -2, "wind", _TONGUED),
    "guitar_drop_d": _guitar("guitar, low string on D", 50, 57, 62, 67, 71, 76),
    "guitar_dadgad": _guitar("guitar tuned D A D G A D", 50, 57, 62, 67, 69, 74),
    "guitar_open_g": _guitar("guitar tuned D G D G B D", 50, 55, 62, 67, 71, 74),
    "guitar_bass": Instrument("bass guitar", 40, 79, 40, -12, "pluck", _PICKED, (40, 45, 50, 55), 24),
    "ukulele": Instrument("ukulele", 60, 81, 60, 0, "pluck", _PICKED, (67, 60, 64, 69), 12),
    "piano_left": Instrument("piano, left hand", 21, 67, 36, 0, "keys", ("hands",), hand="left"),
    "piano_right": Instrument("piano, right hand", 53, 108, 60, 0, "keys", ("hands",), hand="right"),
    "clarinet_a": Instrument("clarinet in A", 52, 91, 52, -3, "wind", _TONGUED),
    "tenor_saxophone": Instrument("tenor saxophone", 58, 90, 58, -14, "wind", _TONGUED),
    "recorder": Instrument("descant recorder", 60, 86, 60, 12, "wind", _TONGUED),
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
