"""Fingerings: how the notes of a pass are taken on an instrument, by a rule that can be shown."""

from collections.abc import Sequence

from ripresa.core.drill.material import Material
from ripresa.core.grid import Touch
from ripresa.core.pitch import Instrument, Pitch
from ripresa.core.reading.fingering.keys import on_keys
from ripresa.core.reading.fingering.strings import on_strings

__all__ = ["touches"]


def touches(material: Material, instrument: Instrument, pitches: Sequence[Pitch | None]) -> tuple[Touch | None, ...]:
    """Return how each note is taken; None for what has no pitch, lies out of range, or for winds."""
    if instrument.strings:
        midis = tuple(pitch.midi if pitch else None for pitch in pitches)
        return on_strings(instrument.strings, instrument.frets, midis)
    if instrument.hand:
        return on_keys(material, instrument.hand, tuple(pitches))
    return (None,) * len(pitches)
