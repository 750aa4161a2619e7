"""Runs: how tones over some octaves are put in order, and where a run lies on an instrument."""

from collections.abc import Sequence
from math import ceil
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.pitch import UNDER_HAND, Instrument, Pitch, Scale, on_degree

Shape = Literal["up", "down", "there_and_back", "back_and_there"]
Top = Literal["once", "twice"]
#: How many, or as many as notes per beat, or one as many times.
Octaves = int | Literal["match", "one_repeated"]
#: Those, or all that the instrument has.
Span = Octaves | Literal["range"]
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


def check_start(start: int, tones: Scale) -> None:
    """Check that a run can begin on a degree.

    Raises:
        OutOfRange: The scale does not have it.
    """
    if not 1 <= start <= tones.degrees:
        raise OutOfRange(f"{tones.name} has degrees 1 to {tones.degrees}, and not {start}.", field="material.start")


def spanned(octaves: Span, divisions: Sequence[Fraction]) -> tuple[int | Literal["range"], int, str]:
    """Return what a pass spans at these divisions, how many times, and that in words."""
    if octaves == "range":
        return octaves, 1, "the whole range"
    count, times = octaves_for(octaves, divisions)
    return count, times, plural(count, "octave") + (f", {times} times" if times > 1 else "")


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
    steps: list[RunTone], closing: RunTone | None, start: int, shape: Shape, degrees: int, *, circle: bool = True
) -> tuple[list[RunTone], RunTone | None]:
    """Return a run that starts on another of its tones.

    One way, or as an inversion, it spans as much from there. There and back in a circle it goes round from the first
    of its tones on that degree, and closes on the tone it started with.

    Args:
        start: The degree, from 0. degrees: How many there are to the octave. circle: Whether there and back goes round.
    """
    if not start:
        return steps, closing
    if shape in {"up", "down"} or not circle:
        moved = [(index + start, down) for index, down in steps]
        return moved, (closing[0] + start, closing[1]) if closing else None
    first = next(place for place, (index, _) in enumerate(steps) if index % degrees == start)
    return steps[first:] + steps[:first], steps[first]


def through_range(
    tonic: Pitch, tones: Scale, shape: Shape, turn: Top, start: int, instrument: Instrument
) -> tuple[list[RunTone], RunTone | None]:
    """Return a run through all that an instrument has: one way, or from a degree to one end, to the other, and back.

    Args:
        tonic: As it is seated. start: The degree, from 0.
    """
    low = high = start
    while instrument.holds(pitch_of(tonic, tones, (low - 1, True)).midi):
        low -= 1
    while instrument.holds(pitch_of(tonic, tones, (high + 1, False)).midi):
        high += 1
    again = [(high, False)] if turn == "twice" else []
    up, down = [(index, False) for index in range(low, high)], [(index, True) for index in range(high, low, -1)]
    match shape:
        case "up":
            return up, (high, False)
        case "down":
            return down, (low, True)
        case "there_and_back":
            return [*up[start - low :], *again, *down, *up[: start - low]], (start, False)
        case "back_and_there":
            return [*down[high - start :], *up, *again, *down[: high - start]], (start, True)


def run_pass(
    tonic: Pitch,
    tones: Scale,
    octaves: int | Literal["range"],
    shape: Shape,
    turn: Top,
    start: int,
    instrument: Instrument,
    *,
    circle: bool = True,
) -> tuple[tuple[Pitch, ...], Pitch | None]:
    """Return the pitches of a run on an instrument, and its closing tone.

    Args:
        start: Degree on which it starts, from 1. circle: Whether there and back goes round from there.
    """
    if octaves == "range":
        seated = seat(tonic, 1, instrument)
        steps, closing = through_range(seated, tones, shape, turn, start - 1, instrument)
    else:
        over = tones.degree(start - 1)[1] if not circle or shape in {"up", "down"} else 0
        seated = seat(tonic, octaves, instrument, over)
        run = contour(tones.degrees * octaves, shape, turn)
        steps, closing = started(*run, start - 1, shape, tones.degrees, circle=circle)
    return (
        tuple(pitch_of(seated, tones, step) for step in steps),
        pitch_of(seated, tones, closing) if closing else None,
    )


def pitch_of(tonic: Pitch, scale: Scale, step: RunTone) -> Pitch:
    """Return the pitch of a tone of a run."""
    index, down = step
    return on_degree(index, 0, tonic, scale, going_down=down)


def octaves_for(octaves: int | str, divisions: Sequence[Fraction]) -> tuple[int, int]:
    """Return (octaves, times) of a pass at these divisions, of which the fastest says how many match."""
    # 3:2 is one and a half notes a beat: it climbs two octaves, and half a note a beat still one.
    matching = max(1, ceil(max(divisions)))
    if isinstance(octaves, int):
        return octaves, 1
    return (matching, 1) if octaves == "match" else (1, matching)


def seat(tonic: Pitch, octaves: int, instrument: Instrument, over: int = 0) -> Pitch:
    """Return the tonic in the octave where the run starts on this instrument.

    At its home or within the octave above, a hand on keys as near to its home as can be; lower while the top does not
    fit and the bottom still does.

    Args:
        over: Semitones over the tonic on which the run starts.
    """
    lowest = instrument.home - (UNDER_HAND if instrument.hand else 0)
    octave = tonic.octave + ceil((lowest - tonic.midi) / 12)
    seated = Pitch(tonic.letter, tonic.alter, octave)
    while not instrument.holds(seated.midi + over + 12 * octaves) and instrument.holds(seated.midi + over - 12):
        seated = Pitch(seated.letter, seated.alter, seated.octave - 1)
    return seated
