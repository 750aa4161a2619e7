"""What a second hand has to know of the first, on one leg."""

from collections.abc import Sequence
from dataclasses import dataclass

from ripresa.core.exact import Fraction
from ripresa.core.grid import AS_WRITTEN, Place, altered
from ripresa.core.pitch import ChordSound, Instrument, Pitch, Scale
from ripresa.core.rhythm import Meter

#: Notes of a scale in which thirds and sixths are counted.
SEVEN = 7


@dataclass(frozen=True, slots=True)
class First:
    """The first hand on one leg.

    Args:
        pitches: Of its pass, in order; closing: the tonic that ends it, None without.
        tonic, tones: What its degrees count from; None where its material has no scale.
        closes: Whether its last note is the closing tonic.
        start: Where the leg begins, in beats.
    """

    pitches: tuple[Pitch | None, ...]
    closing: Pitch | None
    tonic: Pitch | None
    tones: Scale | None
    closes: bool
    start: Fraction
    instrument: Instrument
    meter: Meter


def filled(place: Place, pitch: Pitch | None = None, chord: ChordSound | None = None) -> Place:
    """Return a place with a note of the second hand in it."""
    return altered(place, kind="note", pitch=pitch, chord=chord, touch=None, how=AS_WRITTEN, accent=None, word=None)


def held(place: Place) -> Place:
    """Return a place in which the note before goes on."""
    return altered(place, kind="hold", pitch=None, chord=None, touch=None, how=AS_WRITTEN, accent=None, word=None)


def with_pitches(places: Sequence[Place], pitches: Sequence[Pitch | None], first: First) -> list[Place]:
    """Return places with pitches in turn, round and round; what closes the pass takes the last of them."""
    *inside, closing = pitches
    notes = [number for number, place in enumerate(places) if place.kind == "note"]
    found = [held(place) if place.kind == "hold" else place for place in places]
    for count, number in enumerate(notes):
        is_last = first.closes and count == len(notes) - 1
        found[number] = filled(places[number], closing if is_last else inside[count % len(inside)])
    return found
