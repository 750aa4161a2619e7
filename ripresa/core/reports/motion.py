"""What the hands do in a reading: how the load divides, which motion limits, where the pendulum is at odds."""

from dataclasses import dataclass
from itertools import islice, pairwise

from ripresa.core.drill.hands import ByPlace
from ripresa.core.drill.material import own_rhythm
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.reports.strings import fingers_of
from ripresa.core.rhythm import span_seconds

_MOST_BEATS = 8
#: The division in which & goes the other way than in eighths.
FINE = Fraction(4)


@dataclass(frozen=True, slots=True)
class Load:
    """What one symbol does.

    Args:
        symbol: Hand, pick direction, finger or syllable.
        strikes: Notes that it plays. motions: Strikes and air strokes.
        peak_nps: Motions a second at its shortest gap: half the speed under
            strict alternation, the full speed inside a double; 0 for a lone one.
    """

    symbol: str
    strikes: int
    motions: int
    peak_nps: Fraction


@dataclass(frozen=True, slots=True)
class Motions:
    """What one arm does that goes down and up: motions a second with its air strokes, and strikes a second.

    Both are averages over a turn; ``peak_nps`` is the fastest that it has to move, there and back.
    """

    motions_nps: Fraction
    strikes_nps: Fraction
    peak_nps: Fraction


#: The two ways of one arm: between two strokes of one way it goes the other.
_ARM = frozenset("DU")


def motions(reading: Reading, bpm: Fraction) -> Motions | None:
    """Return what the arm does that strikes down and up; None where nothing goes down or up."""
    moved = [event for event in reading.events if event.stroke in _ARM]
    if not moved:
        return None
    seconds = span_seconds(reading.beats, bpm)
    strikes = sum(event.kind == "note" for event in moved)
    # Two strokes one way take a way back between them.
    ways = sum(2 if before.stroke == after.stroke else 1 for before, after in _around(moved))
    gaps = (
        (_distance(before, after, reading) / (2 if before.stroke == after.stroke else 1))
        for before, after in _around(moved)
    )
    return Motions(ways / seconds, strikes / seconds, 1 / span_seconds(min(gaps), bpm))


def _around(events: list[Event]) -> list[tuple[Event, Event]]:
    """Return each event with the next, the last with the first of the next turn."""
    return list(zip(events, [*events[1:], events[0]], strict=True))


def _distance(before: Event, after: Event, reading: Reading) -> Fraction:
    """Return the beats from one event to the next, over the repeat where it lies before."""
    return (after.onset - before.onset) % reading.beats or reading.beats


def loads(reading: Reading, bpm: Fraction) -> tuple[Load, ...]:
    """Return the load of each symbol, the busiest motion first; empty where no hands are written."""
    found: dict[str, list[Event]] = {}
    for event in reading.events:
        for symbol in fingers_of(event.stroke) if event.stroke else ():
            found.setdefault(symbol, []).append(event)
    return tuple(
        sorted(
            (
                Load(
                    symbol,
                    sum(event.kind == "note" for event in events),
                    len(events),
                    _peak(reading, events, bpm),
                )
                for symbol, events in found.items()
            ),
            key=lambda load: -load.peak_nps,
        )
    )


def beat_starts(reading: Reading) -> tuple[str, ...]:
    """Return which symbol starts each of the first beats, up to 8; silent ones are left out."""
    starts = (event.stroke for event in reading.notes if event.stroke and not reading.meter.to_beat(event.onset))
    return tuple(islice(starts, _MOST_BEATS))


def same_way(reading: Reading) -> tuple[tuple[Event, Event], ...]:
    """Return neighbours by place that sound one way without an air stroke between; one for each pair of places."""
    if not isinstance(reading.drill.hands, ByPlace):
        return ()
    found: dict[tuple[str, str], tuple[Event, Event]] = {}
    for before, after in pairwise(reading.events):
        # Fingers that pick, and a thumb, have no way to come back.
        both = before.kind == after.kind == "note" and before.stroke == after.stroke and after.stroke in {"D", "U"}
        # With one note a beat or fewer the arm comes back between them, off the grid.
        if both and before.division.numerator > 1 and after.division.numerator > 1:
            found.setdefault((before.count, after.count), (before, after))
    return tuple(found.values())


def flips(reading: Reading) -> tuple[tuple[Fraction, Fraction], ...]:
    """Return (division, its double) where both occur by place: the & turns from up to down between them."""
    if not isinstance(reading.drill.hands, ByPlace):
        return ()
    divisions = {event.division for event in reading.notes}
    return tuple((one, 2 * one) for one in sorted(divisions) if one.numerator % 2 == 0 and 2 * one in divisions)


def finer_by(reading: Reading) -> Event | None:
    """Return the first stroke for whose sake a typed rhythm by place goes four to the beat: on e or on a.

    None where nothing turns round for it: no & is played in another beat.
    """
    if not isinstance(reading.drill.hands, ByPlace) or not own_rhythm(reading.drill.material):
        return None
    fine: dict[tuple[int, int], list[Event]] = {}
    for event in reading.notes:
        if event.division == FINE:
            fine.setdefault((event.bar, event.beat), []).append(event)
    between = [event for events in fine.values() for event in events if event.slot % 2]
    halves = any({event.slot for event in events} in ({2}, {0, 2}) for events in fine.values())
    return between[0] if between and halves else None


def positions(reading: Reading) -> tuple[tuple[Event, int], ...]:
    """Return (first note, fret of the first finger) of each hand position of the first leg, in order."""
    found: list[tuple[Event, int]] = []
    for event in reading.notes:
        position = event.touch.position if event.touch and event.leg == 0 else None
        if position is not None and (not found or found[-1][1] != position):
            found.append((event, position))
    return tuple(found)


def notes_a_string(reading: Reading) -> dict[int, int]:
    """Return how many different notes each string takes in a drill, by its number; empty where none are worked out."""
    found: dict[int, set[int]] = {}
    for event in reading.notes:
        if event.touch and event.touch.string is not None and event.touch.fret is not None:
            found.setdefault(event.touch.string, set()).add(event.touch.fret)
    return {string: len(frets) for string, frets in found.items()}


def on_numbers(reading: Reading) -> tuple[int, int]:
    """Return how many notes fall on a beat, and how many there are."""
    return sum(not reading.meter.to_beat(event.onset) for event in reading.notes), len(reading.notes)


def _peak(reading: Reading, events: list[Event], bpm: Fraction) -> Fraction:
    """Return motions a second at the shortest gap of the loop; 0 for a lone one."""
    if len(events) == 1:
        return Fraction(0)
    shortest = min(_distance(before, after, reading) for before, after in _around(events))
    return 1 / span_seconds(shortest, bpm)
