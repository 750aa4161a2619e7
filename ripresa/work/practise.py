"""Practising on the stand: a drill at a tempo, or a part of it, in another way than it is written."""

from dataclasses import dataclass, replace

from ripresa.core.changes import Part, layers_of, part_named, practised, window_of
from ripresa.core.drill import Drill, Reduce
from ripresa.core.drill.click import Click
from ripresa.core.exact import Fraction
from ripresa.core.grid import HANDS_OF
from ripresa.core.playing import (
    Accompaniment,
    Before,
    Performance,
    Pulse,
    Spoken,
    perform,
    seams,
    slowed,
)
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import FASTEST_BPM, SLOWEST_BPM, check_bpm, neighbours

#: Hands, fingers or syllables that are offered to play alone.
MOST_HANDS = 6


@dataclass(frozen=True, slots=True)
class Practice:
    """What is asked for of a drill.

    Args:
        bpm: Another tempo than its own. click: Another click.
        part: A part of it by itself.
        turns: Passes each in turn with the teacher. slow: A share of the tempo.
        before, spoken, pulse, back: What comes before it, is said, and goes with it.
    """

    drill: Drill
    bpm: Fraction | None = None
    click: Click | None = None
    part: Part = Part()
    turns: int | None = None
    slow: Fraction | None = None
    before: Before = Before()
    spoken: Spoken = Spoken()
    pulse: Pulse | None = None
    back: tuple[Accompaniment, ...] = ()


@dataclass(frozen=True, slots=True)
class Practised:
    """What is played, and what can be chosen beside it.

    Args:
        bpm: At which it is played.
        seams: That can go round, in words; hands: that can play alone, more than one or none.
        is_practice: Whether it differs from the drill as it is kept, so that it moves no climb.
        part_name: What is practised by itself, in words; empty for all of it.
        is_measured: Whether a take can be made of it: whatever one plays alone, and in order.
        slower, faster: Tempi one press away; half, double: the tempo, where it can be played.
    """

    reading: Reading
    performance: Performance
    bpm: Fraction
    seams: tuple[str, ...]
    hands: tuple[str, ...]
    is_practice: bool
    is_measured: bool
    part_name: str
    slower: Fraction
    faster: Fraction
    half: Fraction | None
    double: Fraction | None


def practise(asked: Practice) -> Practised:
    """Return what is asked for, ready for the player.

    Raises:
        OutOfRange: A part that the drill does not have, or a tempo that cannot be played.
    """
    # The click that is chosen here is part of what is read, so that the rail shows what is heard.
    drill = replace(asked.drill, click=asked.click) if asked.click else asked.drill
    reading = read(practised(drill, asked.part))
    asked_bpm = check_bpm(asked.bpm or drill.bpm)
    bpm = asked_bpm if asked.slow is None else slowed(asked_bpm, asked.slow)
    between = seams(reading)
    window = window_of(reading, asked.part, between)
    layers = layers_of(drill, asked.part)
    performance = perform(
        reading,
        bpm,
        before=asked.before,
        spoken=asked.spoken,
        pulse=asked.pulse,
        back=asked.back,
        window=window,
        turns=asked.turns,
        step=asked.part.step,
        layers=layers,
    )
    slower, faster = neighbours(asked_bpm)
    return Practised(
        reading=reading,
        performance=performance,
        bpm=bpm,
        seams=tuple(seam.name for seam in between),
        hands=_hands(drill, reading),
        # What differs from the drill as it is kept cannot be held against it.
        is_practice=(
            reading.drill != drill
            or not asked.part.is_all
            or any(part is not None for part in (asked.turns, asked.slow))
        ),
        is_measured=asked.turns is None and (layers is None or "hands" in layers),
        part_name="" if asked.part.is_all else part_named(read(drill), asked.part),
        slower=slower,
        faster=faster,
        half=asked_bpm / 2 if asked_bpm / 2 >= SLOWEST_BPM else None,
        double=asked_bpm * 2 if asked_bpm * 2 <= FASTEST_BPM else None,
    )


def _hands(drill: Drill, played: Reading) -> tuple[str, ...]:
    """Return the symbols of the hands of a drill that can play alone: more than one, or none."""
    if drill.second.is_there:
        return tuple(HANDS_OF.values())
    all_of_it = replace(drill, reduce=Reduce())
    whole = played if played.drill == all_of_it else read(all_of_it)
    found = tuple(dict.fromkeys(event.stroke for event in whole.notes if event.stroke))
    return found[:MOST_HANDS] if len(found) > 1 else ()
