"""Sounds without pitch: what a struck instrument sounds like by hand and by place, and the sounds of the layers."""

from collections.abc import Iterator
from typing import Literal

from ripresa.core.exact import Fraction
from ripresa.core.grid import Event
from ripresa.core.reading import Reading

Drum = Literal[
    "kick",
    "snare",
    "hat",
    "hit",
    "light_hit",
    "tap",
    "brush",
    "pad_low",
    "pad_high",
    "drum_low",
    "drum_open",
    "drum_slap",
    "clap",
]


def drum_of(reading: Reading, event: Event) -> Drum | None:
    """Return the sound of a note on an instrument without pitch; None where pitches or plain claps sound.

    A pad sounds by hand: the right one lower. A hand drum by place: low on the beat, open on its half, else a slap.
    """
    match reading.drill.instrument:
        case "practice_pad":
            return "pad_high" if event.stroke == "L" else "pad_low"
        case "hand_drum":
            if event.slot == 0:
                return "drum_low"
            return "drum_open" if 2 * event.slot == event.division.numerator else "drum_slap"
        case "clapping":
            return "clap"
        case _:
            return None


def layer_sounds(reading: Reading, layer: Literal["hits", "foot", "arm"]) -> Iterator[tuple[Fraction, Drum]]:
    """Yield (onset in beats, sound) of a layer that is heard beside the notes.

    Hits are heard as a band would strike them, played or not; the arm is heard where it strikes the air.
    """
    match layer:
        case "hits":
            yield from ((at, "light_hit" if light else "hit") for at, light in reading.hits)
        case "foot":
            yield from ((at, "tap") for at, _ in reading.foot)
        case "arm":
            for events in reading.hands:
                yield from ((event.onset, "brush") for event in events if event.kind != "note" and event.stroke)
