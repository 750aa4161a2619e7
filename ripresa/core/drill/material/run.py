"""Runs: how tones over some octaves are put in order, and where a run lies on an instrument."""

from collections.abc import Sequence
from math import ceil
from typing import Literal

from ripresa.core.exact import Fraction
from ripresa.core.pitch import Instrument, Pitch, Scale, above

Shape = Literal["up", "down", "there_and_back", "back_and_there"]
Top = Literal["once", "twice"]
#: How many, or as many as notes per beat, or one as many times.
Octaves = int | Literal["match", "one_repeated"]
#: A tone of a run: its number from the lowest tonic, and whether it belongs to the way down.
RunTone = tuple[int, bool]

SHAPES: dict[Shape, tuple[str, str]] = {
    "there_and_back": ("there and back", "Up, then down: the usual run, and it comes back to where it started."),
    "back_and_there": ("back and there", "From the top: the way down gets the fresh hand."),
    "up": ("up", "One way only, to hear every step of it."),
    "down": ("down", "One way only, the harder one for most."),
}
TOPS: dict[Top, tuple[str, str]] = {
    "once": ("the turning note once", "Keeps seven-note scales at 2 × 7 notes an octave, so octaves match the beat."),
    "twice": ("the turning note twice", "A new stroke on the turn; adds two notes and moves every accent after it."),
}


def contour(top: int, shape: Shape, turn: Top) -> tuple[list[RunTone], RunTone | None]:
    """Return the tones of a run in order, and the closing one if it is not among them.

    Args:
        top: Number of the highest tone, counted from the lowest tonic as 0.
    """
    up = [(index, False) for index in range(top)]
    down = [(index, True) for index in range(top, 0, -1)]
    low, high = (0, True), (top, False)
    match shape:
        case "up":
            return up, high
        case "down":
            return down, low
        case "there_and_back" if turn == "once":
            return up + down, low
        case "there_and_back":
            return [*up, high, *down, low], None
        case "back_and_there" if turn == "once":
            return down + up, high
        case _:
            return [*down, low, *up, high], None


def started(
    steps: list[RunTone], closing: RunTone | None, start: int, shape: Shape, degrees: int
) -> tuple[list[RunTone], RunTone | None]:
    """Return a run that starts on another of its tones.

    One way, it spans as much from there. There and back, it goes round as a
    circle, from the first of its tones on that degree, and closes on the tone
    it started with.

    Args:
        start: The degree, from 0. degrees: How many there are to the octave.
    """
    if not start:
        return steps, closing
    if shape in {"up", "down"}:
        moved = [(index + start, down) for index, down in steps]
        return moved, (closing[0] + start, closing[1]) if closing else None
    first = next(place for place, (index, _) in enumerate(steps) if index % degrees == start)
    return steps[first:] + steps[:first], steps[first]


def run_pass(
    tonic: Pitch, tones: Scale, octaves: int, shape: Shape, turn: Top, start: int, instrument: Instrument
) -> tuple[tuple[Pitch, ...], Pitch | None]:
    """Return the pitches of a run on an instrument, and its closing tone.

    Args:
        start: Degree on which it starts, from 1.
    """
    seated = seat(tonic, octaves, instrument)
    steps, closing = started(*contour(tones.degrees * octaves, shape, turn), start - 1, shape, tones.degrees)
    return (
        tuple(pitch_of(seated, tones, step) for step in steps),
        pitch_of(seated, tones, closing) if closing else None,
    )


def pitch_of(tonic: Pitch, scale: Scale, step: RunTone) -> Pitch:
    """Return the pitch of a tone of a run."""
    index, down = step
    letters, semitones = scale.degree(index, going_down=down)
    return above(tonic, letters, semitones)


def octaves_for(octaves: int | str, divisions: Sequence[Fraction]) -> tuple[int, int]:
    """Return (octaves, times) of a pass at these divisions, of which the fastest says how many match."""
    # 3:2 is one and a half notes a beat: it climbs two octaves, and half a note a beat still one.
    matching = max(1, ceil(max(divisions)))
    if isinstance(octaves, int):
        return octaves, 1
    return (matching, 1) if octaves == "match" else (1, matching)


def seat(tonic: Pitch, octaves: int, instrument: Instrument) -> Pitch:
    """Return the tonic in the octave where the run starts on this instrument.

    At its home or within the octave above; lower while the top does not fit
    and the bottom still does.
    """
    octave = tonic.octave + ceil((instrument.home - tonic.midi) / 12)
    seated = Pitch(tonic.letter, tonic.alter, octave)
    while not instrument.holds(seated.midi + 12 * octaves) and instrument.holds(seated.midi - 12):
        seated = Pitch(seated.letter, seated.alter, seated.octave - 1)
    return seated
