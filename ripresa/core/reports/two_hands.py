"""Two hands: where they strike together, how close their strokes come, and where their thumbs pass.

In a cycle of n against m strokes they strike n + m − gcd(n, m) times, gcd(n, m) times together (DOMAIN §14). Nothing
here uses that: all is counted in the events; the tests hold the one against the other.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from ripresa.core.exact import Fraction
from ripresa.core.grid import Cursor, Event, LegReading, Slot, slot_numbers
from ripresa.core.reading import Reading, left_divisions, syllables_of, unlike_legs, unreduced
from ripresa.core.rhythm import span_seconds

#: Turns of the divisions that are looked through for a common one, or for a bar line.
_MOST_TURNS = 2_000


@dataclass(frozen=True, slots=True)
class Against:
    """Two hands on a leg, over one cycle: until both divisions begin anew at one place.

    Args:
        right, left: Divisions of each hand, in turn.
        beats: Length of the cycle. strokes: Onsets of either hand from its start, in beats, in order.
        together: Those of both. words: What is counted on each stroke.
        gap: The smallest distance between two strokes, in beats; None for a lone one. gap_from: From which to which.
        right_notes, left_notes: Strokes of each hand in the cycle.
        bars: Bars until the cycle begins on a bar line again, as on the first; None where that is far.
        phrase: Words of the teacher's own, one a stroke; empty without.
    """

    leg: LegReading
    right: tuple[Fraction, ...]
    left: tuple[Fraction, ...]
    beats: Fraction
    strokes: tuple[Fraction, ...]
    together: tuple[Fraction, ...]
    words: tuple[str, ...]
    gap: Fraction | None
    gap_from: tuple[str, str]
    right_notes: int
    left_notes: int
    bars: Fraction | None
    phrase: tuple[str, ...]

    def gap_seconds(self, bpm: Fraction) -> Fraction:
        """Return the smallest distance in seconds."""
        return span_seconds(self.gap or self.beats, bpm)

    def nps(self, strokes: int, bpm: Fraction) -> Fraction:
        """Return so many strokes a cycle in strokes a second."""
        return strokes / span_seconds(self.beats, bpm)


@dataclass(frozen=True, slots=True)
class Thumbs:
    """Where the thumbs pass in the first leg: numbers of the notes, from 1, on which each hand stands then.

    Args:
        together: Notes of the right hand at which both pass.
        mirrored, met: At how many of the moments in which both strike they use the same finger, and how many there are.
    """

    right: tuple[int, ...]
    left: tuple[int, ...]
    together: tuple[int, ...]
    mirrored: int
    met: int


def against(reading: Reading) -> tuple[Against, ...]:
    """Return how two hands lie against each other, once for each kind of leg; nothing where one hand plays."""
    drill = reading.drill
    if not drill.second.is_there:
        return ()
    whole = unreduced(reading)
    found = []
    for leg in unlike_legs(whole, lambda one: left_divisions(drill, one)):
        left = left_divisions(drill, leg)
        cycle, bars = _cycle(whole, leg, left)
        end = leg.start + cycle
        rows = [
            [event for event in events if leg.start <= event.onset < end and event.kind == "note"]
            for events in whole.hands
        ]
        struck = sorted({event.onset: event for event in (*rows[1], *rows[0])}.values(), key=lambda one: one.onset)
        if not struck:
            continue
        both = {event.onset for event in rows[0]} & {event.onset for event in rows[1]}
        gaps = list(_gaps(struck, end, leg.start)) if len(struck) > 1 else []
        gap, names = min(gaps, key=lambda one: one[0]) if gaps else (None, ("", ""))
        found.append(
            Against(
                leg=leg,
                right=leg.divisions,
                left=left,
                beats=cycle,
                strokes=tuple(event.onset - leg.start for event in struck),
                together=tuple(sorted(onset - leg.start for onset in both)),
                words=tuple(event.count for event in struck),
                gap=gap,
                gap_from=names,
                right_notes=len(rows[0]),
                left_notes=len(rows[1]),
                bars=bars,
                phrase=syllables_of(drill.second.phrase),
            )
        )
    return tuple(found)


def thumbs(reading: Reading) -> Thumbs | None:
    """Return where the thumbs pass in the first leg; None without two fingered hands."""
    if not reading.other or not reading.drill.knows_fingering:
        return None
    rows = [[event for event in events if event.leg == 0 and event.kind == "note"] for events in reading.hands]
    if not all(any(event.touch for event in row) for row in rows):
        return None
    passes = [dict(_passes(row, hand)) for row, hand in zip(rows, (1, -1), strict=True)]
    left = {event.onset: event for event in rows[1]}
    met = [(event, left[event.onset]) for event in rows[0] if event.onset in left]
    fingered = [(one.touch, other.touch) for one, other in met if one.touch and other.touch]
    return Thumbs(
        right=tuple(passes[0].values()),
        left=tuple(passes[1].values()),
        together=tuple(number for onset, number in passes[0].items() if onset in passes[1]),
        mirrored=sum(one.finger == other.finger for one, other in fingered),
        met=len(fingered),
    )


def _cycle(reading: Reading, leg: LegReading, left: Sequence[Fraction]) -> tuple[Fraction, Fraction | None]:
    """Return the beats until both divisions begin anew at once, and the bars until they do so on a bar line again."""
    turns = (_turns(reading, leg, leg.divisions), _turns(reading, leg, left))
    here = [next(turn) for turn in turns]
    phase = reading.meter.phase(leg.start)
    cycle: Fraction | None = None
    for _ in range(_MOST_TURNS):
        if here[0] == here[1]:
            cycle = cycle or here[0] - leg.start
            if reading.meter.phase(here[0]) == phase:
                return cycle, reading.meter.bars_passed(here[0]) - reading.meter.bars_passed(leg.start)
            here = [next(turn) for turn in turns]
        else:
            behind = 0 if here[0] < here[1] else 1
            here[behind] = next(turns[behind])
    return cycle or leg.beats, None


def _turns(reading: Reading, leg: LegReading, divisions: Sequence[Fraction]) -> Iterator[Fraction]:
    """Yield where divisions begin anew after each turn, in beats; a rhythm of its own has the leg for its turn."""
    cursor = Cursor(reading.meter, reading.drill.swing)
    cursor.go_to(leg.start)
    numbers = slot_numbers(divisions)
    slots = sum(division.numerator for division in divisions)
    while True:
        if leg.rhythm and tuple(divisions) == leg.divisions:
            # What is typed has no turn but a beat.
            cursor.go_to(cursor.at + reading.meter.beat_at(cursor.at))
        else:
            for _ in range(slots):
                cursor.lay(leg.index, Slot(*next(numbers)))
        yield cursor.at


def _gaps(struck: Sequence[Event], end: Fraction, start: Fraction) -> Iterator[tuple[Fraction, tuple[str, str]]]:
    for before, after in pairwise(struck):
        yield after.onset - before.onset, (before.count, after.count)
    yield end - struck[-1].onset + struck[0].onset - start, (struck[-1].count, struck[0].count)


def _passes(row: Sequence[Event], up: int) -> Iterator[tuple[Fraction, int]]:
    """Yield (onset, number of the note from 1) where the thumb passes under, or a finger over it.

    Args:
        up: 1 for the right hand, whose fingers rise with the pitch; −1 for the left.
    """
    for number, (before, after) in enumerate(pairwise(row), start=2):
        if not (before.touch and after.touch and before.pitch and after.pitch):
            continue
        rises = (after.pitch.midi - before.pitch.midi) * up
        under = rises > 0 and after.touch.finger == 1 and before.touch.finger > 1
        over = rises < 0 and before.touch.finger == 1 and after.touch.finger > 1
        if under or over:
            yield after.onset, number
