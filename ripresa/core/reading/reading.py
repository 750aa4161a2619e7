"""The reading: a drill worked out into events with exact places, once, for everyone who needs them.

Rail, sums, sound, MIDI, hand-out and matching all consume this; none of them
works it out again. A reading has no tempo: its positions are beats.
"""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import chain
from math import ceil
from operator import sub
from typing import Any

from ripresa.core.drill import REDUCTIONS, Drill, Reduce
from ripresa.core.drill.click import Click, ClickCycle, ClickSlot
from ripresa.core.drill.second import BALANCES
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event, LegReading
from ripresa.core.pitch import Instrument, Shape
from ripresa.core.reading.layout import lay
from ripresa.core.reading.rows import beside_of, played_rows, rows_of
from ripresa.core.reading.second_hand import Laid, second_leg
from ripresa.core.rhythm import Meter, Swing


@dataclass(frozen=True)
class Reading:
    """A drill worked out.

    Args:
        drill: What was read.
        events: Every slot in order; they tile the time from 0 to ``beats`` without gap or overlap.
        legs: One for each leg of the drill, in order.
        click_cycle: The click over the whole drill.
        second: Onsets of a second layer that is counted under the first, in beats.
        body, foot: (onset in beats, word) of each movement of the body, and of each tap of the foot.
        hits: (onset in beats, whether it is light) of each hit of the layer, played or not.
        beats: Length of the drill.
        other: Every slot of the left hand under them, where two play; they tile the same time.
        beside: Onsets of the hand that is left out, or of the left one where both play.
    """

    drill: Drill
    meter: Meter
    instrument: Instrument
    events: tuple[Event, ...]
    legs: tuple[LegReading, ...]
    click_cycle: ClickCycle
    second: tuple[Fraction, ...]
    body: tuple[tuple[Fraction, str], ...]
    foot: tuple[tuple[Fraction, str], ...]
    hits: tuple[tuple[Fraction, bool], ...]
    beats: Fraction
    other: tuple[Event, ...] = ()
    beside: tuple[Fraction, ...] = ()

    @property
    def swing(self) -> Swing:
        """How pairs are moved."""
        return self.drill.swing

    @property
    def hands(self) -> tuple[tuple[Event, ...], ...]:
        """The rows that are played: one, or the right hand and the left."""
        return (self.events, self.other) if self.other else (self.events,)

    @cached_property
    def every(self) -> tuple[Event, ...]:
        """The events of all rows; whoever names one by its number counts in these."""
        return self.events + self.other

    @cached_property
    def notes(self) -> tuple[Event, ...]:
        """The events that are notes."""
        return tuple(event for event in self.events if event.kind == "note")

    @cached_property
    def closest(self) -> Fraction | None:
        """The shortest gap from note to note as it goes round, in beats; None without notes."""
        return min(self.gaps(), default=None)

    def gaps(self) -> list[Fraction]:
        """Return the beats from each note to the next, from the last to the first of the next turn too."""
        return gaps_around([event.onset for event in self.notes], self.beats)

    @property
    def bars(self) -> Fraction:
        """Length in bars."""
        return self.meter.bars_passed(self.beats)

    @property
    def bar_count(self) -> int:
        """How many bars it has, begun ones too."""
        return ceil(self.bars)

    @property
    def loop_beats(self) -> Fraction:
        """Length of one turn of the loop: the whole drill, which ends on a bar line so that each turn starts on 1."""
        return self.beats

    @property
    def shapes(self) -> tuple[Shape, ...]:
        """The grips of its chords, each once, in order; none away from strings."""
        shapes = (event.chord.shape for event in self.events if event.chord and event.chord.shape)
        return tuple(dict.fromkeys(shapes))

    @property
    def is_left(self) -> bool:
        """Whether the left of two hands plays alone: the material, its strokes and accents are then the other one's."""
        return self.events[0].hand == "L"

    def of_hand(self, symbol: str) -> "Reading":
        """Return the reading of one of two hands, R or L, by itself; the same where one plays."""
        if not self.other:
            return self
        if symbol == self.events[0].hand:
            return replace(self, other=())
        legs = tuple(second_leg(self.drill, leg, self.other) for leg in self.legs)
        return replace(self, events=self.other, other=(), legs=legs)

    def lasts(self, event: Event, length: Fraction) -> Fraction:
        """Return how much of a note's length sounds, in beats: its share by the articulation of its hand."""
        second = event.hand == "L"
        return length * (self.drill.second.articulation if second else self.drill.articulation)

    def loudness(self, event: Event) -> Fraction:
        """Return the share of its loudness that a note has beside the other hand; 1 where one plays alone."""
        if not self.other:
            return Fraction(1)
        right, left, _, _ = BALANCES[self.drill.second.balance]
        return left if event.hand == "L" else right

    def heard(self, event: Event) -> tuple[int, ...]:
        """Return the MIDI notes that are heard when an event is played, from the lowest; none without pitch."""
        return tuple(pitch.midi + self.instrument.sounds for pitch in event.tones)

    def sounding(self) -> Iterator[tuple[Event, Fraction]]:
        """Yield each note with its length in beats, the held parts added; row by row."""
        for events in self.hands:
            yield from sounding_of(events)


def gaps_around(onsets: Sequence[Fraction], beats: Fraction) -> list[Fraction]:
    """Return the gaps between onsets, and from the last to the first where so many beats go round; none of none."""
    return [*map(sub, onsets[1:], onsets), beats - onsets[-1] + onsets[0]] if onsets else []


def sounding_of(events: Sequence[Event]) -> Iterator[tuple[Event, Fraction]]:
    """Yield each note of a row with its length in beats, the held parts added."""
    current: Event | None = None
    length = Fraction(0)
    for event in events:
        if event.kind == "hold":
            length += event.length
            continue
        if current is not None:
            yield current, length
        current, length = (event, event.length) if event.kind == "note" else (None, Fraction(0))
    if current is not None:
        yield current, length


