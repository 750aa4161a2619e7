"""Sources of takes: by what one is heard, how finely it tells moments apart, and what it loses by itself."""

from typing import Literal

from ripresa.core.listening import PROFILES, As
from ripresa.core.pitch import Voice
from ripresa.core.reading import Reading

#: Sources of a take: name, and one deviation of their own in seconds (our estimates, docs/decisions/0016); of sound
#: it goes by how notes begin, where the drill is known.
SOURCES: dict[str, tuple[str, float]] = {
    "taps": ("taps", 0.004),
    "midi": ("MIDI", 0.0015),
    "microphone": ("the microphone", 0.003),
    "file": ("a recording", 0.003),
    "stand_in": ("the stand-in player", 0.0),
    "by_ear": ("by ear", 0.0),
}
Source = Literal["taps", "midi", "microphone", "file", "stand_in", "by_ear"]
#: Sources that hear sound alone.
BY_SOUND: tuple[Source, ...] = ("microphone", "file")
#: How the sounds of a voice begin.
_BEGINS: dict[Voice, As] = {"pluck": "plucked", "keys": "struck", "wind": "tongued", "struck": "struck"}


def usual_sound(reading: Reading) -> As:
    """Return how the notes of a drill begin where nobody says it: by its instrument; clapped without pitches."""
    if not any(event.tones for event in reading.every):
        return "clapped"
    return _BEGINS[reading.instrument.voice]


def deviation_of(reading: Reading, source: Source) -> float:
    """Return one deviation of a source’s own, in seconds: of sound by how the notes of a drill begin."""
    return PROFILES[usual_sound(reading)].deviation if source in BY_SOUND else SOURCES[source][1]


def errs_of(reading: Reading, source: Source) -> float:
    """Return the share of notes that a source itself loses, or hears for nothing; 0 for one that is told of each."""
    return PROFILES[usual_sound(reading)].errs if source in BY_SOUND else 0.0
