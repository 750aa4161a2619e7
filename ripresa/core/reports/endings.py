"""Endings: where a line is over, what is missing to the next 1, and how it goes through chords."""

from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

from ripresa.core.drill.material import Line
from ripresa.core.grid import Event, chord_at, parse_progression
from ripresa.core.pitch import Chord
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Meter, count_word, place_name

#: Two tones are a step apart up to a whole tone.
_STEP = 2


@dataclass(frozen=True, slots=True)
class Ending:
    """Where so many slots are over.

    Args:
        place: Where the next note would stand, in words.
        missing: Slots from there to the next 1; 0 on it.
    """

    place: str
    missing: int


@dataclass(frozen=True, slots=True)
class Statement:
    """How a statement lies on its chord.

    Args:
        chord: Its symbol. first, last: Its first and last pitch, in words.
        on_root: Whether it starts on the root.
        cut: Notes of the line that do not fit on the chord.
        leads: Whether its last note goes by step, or stays, into a tone of the next chord; None at the end.
    """

    chord: str
    first: str
    last: str
    on_root: bool
    cut: int
    leads: bool | None


def ending(slots: int, division: Fraction, meter: Meter) -> Ending:
    """Return where so many slots from a bar line are over.

    >>> from ripresa.core.rhythm import METERS
    >>> ending(6, Fraction(2), METERS["4/4"]), ending(6, Fraction(4), METERS["4/4"])
    (Ending(place='bar 1, beat 4', missing=2), Ending(place='bar 1, beat 2, &', missing=10))
    """
    beats = slots / division
    whole, inside = divmod(beats, 1)
    bar, beat = divmod(int(whole), len(meter.beats))
    # A division that spans beats is counted from its own first slot.
    slot = slots % division.numerator if division.denominator > 1 else int(inside * division)
    word = count_word(division, beat + 1, slot)
    missing = -beats % len(meter.beats) * division
    return Ending(place_name(bar + 1, beat + 1, word), int(missing))


def statements(reading: Reading) -> tuple[Statement, ...]:
    """Return how each statement of a line through a progression lies on its chord, first leg alone; else nothing."""
    line = reading.drill.material
    if not isinstance(line, Line) or not line.through:
        return ()
    spans = parse_progression(line.through, reading.meter)
    by_statement: dict[int, list[Event]] = {}
    for event in reading.notes:
        if event.leg == 0 and event.statement is not None and event.pitch:
            by_statement.setdefault(event.statement, []).append(event)
    groups = [(chord_at(spans, spans[number].start), events) for number, events in sorted(by_statement.items())]
    if not groups:
        # Nothing of it has a pitch.
        return ()
    whole = sum(not note.silent and note.tone is not None for note in line.played)
    leads = [_leads(before[-1], after[0], chord) for (_, before), (chord, after) in pairwise(groups)]
    return tuple(
        Statement(
            chord.shown,
            _shown(events[0]),
            _shown(events[-1]),
            _same_tone(events[0], chord),
            whole - len(events),
            lead,
        )
        for (chord, events), lead in zip(groups, [*leads, None], strict=True)
    )


def _leads(last: Event, following: Event, chord: Chord) -> bool:
    assert last.pitch
    assert following.pitch
    near = abs(following.pitch.midi - last.pitch.midi) <= _STEP
    return near and chord.holds(following.pitch)


def _same_tone(event: Event, chord: Chord) -> bool:
    return event.pitch is not None and (event.pitch.midi - chord.root.midi) % 12 == 0


def _shown(event: Event) -> str:
    return event.pitch.shown if event.pitch else ""
