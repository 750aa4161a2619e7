"""Fingerings: how the notes of a pass are taken on an instrument, by a rule that can be shown."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from ripresa.core.drill import NOTES_A_STRING, Fingering, NeckPlace
from ripresa.core.drill.material import Material
from ripresa.core.grid import Touch
from ripresa.core.pitch import Instrument, Pitch
from ripresa.core.reading.fingering.keys import on_keys
from ripresa.core.reading.fingering.layouts import Neck, in_position, so_many_a_string
from ripresa.core.reading.fingering.places import in_place, places
from ripresa.core.reading.fingering.strings import on_strings

__all__ = ["in_place", "places", "second_touches", "touches", "with_own"]


def touches(
    material: Material,
    instrument: Instrument,
    pitches: Sequence[Pitch | None],
    fingering: Fingering,
    place: NeckPlace,
) -> tuple[Touch | None, ...]:
    """Return how each note is taken; None for what has no pitch, lies out of range, or for winds.

    A position, or so many notes a string, as far as the neck has them; else by least movement.
    """
    if instrument.strings:
        midis = tuple(pitch.midi if pitch else None for pitch in pitches)
        neck = Neck(instrument.strings, instrument.frets, place.fret, place.string)
        found = None
        each = instrument.frets_a_finger
        if each == 1 and fingering == "position":
            found = in_position(neck, midis)
        elif each == 1 and fingering in NOTES_A_STRING:
            found = so_many_a_string(neck, midis, NOTES_A_STRING[fingering])
        return found or on_strings(instrument.strings, instrument.frets, midis, each)
    if instrument.hand:
        return on_keys(material, instrument.hand, tuple(pitches))
    return (None,) * len(pitches)


def with_own(
    found: Sequence[Touch | None], own: Sequence[Touch | None], instrument: Instrument, pitches: Sequence[Pitch | None]
) -> tuple[Touch | None, ...]:
    """Return touches with the teacher's own over them; a place on a string that has not the note there is left out."""

    def one(touch: Touch | None, wanted: Touch | None, pitch: Pitch | None) -> Touch | None:
        if wanted is None:
            return touch
        if wanted.string is None:
            return replace(touch, finger=wanted.finger) if touch else wanted
        lies = 0 < wanted.string <= len(instrument.strings) and pitch is not None and wanted.fret is not None
        return wanted if lies and instrument.fretted(wanted.string, wanted.fret or 0) == pitch.midi else touch  # type: ignore[union-attr]

    padded = [*own, *(None,) * len(found)]
    return tuple(map(one, found, padded, pitches))


def second_touches(material: Material | None, pitches: Sequence[Pitch | None]) -> Iterator[Touch | None]:
    """Yield how each note is taken by the left hand; ``material`` where it plays what the right one does."""
    yield from on_keys(material, "left", tuple(pitches))
