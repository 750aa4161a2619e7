"""Breath: how fast a pass has to go to be played in one, and where to breathe if it is not.

A pass of b beats in a breath of t seconds needs bpm ≥ 60 · b / t.
"""

from dataclasses import dataclass
from fractions import Fraction
from itertools import groupby

from ripresa.core.grid import Event, LegReading
from ripresa.core.reading import Reading


@dataclass(frozen=True, slots=True)
class BreathSums:
    """The breath of one leg.

    Args:
        leg: Which leg. beats: Length of its pass.
        needed_bpm: The slowest tempo at which it is one breath.
        fits: Whether it is one breath at the tempo asked for.
    """

    leg: LegReading
    beats: Fraction
    needed_bpm: Fraction
    fits: bool


def needed_bpm(beats: Fraction, seconds: Fraction) -> Fraction:
    """Return the slowest tempo at which so many beats last no longer than a breath.

    >>> needed_bpm(Fraction(14), Fraction(10))
    Fraction(84, 1)
    """
    return 60 * beats / seconds


def breath_sums(reading: Reading, bpm: Fraction) -> tuple[BreathSums, ...]:
    """Return the breath of each leg; nothing where breath does not matter."""
    breath = reading.drill.breath
    if not breath:
        return ()
    slowest = [needed_bpm(leg.pass_beats, breath) for leg in reading.legs]
    return tuple(
        BreathSums(leg, leg.pass_beats, needed, bpm >= needed)
        for leg, needed in zip(reading.legs, slowest, strict=True)
    )


def breath_marks(reading: Reading, bpm: Fraction) -> tuple[Event, ...]:
    """Return the notes before which to breathe, at a tempo.

    Each leg begins with a breath, but for the first, which follows the count-in, and those that go straight on.
    Inside a leg that is too long it is the turn if that halves it well enough,
    else the last bar line, else the last beat, before the air is gone.
    """
    breath = reading.drill.breath
    if not breath:
        return ()
    straight_on = reading.drill.seam == "straight_on"
    found: list[Event] = []
    for leg, inside in groupby(reading.notes, key=lambda event: 0 if straight_on else event.leg):
        events = list(inside)
        if leg:
            found.append(events[0])
        last = reading.legs[events[-1].leg]
        end = last.start + last.pass_beats
        turn = _turn(events)
        longest = breath * bpm / 60
        if turn and max(turn.onset - events[0].onset, end - turn.onset) <= longest < end - events[0].onset:
            found.append(turn)
        else:
            found += _as_needed(reading, events, end, longest)
    return tuple(found)


def _turn(events: list[Event]) -> Event | None:
    """Return the note after the highest one, if the leg goes up and comes back."""
    heights = [event.pitch.midi for event in events if event.pitch]
    if len(heights) < len(events):
        return None
    top = heights.index(max(heights))
    return events[top + 1] if 0 < top < len(events) - 1 else None


def _as_needed(reading: Reading, events: list[Event], end: Fraction, longest: Fraction) -> list[Event]:
    """Return breaths each taken as late as it can be: at a bar line, else at a beat, else at any note."""
    found: list[Event] = []
    start = events[0].onset
    while end - start > longest:
        later = [event for event in events if event.onset > start]
        if not later:
            return found
        # A note that is longer than a breath is followed by one all the same.
        reach = [event for event in later if event.onset <= start + longest] or later[:1]
        at_beat = [event for event in reach if not reading.meter.to_beat(event.onset)]
        at_bar = [event for event in at_beat if event.beat == 1]
        chosen = (at_bar or at_beat or reach)[-1]
        found.append(chosen)
        start = chosen.onset
    return found
