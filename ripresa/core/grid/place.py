"""Places: where in time something stands, before hands and accents are given to it."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import accumulate, cycle
from typing import Literal, Protocol, TypeVar

from ripresa.core.exact import Fraction
from ripresa.core.grid.how import AS_WRITTEN, How
from ripresa.core.grid.record import Record, altered
from ripresa.core.grid.touch import Touch
from ripresa.core.pitch import ChordSound, Pitch
from ripresa.core.rhythm import Level, Meter, SlotKind, Swing

T = TypeVar("T")
#: Where a cycle of hands or accents begins again.
Restart = Literal["never", "beat", "bar", "leg"]


class Place(Record, frozen=True):
    """One stretch of time inside a bar, with what fills it.

    Args:
        onset, length: In beats of the bpm, from the drill's start.
        leg: Index of the leg, from 0.
        bar, beat: From 1.
        slot: From 0, in the span of the division.
        division: Notes per beat here; n/m is n notes in the time of m beats.
        kind: A note, a rest, an air stroke, or the held part of an earlier note.
        pitch: Written pitch of a note, if it has one.
        accent: A level that the material itself asks for.
        chord: The chord that sounds, for what is strummed.
        word: What is said there, if it is not the count.
        touch: How it is fingered, if that is worked out.
        statement: The statement of a line that it belongs to, from 0.
        span: Beats of the bpm that the slots of its division share: its beat, or the m beats of n:m.
        on_grid: Whether a slot of the division begins here; what a seam adds, or a bar line cuts off, does not.
        how: How the material has it played.
    """

    onset: Fraction
    length: Fraction
    leg: int
    bar: int
    beat: int
    slot: int
    division: Fraction
    kind: SlotKind
    pitch: Pitch | None = None
    accent: Level | None = None
    chord: ChordSound | None = None
    statement: int | None = None
    touch: Touch | None = None
    word: str | None = None
    span: Fraction = Fraction(1)
    on_grid: bool = True
    how: How = AS_WRITTEN

    @property
    def kind_that_goes_on(self) -> SlotKind:
        """What fills the time after it: a note is held, a silence goes on."""
        return "hold" if self.kind in {"note", "hold"} else "rest"


class Spot(Protocol):
    """What a cycle has to know of a place or of an event: where it stands, and whether a note is played there."""

    @property
    def leg(self) -> int: ...  # noqa: D102
    @property
    def bar(self) -> int: ...  # noqa: D102
    @property
    def beat(self) -> int: ...  # noqa: D102
    @property
    def kind(self) -> SlotKind: ...  # noqa: D102


def stretch_of(place: Spot, restart: Restart) -> object:
    """Return a mark that is the same for all places in which a cycle runs on."""
    match restart:
        case "never":
            return 0
        case "leg":
            return place.leg
        case "bar":
            return place.leg, place.bar
        case "beat":
            return place.leg, place.bar, place.beat


def in_turn(places: Iterable[Spot], symbols: Sequence[T], restart: Restart) -> Iterator[T | None]:
    """Yield the symbol of a cycle for each place that is a note; None for the others, which use none up."""
    stretch: object = None
    at = 0
    for place in places:
        if place.kind != "note":
            yield None
            continue
        now = stretch_of(place, restart)
        if now != stretch:
            stretch, at = now, 0
        yield symbols[at % len(symbols)]
        at += 1


class Slot(Record, frozen=True):
    """A slot to be laid out: number ``number`` of its division, and what fills it."""

    division: Fraction
    number: int
    kind: SlotKind = "note"
    pitch: Pitch | None = None
    accent: Level | None = None
    chord: ChordSound | None = None
    statement: int | None = None
    touch: Touch | None = None
    word: str | None = None
    how: How = AS_WRITTEN


def slot_numbers(divisions: Sequence[Fraction]) -> Iterator[tuple[Fraction, int]]:
    """Yield (division, number of the slot) without end, one division after the other.

    >>> from itertools import islice
    >>> [number for _, number in islice(slot_numbers([Fraction(3), Fraction(2)]), 6)]
    [0, 1, 2, 0, 1, 0]
    """
    for division in cycle(divisions):
        for number in range(division.numerator):
            yield division, number


@dataclass(slots=True)
class Cursor:
    """Walks a meter beat by beat and cuts it into slots; the one place where positions are added up.

    Nothing it hands out crosses a bar line: what would, is cut there and goes
    on as a hold.
    """

    meter: Meter
    swing: Swing = Swing()
    at: Fraction = Fraction(0)
    bar: int = 1
    beat: int = 1
    span: Fraction = Fraction(0)
    #: What was laid last: its division, and the number of its slot.
    laid: tuple[Fraction, int] = (Fraction(1), 0)
    #: Where the bar begins, its beats, and where each of them ends.
    _start: Fraction = Fraction(0)
    _beats: tuple[Fraction, ...] = ()
    _ends: tuple[Fraction, ...] = ()

    _is_straight: bool = True

    def __post_init__(self) -> None:
        self._is_straight = self.swing.ratio == 1
        self._open_bar(self.at)

    @property
    def inside(self) -> Fraction:
        """How far into its beat it stands; 0 on a beat."""
        return self.at - (self._ends[self.beat - 2] if self.beat > 1 else self._start)

    def go_to(self, position: Fraction) -> None:
        """Stand at a position in beats."""
        self.at = position
        self.bar, beat, _ = self.meter.place(position)
        self._open_bar(self.meter.bar_start(self.bar))
        self.beat = beat

    def change(self, meter: Meter) -> None:
        """Go on in another meter, from a bar line on."""
        self.meter = meter
        self._open_bar(self.at)

    def lay(self, leg: int, slot: Slot) -> Sequence[Place]:
        """Lay a slot, starting here, and return it, in two or more where it crosses bar lines.

        Slot 0 of a division starts on a beat.
        """
        division, number = slot.division, slot.number
        if number == 0:
            self.span = self._next_beats(division.denominator)
        self.laid = division, number
        at, span = self.at, self.span
        length = span / division.numerator if self._is_straight else span * self.swing.share(division, number)
        found = Place(
            at,
            length,
            leg,
            self.bar,
            self.beat,
            number,
            division,
            slot.kind,
            slot.pitch,
            slot.accent,
            slot.chord,
            slot.statement,
            slot.touch,
            slot.word,
            span,
            True,
            slot.how,
        )
        if at + length > self._ends[-1]:
            return list(self._over_lines(found))
        self._advance(at + length)
        return (found,)

    def _over_lines(self, place: Place) -> Iterator[Place]:
        """Yield a place cut at each bar line: a note is struck once and held from there on, a silence goes on."""
        end = place.onset + place.length
        while self.at < end:
            until = min(end, self._ends[-1])
            yield altered(place, onset=self.at, length=until - self.at, bar=self.bar, beat=self.beat)
            self._advance(until)
            if place.kind == "note":
                place = altered(place, kind="hold", pitch=None, accent=None, chord=None, touch=None, how=AS_WRITTEN)
            place = altered(place, word=None, on_grid=False)

    def fill(self, leg: int, division: Fraction, length: Fraction, kind: SlotKind) -> Iterator[Place]:
        """Yield a silence or a hold for so many beats from here, cut at beats; inside a beat its own slots go on."""
        end = self.at + length
        while self.at < end:
            until = min(end, self._ends[self.beat - 1])
            inside = self.inside
            here, slot = (self.laid[0], self.laid[1] + 1) if inside else (division, 0)
            span = self.span if inside else self._beats[self.beat - 1]
            length = until - self.at
            yield Place(self.at, length, leg, self.bar, self.beat, slot, here, kind, span=span, on_grid=False)
            self._advance(until)

    def _open_bar(self, start: Fraction) -> None:
        self._start, self.beat = start, 1
        self._beats = self.meter.beats_of(self.bar)
        self._ends = tuple(accumulate(self._beats, initial=start))[1:]

    def _next_beats(self, count: int) -> Fraction:
        """Return how long the next beats are together, over the bar line where they go over it."""
        if count == 1:
            return self._beats[self.beat - 1]
        bar, left = self.bar, list(self._beats[self.beat - 1 :])
        while len(left) < count:
            bar += 1
            left += self.meter.beats_of(bar)
        return sum(left[:count], Fraction(0))

    def _advance(self, position: Fraction) -> None:
        self.at = position
        while position >= self._ends[self.beat - 1]:
            if self.beat == len(self._ends):
                self.bar += 1
                self._open_bar(self._ends[-1])
            else:
                self.beat += 1
