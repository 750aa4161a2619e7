"""From onsets in beats to slots: each beat gets the smallest division that holds what happens in it."""

from collections.abc import Iterator, Sequence
from math import lcm

from ripresa.core.drill.material.count import BINARY
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.grid import Record, Slot
from ripresa.core.pitch import ChordSound, Pitch
from ripresa.core.rhythm import Level, Meter, SlotKind

FINEST = 16


class Sound(Record, frozen=True):
    """What begins somewhere: a note or a silence.

    Args:
        onset: In the units of its line, from the start.
        statement: The statement it belongs to, from 0.
        chord: The chord that it is played over.
    """

    onset: Fraction
    kind: SlotKind
    pitch: Pitch | None = None
    accent: Level | None = None
    statement: int | None = None
    chord: ChordSound | None = None


def onto_beats(sounds: Sequence[Sound], end: Fraction, meter: Meter) -> tuple[Slot, ...]:
    """Return the slots of every beat from 0 to ``end``, in beats of the bpm; what goes on is held.

    Halves and quarters share the finer grid, as in a typed count.

    Raises:
        OutOfRange: A beat would need more than 16 slots.
    """
    beats = list(_beats(sounds, end, meter))
    divisions = [_division(inside, *where) for inside, where in beats]
    finest = max((one for one in divisions if one in BINARY), default=1)
    slots: list[Slot] = []
    sounding = False
    for (inside, _), needed in zip(beats, divisions, strict=True):
        division = finest if needed in BINARY else needed
        starts = dict(inside)
        for number in range(division):
            found = starts.get(Fraction(number, division))
            if found:
                sounding = found.kind == "note"
                slots.append(
                    Slot(
                        Fraction(division), number, found.kind, found.pitch, found.accent, found.chord, found.statement
                    )
                )
            else:
                slots.append(Slot(Fraction(division), number, "hold" if sounding else "rest"))
    return tuple(slots)


def _beats(
    sounds: Sequence[Sound], end: Fraction, meter: Meter
) -> Iterator[tuple[list[tuple[Fraction, Sound]], tuple[int, int]]]:
    """Yield what begins in each beat, as (share of the beat, sound), and its bar and beat."""
    next_sound = 0
    for at in meter.beats_until(end):
        length = meter.beat_at(at)
        inside: list[tuple[Fraction, Sound]] = []
        while next_sound < len(sounds) and sounds[next_sound].onset < at + length:
            inside.append(((sounds[next_sound].onset - at) / length, sounds[next_sound]))
            next_sound += 1
        if end < at + length:
            # What ends inside a beat is silent from there on.
            inside.append(((end - at) / length, Sound(end, "rest")))
        yield inside, meter.place(at)[:2]


def _division(inside: Sequence[tuple[Fraction, Sound]], bar: int, beat: int) -> int:
    division = lcm(*(share.denominator for share, _ in inside))
    if division > FINEST:
        raise OutOfRange(
            f"Bar {bar}, beat {beat} would need {division} slots, and a beat has up to {FINEST}. "
            "Write lengths that share a division: *1/2, *1/3, *1/4.",
            field="material.text",
        )
    return division
