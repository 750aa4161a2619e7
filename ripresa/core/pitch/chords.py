"""Chords as they sound: how an instrument of each kind takes one."""

from dataclasses import dataclass

from ripresa.core.pitch.chord_symbol import Chord
from ripresa.core.pitch.instrument import UNDER_HAND, Instrument
from ripresa.core.pitch.pitch import Pitch, above
from ripresa.core.pitch.shapes import Shape, shape_of
from ripresa.core.pitch.string_sets import shape_on

#: All strings that a grip has, rather than a set of neighbours.
ALL_STRINGS = "all"
#: Tones further apart than one hand holds close: the second one an octave higher.
SPREAD = "spread"
SPREAD_NAME = "spread over the keys"


@dataclass(frozen=True, slots=True)
class ChordSound:
    """A chord as it sounds on an instrument.

    Args:
        symbol: With music signs. tones: Its written pitches from the bass up.
        shape: How it is gripped, on strings.
    """

    symbol: str
    tones: tuple[Pitch, ...]
    shape: Shape | None = None


def voiced(
    chord: Chord, instrument: Instrument, field: str = "material.chords", strings: str = ALL_STRINGS
) -> ChordSound:
    """Return a chord as an instrument of its kind takes it: gripped on strings, else from its bass up, under one hand.

    ``strings`` is a set of them that sounds alone; away from strings ``"spread"`` puts the second tone on top. A chord
    begins where the instrument does, inside its range.

    Raises:
        OutOfRange: No grip of it can be found, or a typed one does not fit the strings.
    """
    if instrument.strings:
        on_a_set = strings not in {ALL_STRINGS, SPREAD}
        shape = shape_on(chord, instrument, strings) if on_a_set else shape_of(chord, instrument, field)
        # Two strings in unison are one tone.
        gripped = {tone.midi: tone for tone in (on_string(chord, instrument, *where) for where in shape.sounding)}
        return ChordSound(chord.shown, tuple(gripped[midi] for midi in sorted(gripped)), shape)
    tones = close_position(chord, instrument.home - (UNDER_HAND if instrument.hand else 0))
    if strings == SPREAD and len(tones) > 2:
        low, middle, *upper = tones
        tones = (low, *upper, Pitch(middle.letter, middle.alter, middle.octave + 1))
    inside = tuple(tone for tone in tones if instrument.holds(tone.midi))
    return ChordSound(chord.shown, inside or tones[:1])


def on_string(chord: Chord, instrument: Instrument, string: int, fret: int) -> Pitch:
    """Return the pitch of a fret, spelt as the tone of the chord that it is."""
    midi = instrument.fretted(string, fret)
    tones = list(chord.tones.up)
    if chord.bass is not None:
        tones.append(((chord.bass.letter - chord.root.letter) % 7, (chord.bass.midi - chord.root.midi) % 12))
    octaves, over = divmod(midi - chord.root.midi, 12)
    steps = next((steps for steps, semitones in tones if semitones == over), _CHROMATIC[over])
    return above(chord.root, steps + 7 * octaves, over + 12 * octaves)


#: Semitones over a root → steps of the letter, for what is no tone of a chord.
_CHROMATIC = (0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6)


def close_position(chord: Chord, lowest: int) -> tuple[Pitch, ...]:
    """Return the tones of a chord close together, from its bass up, the bass not under a MIDI note.

    Args:
        lowest: The lowest MIDI note that the bass may have; it lies within the octave above.
    """
    bass = _from(chord.bass or chord.root, lowest)
    root = _from(chord.root, bass.midi)
    tones = [above(root, *chord.tones.degree(index)) for index in range(max(3, chord.tones.degrees))]
    # Inversions keep inside the octave: what lies over it comes down.
    close = [Pitch(one.letter, one.alter, one.octave - (one.midi - bass.midi) // 12) for one in tones]
    return tuple(sorted({one.midi: one for one in (bass, *close)}.values(), key=lambda one: one.midi))


def _from(pitch: Pitch, lowest: int) -> Pitch:
    """Return the lowest octave of a pitch that is not under a MIDI note."""
    octave = pitch.octave - (pitch.midi - lowest) // 12
    return Pitch(pitch.letter, pitch.alter, octave)
