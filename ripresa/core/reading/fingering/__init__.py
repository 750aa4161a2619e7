"""Fingerings: how the notes of a pass are taken on an instrument, by a rule that can be shown."""

from collections.abc import Iterator, Sequence

from ripresa.core.drill import NOTES_A_STRING, Fingering
from ripresa.core.drill.material import Material
from ripresa.core.grid import Touch
from ripresa.core.pitch import Instrument, Pitch
from ripresa.core.reading.fingering.keys import on_keys
from ripresa.core.reading.fingering.layouts import in_position, so_many_a_string
from ripresa.core.reading.fingering.strings import on_strings

__all__ = ["second_touches", "touches"]


def touches(
    material: Material, instrument: Instrument, pitches: Sequence[Pitch | None], fingering: Fingering
) -> tuple[Touch | None, ...]:
    """Return how each note is taken; None for what has no pitch, lies out of range, or for winds.

    A position, or so many notes a string, as far as the neck has them; else by least movement.
    """
    if instrument.strings:
        midis = tuple(pitch.midi if pitch else None for pitch in pitches)
        found = None
        if fingering == "position":
            found = in_position(instrument.strings, instrument.frets, midis)
        elif fingering in NOTES_A_STRING:
            found = so_many_a_string(instrument.strings, instrument.frets, midis, NOTES_A_STRING[fingering])
        if found is not None:
            return found
        return on_strings(instrument.strings, instrument.frets, midis)
    if instrument.hand:
        return on_keys(material, instrument.hand, tuple(pitches))
    return (None,) * len(pitches)


def second_touches(material: Material | None, pitches: Sequence[Pitch | None]) -> Iterator[Touch | None]:
    """Yield how each note is taken by the left hand; ``material`` where it plays what the right one does."""
    yield from on_keys(material, "left", tuple(pitches))
