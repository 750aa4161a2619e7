"""What has no pitch, by its role and the hand that strikes it: its drum in MIDI, its place on a staff.

Numbers are those of the General MIDI 1 percussion key map.
"""

from dataclasses import dataclass

from ripresa.core.grid import Event


@dataclass(frozen=True, slots=True)
class Drum:
    """A sound without pitch.

    Args:
        name: As the map has it. key: MIDI note on the channel of percussion.
        step, octave: Where it stands on a staff of five lines, read as in the treble clef.
        is_cross: Whether its notehead is a cross.
    """

    name: str
    key: int
    step: str
    octave: int
    is_cross: bool = False


STROKE = Drum("side stick", 37, "C", 5)
#: What is struck without pitch, by the hand, the direction or the syllable of its stroke.
BY_STROKE: dict[str, Drum] = {
    "R": Drum("acoustic snare", 38, "C", 5),
    "L": Drum("electric snare", 40, "A", 4),
    "D": Drum("low bongo", 61, "A", 4),
    "U": Drum("high bongo", 60, "C", 5),
    "T": Drum("claves", 75, "C", 5),
    "K": Drum("hand clap", 39, "A", 4),
}
#: A stroke over damped strings, and the second layer under the first.
DEAD = Drum("closed hi-hat", 42, "G", 5, is_cross=True)
SECOND = Drum("bass drum 1", 36, "F", 4)


def drum_of(event: Event) -> Drum:
    """Return the drum of a note without pitch: by what is damped, then by its stroke or the row of its hand."""
    if event.how.dead:
        return DEAD
    return BY_STROKE.get(event.stroke or event.hand or "", STROKE)