def read(drill: Drill) -> Reading:
    """Return the reading of a drill; the last few are remembered, whatever they are called and how fast they go.

    Raises:
        OutOfRange: It would have more than 20,000 notes.
    """
    drill = drill.as_played
    found = _remembered(replace(drill, **_NOT_READ))
    return replace(found, drill=drill)


@lru_cache(maxsize=8)
def _remembered(drill: Drill) -> Reading:
    return worked_out(drill)


#: What a drill says that changes nothing of how it is read.
_NOT_READ: dict[str, Any] = {"title": "any", "purpose": "", "tags": (), "bpm": Fraction(60)}


def worked_out(drill: Drill) -> Reading:
    """Return the reading of a drill, worked out anew.

    Raises:
        OutOfRange: It would have more than 20,000 notes.

    >>> from ripresa.core.drill import Leg
    >>> from ripresa.core.drill.material import OneNote
    >>> reading = worked_out(Drill(material=OneNote(beats=4), legs=(Leg(Fraction(3)),)))
    >>> [str(event.onset) for event in reading.events][:4]
    ['0', '1/3', '2/3', '1']
    """
    made = lay(drill)
    instrument, meter, beats = made.instrument, made.meter, made.beats
    legs = list(made.legs)
    hands = rows_of(drill, instrument, meter, made.laid, made.places)
    beside = beside_of(hands, drill)
    events, *others = played_rows(hands, drill, legs, meter)
    if drill.reduce.part != "everything" or drill.hits.fills or drill.enters.hands > 1:
        if drill.enters.hands > 1 and not any(event.bar >= drill.enters.hands for event in events):
            raise OutOfRange(
                f"The hands enter in bar {drill.enters.hands}, and the drill ends with bar {events[-1].bar}. Let them "
                "enter sooner, or make it longer.",
                field="enters.hands",
            )
        if not any(event.kind == "note" for event in chain(events, *others)):
            if drill.reduce.part == "everything":
                raise OutOfRange(
                    "Nothing is left to play: no note is a hit, and the fills leave out all the others. Fill more.",
                    field="hits.fills",
                )
            raise OutOfRange(
                f"Nothing is left to play of {REDUCTIONS[drill.reduce.part][0]}"
                + (f", “{drill.reduce.hand}”" if drill.reduce.part == "hand" else "")
                + ". Accent some notes, name a hand that plays, or play everything.",
                field="reduce",
            )
        played = Counter(event.leg for event in events if event.kind == "note")
        legs = [replace(leg, notes=played[leg.index]) for leg in legs]
    if events[0].hand == "L":
        legs = [second_leg(drill, leg, events) for leg in legs]
    return Reading(
        drill=drill,
        meter=meter,
        instrument=instrument,
        events=events,
        legs=tuple(legs),
        click_cycle=_click(drill.click, meter, events, beside, beats),
        second=tuple(_second(legs, made.laid)),
        body=_entering(drill.body.marks(beats, meter), meter, drill.enters.movement),
        foot=_entering(drill.foot.marks(beats, meter), meter, drill.enters.foot),
        hits=_hits(drill, meter, beats),
        beats=beats,
        other=others[0] if others else (),
        beside=beside,
    )


def unreduced(reading: Reading) -> Reading:
    """Return a reading with all of its notes: what is left out now is counted all the same."""
    drill = reading.drill
    whole = replace(drill, reduce=Reduce(), hits=replace(drill.hits, fills=()), enters=replace(drill.enters, hands=1))
    return reading if drill == whole else read(whole)


def _entering(marks: Iterable[tuple[Fraction, str]], meter: Meter, bar: int) -> tuple[tuple[Fraction, str], ...]:
    """Return the marks of a layer from the bar in which it enters."""
    start = meter.bar_start(bar)
    return tuple(mark for mark in marks if mark[0] >= start)


def _hits(drill: Drill, meter: Meter, beats: Fraction) -> tuple[tuple[Fraction, bool], ...]:
    if not drill.hits.is_written:
        return ()
    return tuple((at, level == "ghost") for at, level in drill.hits.laid(meter, drill.swing).until(beats))


def with_click(reading: Reading, click: Click) -> Reading:
    """Return a reading under another click; all else stays.

    Raises:
        OutOfRange: A click that the drill cannot have.
    """
    cycle = _click(click, reading.meter, reading.events, reading.beside, reading.beats)
    return replace(reading, drill=replace(reading.drill, click=click), click_cycle=cycle)


def _click(
    click: Click, meter: Meter, events: Sequence[Event], beside: Sequence[Fraction], beats: Fraction
) -> ClickCycle:
    """Return the cycle of a click over some events, and the onsets of the hand beside them.

    Where bars take turns and a pass ends among them, the next one begins with the first bar again, and so does the
    click: else it would fall away from the bar lines.
    """
    slots = [ClickSlot(event.onset, event.kind == "note") for event in events]
    slots += [ClickSlot(onset, True, True) for onset in beside]
    found = click.cycle(meter, slots, beats)
    if beats and (meter.head or beats % meter.cycle_beats):
        return ClickCycle(beats, tuple(found.within(beats)))
    return found


def _second(legs: Sequence[LegReading], laid: Sequence[Laid]) -> Iterator[Fraction]:
    """Yield the onsets of the second layer, on and on through each leg."""
    for leg, one in zip(legs, laid, strict=True):
        start, notes = leg.start, one.notes
        while notes.second and start < leg.start + leg.beats:
            yield from (start + at for at in notes.second if start + at < leg.start + leg.beats)
            start += notes.second_beats
