"""Practising on the stand: a drill at a tempo, or a part of it, in another way than it is written."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Literal

from ripresa.core.changes import doubled, halved
from ripresa.core.drill import Drill, Reduce, Step
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.playing import (
    Accompaniment,
    Before,
    Performance,
    Pulse,
    Spoken,
    Window,
    at_step,
    bars_window,
    before_it_was_moved,
    is_drill_itself,
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
        step: A step of its way in. unmoved: As it was before it was moved.
        divide: Divided twice or half as much, which keeps the speed at half or double the tempo.
        reduce: A part of it alone, the rest in silence.
        bars: Bars that go round, from 1; seam: the change between two legs, from 0.
        turns: Passes each in turn with the teacher. slow: A share of the tempo.
        before, spoken, pulse, back: What comes before it, is said, and goes with it.
    """

    drill: Drill
    bpm: Fraction | None = None
    click: Click | None = None
    step: Step | None = None
    unmoved: bool = False
    divide: Literal["twice", "half"] | None = None
    reduce: Reduce | None = None
    bars: tuple[int, int] | None = None
    seam: int | None = None
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
        is_practice: Whether it differs from the drill as it is kept, so that no take is made of it.
        slower, faster: Tempi one press away; half, double: the tempo, where it can be played.
    """

    reading: Reading
    performance: Performance
    bpm: Fraction
    seams: tuple[str, ...]
    hands: tuple[str, ...]
    is_practice: bool
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
    reading = read(_changed(drill, asked))
    asked_bpm = check_bpm(asked.bpm or drill.bpm)
    bpm = asked_bpm if asked.slow is None else slowed(asked_bpm, asked.slow)
    between = seams(reading)
    window = _window(reading, between, asked)
    performance = perform(
        reading,
        bpm,
        before=asked.before,
        spoken=asked.spoken,
        pulse=asked.pulse,
        back=asked.back,
        window=window,
        turns=asked.turns,
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
            or not is_drill_itself(asked.step)
            or any(part is not None for part in (window, asked.turns, asked.slow))
        ),
        slower=slower,
        faster=faster,
        half=asked_bpm / 2 if asked_bpm / 2 >= SLOWEST_BPM else None,
        double=asked_bpm * 2 if asked_bpm * 2 <= FASTEST_BPM else None,
    )


def _changed(drill: Drill, asked: Practice) -> Drill:
    if asked.unmoved:
        drill = before_it_was_moved(drill)
    if asked.divide:
        drill = doubled(drill) if asked.divide == "twice" else halved(drill)
    if asked.step:
        drill = at_step(drill, asked.step)
    return replace(drill, reduce=asked.reduce) if asked.reduce else drill


def _hands(drill: Drill, played: Reading) -> tuple[str, ...]:
    """Return the symbols of the hands of a drill that can play alone: more than one, or none."""
    all_of_it = replace(drill, reduce=Reduce())
    whole = played if played.drill == all_of_it else read(all_of_it)
    found = tuple(dict.fromkeys(event.stroke for event in whole.notes if event.stroke))
    return found[:MOST_HANDS] if len(found) > 1 else ()


def _window(reading: Reading, between: Sequence[Window], asked: Practice) -> Window | None:
    if asked.bars:
        return bars_window(reading, *asked.bars)
    if asked.seam is None:
        return None
    if not 0 <= asked.seam < len(between):
        raise OutOfRange(
            f"This drill has {plural(len(between), 'seam')} between legs. Choose one of them.", field="loop"
        )
    return between[asked.seam]
