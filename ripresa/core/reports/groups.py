"""Displacement: groups that cross the beat, where they start and when they come home.

All of it is read off the notes of the leg as it would go on, so that it holds where divisions mix, beats are
unequal or some slots are silent. For even beats and n notes on s a beat it comes to lcm(n, s) notes to the beat.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import chain, groupby, tee

from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.material import Line
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event, LegReading, Place
from ripresa.core.reading import FARTHEST_HOME, Reading, rounds, unlike_legs
from ripresa.core.rhythm import Meter, count_word, slot_name

#: A group of 64 on an odd division hits 64 beats before the first again, which is shown too.
_MOST_BEATS_HIT = 65


@dataclass(frozen=True, slots=True)
class Start:
    """Where a group starts: beats from the start of the drill, bar and beat from 1, its count word and its name."""

    at: Fraction
    bar: int
    beat: int
    count: str
    name: str

    @property
    def short(self) -> str:
        """Bar left out: ``3&``, ``1``; what is no word of a count stands apart: ``1 4th``."""
        return f"{self.beat} {self.name.split()[0]}" if " " in self.name else f"{self.beat}{self.name}"


@dataclass(frozen=True, slots=True)
class Home:
    """What lies between the first group and one that is home: notes, beats of the meter, bars, groups."""

    notes: int
    beats: Fraction
    bars: Fraction
    groups: int


@dataclass(frozen=True, slots=True)
class Groups:
    """The groups of a leg.

    Args:
        size: Notes in a group.
        restart: Where they begin anew: never, or at each beat, bar, leg.
        starts: Where each group starts: up to the one that is home on a bar line, or all of the leg.
        beat_home, bar_home: When a group starts on a beat, on a bar line again; None where none ever does.
        beats_hit: Which note of its group each beat hits, from 1, until the first again.
        cut: Notes of each group in the first bar, where they begin anew on each bar or beat.
        end: Where what follows a line stands; None for what goes on and on.
    """

    leg: LegReading
    size: int
    restart: str
    starts: tuple[Start, ...]
    beat_home: Home | None
    bar_home: Home | None
    beats_hit: tuple[int, ...]
    cut: tuple[int, ...]
    end: Start | None

    @property
    def crosses_beat(self) -> bool:
        """Whether a group starts anywhere but on a beat."""
        return any(start.name for start in self.starts)

    @property
    def runs_on(self) -> bool:
        """Whether they leave the beat and do not begin anew: each stage has its own way home then."""
        return self.crosses_beat and not self.cut

    @property
    def reaches_home(self) -> bool:
        """Whether the leg lasts until a group is home on a bar line."""
        return self.bar_home is not None and self.bar_home.notes <= self.leg.notes


def groups(reading: Reading) -> tuple[Groups, ...]:
    """Return the groups of each leg whose groups lie in another way; nothing without groups."""
    accents = reading.drill.accents
    if not isinstance(accents, EveryNth):
        return ()
    entered = _entered(reading)
    # A leg can begin inside a group of the leg before, and a longer one lists more starts.
    legs = unlike_legs(reading, lambda leg: (entered.get(leg.index), leg.pass_beats))
    return tuple(_groups(reading, leg, accents) for leg in legs)


def start_of(event: Event | Place, meter: Meter) -> Start:
    """Return where an event or a place stands; a slot that falls on a beat is that beat, whatever its number."""
    if not meter.to_beat(event.onset):
        return Start(event.onset, event.bar, event.beat, str(event.beat), "")
    word = count_word(event.division, event.beat, event.slot, event.span)
    return Start(event.onset, event.bar, event.beat, word, slot_name(event.division, event.slot, event.span))


def end_of(leg: LegReading, meter: Meter) -> Start:
    """Return where what follows the pass of a leg stands."""
    at, division, slot = leg.end
    bar, beat, _ = meter.place(leg.start + at)
    # A slot of 3:2 is counted over its two beats, a slot of 4 over the beat it is in, however long that is.
    span = meter.beats_of(bar)[beat - 1] if division.denominator == 1 else Fraction(division.denominator)
    return Start(leg.start + at, bar, beat, count_word(division, beat, slot, span), slot_name(division, slot, span))


def _entered(reading: Reading) -> dict[int, int]:
    """Return which note of its group begins each leg."""
    found: dict[int, int] = {}
    for event in reading.events:
        if event.in_group is not None:
            found.setdefault(event.leg, event.in_group)
    return found


def _groups(reading: Reading, leg: LegReading, accents: EveryNth) -> Groups:
    is_line = isinstance(reading.drill.material, Line)
    ends = leg.start + (leg.pass_beats if is_line else leg.beats)
    starts: list[Start] = []
    beat_home = bar_home = None
    hit: list[int] = []
    before = 0
    for notes, (place, number) in enumerate(_numbered(reading, leg, accents)):
        if number == 1:
            start = start_of(place, reading.meter)
            if starts and not (beat_home and bar_home):
                home = _home(starts[0], start, notes - before, len(starts), reading.meter)
                on_beat = not start.name
                beat_home = beat_home or (home if on_beat else None)
                bar_home = bar_home or (home if on_beat and start.beat == 1 else None)
            if not starts:
                before = notes
            starts.append(start)
        if (
            not reading.meter.to_beat(place.onset)
            and len(hit) < _MOST_BEATS_HIT
            and not (len(hit) > 1 and hit[-1] == 1)  # The first note again: from here it repeats.
        ):
            hit.append(number)
        if bar_home and place.onset >= ends:
            break
    listed = [start for start in starts if start.at < ends] if is_line or not bar_home else starts[: bar_home.groups]
    return Groups(
        leg=leg,
        size=accents.size,
        restart=accents.restart,
        starts=tuple(listed),
        beat_home=beat_home,
        bar_home=bar_home,
        beats_hit=tuple(hit),
        cut=_cut(reading, leg) if accents.restart in {"bar", "beat"} else (),
        end=end_of(leg, reading.meter) if is_line else None,
    )


def _home(first: Start, start: Start, notes: int, groups: int, meter: Meter) -> Home:
    beats = meter.beats_passed(start.at) - meter.beats_passed(first.at)
    return Home(notes, beats, meter.bars_passed(start.at) - meter.bars_passed(first.at), groups)


def _numbered(reading: Reading, leg: LegReading, accents: EveryNth) -> Iterator[tuple[Place, int]]:
    """Yield each note of a leg as it would go on with its number in its group, from 1, until all has been seen once."""
    # Groups that never begin anew are counted from the first note of the drill, whatever leg is asked for.
    earlier = [event for event in reading.events if event.leg < leg.index] if accents.restart == "never" else []
    begins: set[int] = set()
    laid = 0

    def places() -> Iterator[Place]:
        nonlocal laid
        for one in rounds(reading, leg):
            begins.add(laid)
            laid += len(one)
            yield from one

    # The accents walk the places on their own; a copy keeps each place beside its mark without laying it twice.
    wanted, marked = tee(places())
    spots: Iterator[Event | Place] = chain(earlier, marked)
    marks = accents.marks(spots)
    number = 0
    for event, mark in zip(earlier, marks, strict=False):
        if event.kind == "note":
            number = 1 if mark.level == "accent" else number + 1
    seen: set[int] = set()
    has_begun = is_last = False
    for index, (place, mark) in enumerate(zip(wanted, marks, strict=False)):
        if index in begins:
            if is_last:
                return
            # It begins as a round before it did: this one more, in which what is home may start, and nothing new comes.
            is_last = number % accents.size in seen or index > FARTHEST_HOME
            # Home is where a group starts: what goes by before the first one starts is none of it.
            if has_begun or not number % accents.size:
                seen.add(number % accents.size)
        if place.kind == "note":
            number = 1 if mark.level == "accent" else number + 1
            has_begun = has_begun or number == 1
            yield place, number


def _cut(reading: Reading, leg: LegReading) -> tuple[int, ...]:
    """Return the notes of each group in the first bar of a leg."""
    inside: Sequence[Event] = [event for event in reading.events if event.leg == leg.index and event.group is not None]
    first = [event.group for event in inside if event.bar == inside[0].bar]
    return tuple(len(list(notes)) for _, notes in groupby(first))
