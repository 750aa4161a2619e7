"""What is due: the notes of a stretch of a performance."""

from math import lcm

from ripresa.core.exact import Fraction
from ripresa.core.playing.score import Window
from ripresa.core.reading import Reading
from ripresa.core.rhythm import span_seconds

#: A stretch is given in floating seconds: what lies this near to its edge lies on it.
_HAIR = 1e-9


def most_due(reading: Reading, bpm: Fraction, seconds: float, window: Window | None = None) -> int:
    """Return how many notes at most are due in so many seconds: those of every turn that is begun.

    ``turns = seconds * bpm / 60 / beats of a turn``, rounded up.
    """
    turn = window.beats if window else reading.loop_beats
    return len(_of_a_turn(reading, window)) * (int(Fraction(seconds) * bpm / 60 / turn) + 1)


def expected_onsets(
    reading: Reading, bpm: Fraction, start: float, end: float, window: Window | None = None
) -> list[tuple[float, int]]:
    """Return (seconds, index of the event) of each note due from ``start`` to before ``end``, turns repeated.

    Args:
        start, end: Seconds from the start of the first turn.
        window: The part of the drill that goes round, if not all of it.
    """
    turn = window.beats if window else reading.loop_beats
    due = _of_a_turn(reading, window)
    # Whole numbers over one denominator: as exact as fractions, and a division of them rounds as theirs does.
    ticks = lcm(turn.denominator, *(onset.denominator for _, onset in due))
    second = span_seconds(Fraction(1, ticks), bpm)
    up, down = second.numerator, second.denominator
    places = [(index, onset.numerator * (ticks // onset.denominator) * up) for index, onset in due]
    round_up = turn.numerator * (ticks // turn.denominator) * up
    found: list[tuple[float, int]] = []
    first = int(Fraction(start) * bpm / 60 / turn)
    last = int(Fraction(end) * bpm / 60 / turn)
    for number in range(max(0, first), last + 1):
        begin = number * round_up
        for index, place in places:
            at = (begin + place) / down
            if start - _HAIR <= at < end - _HAIR:
                found.append((at, index))
    return found


def _of_a_turn(reading: Reading, window: Window | None) -> list[tuple[int, Fraction]]:
    begin, end = (window.start, window.end) if window else (Fraction(0), reading.loop_beats)
    found = [
        (index, event.onset - begin)
        for index, event in enumerate(reading.every)
        if event.kind == "note" and begin <= event.onset < end
    ]
    # Two hands are due in one order of time.
    return sorted(found, key=lambda pair: pair[1]) if reading.other else found
