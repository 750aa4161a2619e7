"""Registers: how often a drill crosses the break of its instrument, and what is heard of what is written."""

from dataclasses import dataclass
from itertools import pairwise

from ripresa.core.drill.material import scale_of
from ripresa.core.grid import Event
from ripresa.core.pitch import Pitch, above, show_tonic
from ripresa.core.reading import Reading


@dataclass(frozen=True, slots=True)
class Break:
    """A break of an instrument in a drill.

    Args:
        below, above: The written notes on either side of it. crossings: How often a turn goes over it.
        first: The first note over it; None where it is not crossed.
    """

    below: Pitch
    above: Pitch
    crossings: int
    first: Event | None


def breaks(reading: Reading) -> tuple[Break, ...]:
    """Return the breaks of the instrument that lie within a drill, and how often a turn crosses each."""
    notes = [event for event in reading.notes if event.pitch]
    midis = [event.pitch.midi for event in notes if event.pitch]
    found = []
    for low, high in reading.instrument.breaks:
        if not midis or not min(midis) <= low < high <= max(midis):
            continue
        over = [
            after
            for before, after in pairwise(notes)
            if before.pitch and after.pitch and (before.pitch.midi <= low) != (after.pitch.midi <= low)
        ]
        found.append(Break(_named(low), _named(high), len(over), over[0] if over else None))
    return tuple(found)


#: Semitones over C → letter and sign by which a note of a break is named, flats upwards.
_NAMES = ((0, 0), (0, 1), (1, 0), (2, -1), (2, 0), (3, 0), (3, 1), (4, 0), (5, -1), (5, 0), (6, -1), (6, 0))


def _named(midi: int) -> Pitch:
    letter, alter = _NAMES[midi % 12]
    return Pitch(letter, alter, midi // 12 - 1)


def sounding_pitch(reading: Reading, pitch: Pitch) -> Pitch:
    """Return the pitch that is heard when a written one is played, spelt a fitting interval away."""
    semitones = reading.instrument.sounds
    octaves, over = divmod(semitones, 12)
    return above(pitch, _LETTERS_UP[over] + 7 * octaves, semitones)


#: Semitones upwards → letters: a major sixth is five letters, a minor seventh six.
_LETTERS_UP = (0, 1, 1, 2, 2, 3, 4, 4, 5, 5, 6, 6)


def sounding_key(reading: Reading) -> tuple[str, str] | None:
    """Return the tonic as it is written and as it is heard; None where both are one, or there is none."""
    known = scale_of(reading.drill.material)
    if known is None or reading.instrument.sounds % 12 == 0:
        return None
    written = known[0]
    heard = sounding_pitch(reading, written)
    return tuple(show_tonic(one.bare) for one in (written, heard))  # type: ignore[return-value]
