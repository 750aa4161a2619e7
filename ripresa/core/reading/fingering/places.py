"""Places on the neck: the positions in which a scale, a pentatonic or an arpeggio lies from string to string."""

from functools import lru_cache

from ripresa.core.pitch import Instrument, Pitch, Scale
from ripresa.core.reading.fingering.layouts import Neck, notes_in, stretches

#: How many places a scale has on a guitar's neck before they come again an octave higher.
FIVE = 5
_OCTAVE = 12
#: Frets from one place to the next at the least.
_APART = 2


def in_place(instrument: Instrument, tonic: Pitch, tones: Scale, fret: int) -> tuple[int, ...]:
    """Return the notes of a scale, as MIDI numbers, that lie in a position; none where it has a gap there."""
    return notes_in(Neck(instrument.strings, instrument.frets), fret, _on_neck(instrument, tonic, tones))


@lru_cache(maxsize=256)
def places(instrument: Instrument, tonic: Pitch, tones: Scale) -> tuple[int, ...]:
    """Return the frets of the first finger in the places of a scale, rising, up to five; none away from strings.

    Of all positions within an octave that hold it without a gap, those with the fewest stretches, two frets apart.

    >>> from ripresa.core.pitch import INSTRUMENTS, SCALES
    >>> places(INSTRUMENTS["guitar"], Pitch(5, 0, 4), SCALES["minor_pentatonic"])
    (2, 5, 7, 9, 12)
    """
    if not instrument.strings:
        return ()
    neck, every = Neck(instrument.strings, instrument.frets), _on_neck(instrument, tonic, tones)
    found: list[tuple[int, int, int]] = []
    for fret in range(1, _OCTAVE + 1):
        run = notes_in(neck, fret, every)
        if run and 0 not in {midi - open_note for midi in run for open_note in instrument.strings if fret == 1}:
            found.append((stretches(neck, fret, run), -len(run), fret))
    chosen: list[int] = []
    for _, _, fret in sorted(found):
        if len(chosen) < FIVE and all(_APART <= (fret - one) % _OCTAVE <= _OCTAVE - _APART for one in chosen):
            chosen.append(fret)
    return tuple(sorted(chosen))


@lru_cache(maxsize=256)
def _on_neck(instrument: Instrument, tonic: Pitch, tones: Scale) -> tuple[int, ...]:
    inside = {(tonic.midi + semitones) % _OCTAVE for _, semitones in tones.up}
    return tuple(midi for midi in range(min(instrument.strings), instrument.highest + 1) if midi % _OCTAVE in inside)
