"""How fast a drill is: from the gaps between its notes as it goes round, the one across the repeat among them."""

from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import groupby, pairwise

from ripresa.core.drill import Drill, Reduce
from ripresa.core.drill.material import own_rhythm
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event, LegReading
from ripresa.core.reading import Reading, gaps_around, read
from ripresa.core.rhythm import Swing, span_seconds


@dataclass(frozen=True, slots=True)
class Speeds:
    """Peak (shortest gap of the loop) and average speed, in notes a second."""

    peak_nps: Fraction
    average_nps: Fraction


@dataclass(frozen=True, slots=True)
class LegSpeed:
    """The speed of a leg, in beats of the bpm.

    Args:
        gap: The shortest distance between its notes as they are written, straight: what its notes a second come from.
        gaps: The shortest distances as they are played, the longest first: two where a pair swings, and those of each
            length of beat where the beats of a bar are of more than one.
    """

    gap: Fraction
    gaps: tuple[Fraction, ...]


@dataclass(frozen=True, slots=True)
class PaceChange:
    """Where a rhythm of its own goes over from some notes of one pace to some of another.

    Args:
        note: The first note of the new pace.
        before, after: Beats from note to note, straight.
        at_once: Whether nothing stands between the two: no longer note, and no rest.
    """

    note: Event
    before: Fraction
    after: Fraction
    at_once: bool


def pace_changes(reading: Reading) -> tuple[PaceChange, ...]:
    """Return where a row of at least two equal gaps between notes gives way to another, round to the first one.

    >>> from ripresa.core.drill import Drill
    >>> from ripresa.core.drill.material import Count
    >>> found = pace_changes(read(Drill(material=Count("1 & 2 & 3 e & a 4"))))
    >>> [(str(one.before), str(one.after), one.at_once) for one in found][:2]
    [('1/2', '1/4', True), ('1/4', '1/2', False)]
    """
    straight = _straight_onsets(reading)
    notes = [(event, at) for event, at in zip(reading.events, straight, strict=True) if event.kind == "note"]
    gaps = gaps_around([at for _, at in notes], reading.beats)
    rows, start = [], 0
    for gap, same in groupby(gaps * 2):
        count = len(list(same))
        if count > 1:
            rows.append((start, count, gap))
        start += count
    found: dict[int, PaceChange] = {}
    for (first, count, before), (start, _, after) in pairwise(rows):
        if before != after:
            change = PaceChange(notes[start % len(notes)][0], before, after, first + count == start)
            found.setdefault(start % len(notes), change)
    return tuple(found.values())


def peak_per_beat(reading: Reading) -> Fraction:
    """Return notes per beat where the notes of a drill are closest, as it goes round; a lone note has the whole turn.

    >>> from ripresa.core.drill import Drill
    >>> from ripresa.core.drill.material import Count
    >>> str(peak_per_beat(read(Drill(material=Count("1 (&) (2) (3) & (4)")))))
    '2/3'
    """
    return 1 / (reading.closest or reading.beats)


def peak_of(reading: Reading) -> Fraction:
    """Return notes per beat at the peak, 0 for a drill without notes."""
    return peak_per_beat(reading) if reading.notes else Fraction(0)


@lru_cache(maxsize=1024)
def peak_of_drill(drill: Drill) -> Fraction:
    """Return notes per beat at the peak of a drill; remembered, because climbs and logs ask for the same few."""
    return peak_of(read(drill))


def speeds(reading: Reading, bpm: Fraction) -> Speeds:
    """Return peak and average speed of a drill at a tempo; average is notes / seconds of a turn."""
    return Speeds(peak_of(reading) * bpm / 60, len(reading.notes) / span_seconds(reading.beats, bpm))


def leg_speeds(reading: Reading) -> tuple[LegSpeed, ...]:
    """Return the speed of each leg: of the notes that follow each other inside it, gone round by itself."""
    straight = _straight_onsets(reading)
    of_leg: dict[int, list[int]] = {}
    for index, event in enumerate(reading.events):
        if event.kind == "note":
            of_leg.setdefault(event.leg, []).append(index)
    lengths = {beat for bar in reading.meter.bars for beat in bar.beats}
    uneven = len(lengths) > 1 and not own_rhythm(reading.drill.material)
    found = []
    for leg in reading.legs:
        inside = of_leg.get(leg.index)
        if not inside:
            found.append(LegSpeed(leg.beats, (leg.beats,)))
            continue
        even = gaps_around([straight[index] for index in inside], leg.beats)
        shortest = min(even)
        played = gaps_around([reading.events[index].onset for index in inside], leg.beats)
        events = [reading.events[index] for index in inside]
        close = {
            gap
            for event, gap, one in zip(events, played, even, strict=True)
            if one == shortest or (uneven and one == _slot(reading, leg, event))
        }
        found.append(LegSpeed(shortest, tuple(sorted(close, reverse=True))))
    return tuple(found)


def _slot(reading: Reading, leg: LegReading, event: Event) -> Fraction | None:
    """Return how long a slot lasts in the beat of an event; None where its leg has more than one division."""
    if len(leg.divisions) > 1 or leg.divisions[0].denominator > 1:
        return None
    return reading.meter.beats_of(event.bar)[event.beat - 1] / leg.divisions[0]


def _straight_onsets(reading: Reading) -> list[Fraction]:
    """Return where each event would begin without swing, which moves events and makes none."""
    drill, played = reading.drill, [event.onset for event in reading.events]
    if drill.swing.ratio == 1:
        return played
    straight = replace(drill, swing=Swing())
    if drill.reduce.part != "composite":
        written = read(replace(straight, reduce=Reduce()))
        return [event.onset for event in written.of_hand(reading.events[0].hand or "").events]
    # Two strokes of the hands may be one only where they swing.
    onsets = [event.onset for event in read(straight).events]
    return onsets if len(onsets) == len(played) else played
