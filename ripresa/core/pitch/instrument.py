"""What an instrument is: written range, strings, registers, and what is heard when a written note is played."""

from dataclasses import dataclass, replace
from math import ceil
from typing import Literal

from ripresa.core.pitch.pitch import Pitch

#: Semitones under the home of a hand on keys that still lie nearer to it than what is an octave higher.
UNDER_HAND = 5

Voice = Literal["pluck", "keys", "wind", "struck"]
Level = Literal["full", "first_year"]
Clef = Literal["treble", "bass", "alto", "tenor"]

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
        clef: That its notes are written in; where it is not said, as high as they lie.
        breath: Seconds of playing in one comfortable breath of a student; 0 where none is needed.
        frets_a_finger: Frets under each finger: one, or two where the neck is short.
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
    clef: Clef | None = None
    breath: int = 0
    frets_a_finger: int = 1

    def with_capo(self, fret: int) -> "Instrument":
        """Return the instrument with a capo: what is written is gripped as before, and sounds so much higher.

        >>> guitar = Instrument("guitar", 52, 98, 52, -12, "pluck", strings=(52, 57, 62, 67, 71, 76), frets=22)
        >>> raised = guitar.with_capo(2)
        >>> raised.name, raised.sounds, raised.frets, raised.highest
        ('guitar, capo 2', -10, 20, 96)
        """
        if not fret or not self.strings:
            return self
        name, frets = f"{self.name}, capo {fret}", self.frets - fret
        return replace(self, name=name, sounds=self.sounds + fret, frets=frets, highest=self.highest - fret)

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

        >>> Instrument("guitar", 52, 98, 52, -12, "pluck").folded(Pitch(0, 0, 2)).name
        'C4'
        """
        if pitch.midi < self.lowest:
            return Pitch(pitch.letter, pitch.alter, pitch.octave + ceil((self.lowest - pitch.midi) / 12))
        if pitch.midi > self.highest:
            return Pitch(pitch.letter, pitch.alter, pitch.octave - ceil((pitch.midi - self.highest) / 12))
        return pitch
