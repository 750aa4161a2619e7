"""A reading in whole ticks: what sounds and what is silent, bar by bar, as it is written and not as it swings."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate, pairwise
from math import lcm

from ripresa.core.exact import Fraction
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Bar

_SILENT = {"rest", "air"}
#: What a quarter can be halved into at least: values inside tuplets are cut out of it.
_HALVINGS = 256


@dataclass(frozen=True)
class TickBar:
    """A bar in ticks.

    Args:
        number: From 1. start, end: Ticks from the start of the drill.
        beats: Where each beat begins, and where the last one ends.
        groups: Where each group of beats that are felt together begins; where the bar begins alone if none are.
    """

    number: int
    bar: Bar
    start: int
    end: int
    beats: tuple[int, ...]
    groups: tuple[int, ...]

    @property
    def is_additive(self) -> bool:
        """Whether its meter is written as a sum, ``2+2+3``."""
        return bool(self.bar.groups) or len(set(self.bar.beats)) > 1

    def beat_of(self, tick: int) -> tuple[int, int]:
        """Return where the beat at a tick begins and ends."""
        for begin, end in pairwise(self.beats):
            if tick < end:
                return begin, end
        return self.beats[-2], self.beats[-1]


@dataclass(slots=True)
class Span:
    """A sound or a silence; inside one bar once it is cut.

    Args:
        start, end: Ticks. event: What sounds; None in silence.
        number: Of the event, in ``reading.every``.
        begins: Whether it is struck at its start. goes_on: Whether it sounds on after its end.
    """

    start: int
    end: int
    event: Event | None
    number: int
    begins: bool = True
    goes_on: bool = False


#: Where a division has its slots: ticks of its first, and of its end.
Cell = tuple[int, int]


@dataclass(frozen=True)
class Ticks:
    """The time of a reading in whole ticks."""

    reading: Reading

    @cached_property
    def quarter(self) -> int:
        """Ticks of a quarter: as few as hold every place exactly."""
        places = {event.onset.denominator for event in self.reading.every}
        if self.reading.drill.swing.ratio != 1:
            places |= {self._written(event).denominator for event in self.reading.every}
        places |= {event.span.denominator for event in self.reading.every}
        places |= {onset.denominator for onset in self.reading.second} | {self.reading.beats.denominator}
        places |= {beat.denominator for bar in self._distinct_bars for beat in bar.beats}
        return lcm(*places, _HALVINGS) * self._whole.denominator

    @property
    def _whole(self) -> Fraction:
        return self.reading.meter.counted * 4

    @property
    def _distinct_bars(self) -> set[Bar]:
        return {self.reading.meter.bar(number) for number in range(1, self.reading.bar_count + 1)}

    def at(self, beats: Fraction) -> int:
        """Return a position in beats of the bpm as ticks."""
        # Whole by the choice of the quarter; fractions that are made anew for each place would cost most of the time.
        return beats.numerator * self._beat // beats.denominator

    @cached_property
    def _beat(self) -> int:
        return int(self._whole * self.quarter)

    @cached_property
    def bars(self) -> tuple[TickBar, ...]:
        """The bars, in order."""
        found, start = [], 0
        for number in range(1, self.reading.bar_count + 1):
            bar = self.reading.meter.bar(number)
            beats = tuple(accumulate((self.at(beat) for beat in bar.beats), initial=start))
            groups = tuple(beats[place] for place in accumulate(bar.groups[:-1], initial=0))
            found.append(TickBar(number, bar, start, beats[-1], beats, groups))
            start = beats[-1]
        return tuple(found)

    def row(self, events: Sequence[Event], first: int) -> tuple[list[Span], list[Cell]]:
        """Return what a row plays, held parts added, and the cells of its divisions.

        Args:
            first: Number of its first event in ``reading.every``.
        """
        spans: list[Span] = []
        cells: list[Cell] = []
        # Both hands in one line: the cells of one cut those of the other.
        mixed = events[0].layer == "both"
        leg, end_of_cell = -1, 0
        for number, event in enumerate(events, start=first):
            start = self.written_at(event)
            if not mixed and event.slot == 0 and (start >= end_of_cell or event.leg != leg):
                if cells and start < end_of_cell:
                    cells[-1] = cells[-1][0], start
                end_of_cell = start + self.at(event.span)
                cells.append((start, end_of_cell))
            last = spans[-1] if spans else None
            if last is not None:
                last.end = start
            if last is None or event.kind == "note":
                begins = True
            elif last.event is None:
                begins = event.leg != leg
            else:
                begins = event.kind in _SILENT
            if begins:
                spans.append(Span(start, start, event if event.kind == "note" else None, number))
            leg = event.leg
        spans[-1].end = self.bars[-1].end
        return spans, cells

    def strokes(self, onsets: Iterable[Fraction]) -> list[Span]:
        """Return the strokes of a second layer, each as long as its beat lets it, with the silence between them."""
        starts = [self.at(onset) for onset in onsets]
        ends = sorted({*(beat for bar in self.bars for beat in bar.beats), *starts})
        following = dict(pairwise(ends))
        found: list[Span] = []
        at = 0
        for start in starts:
            if start > at:
                found.append(Span(at, start, None, -1))
            at = following[start]
            found.append(Span(start, at, self.reading.events[0], -1))
        if at < self.bars[-1].end:
            found.append(Span(at, self.bars[-1].end, None, -1))
        return found

    def written_at(self, event: Event) -> int:
        """Return where an event is written, in ticks."""
        return self.at(event.onset if self.reading.drill.swing.ratio == 1 else self._written(event))

    def _written(self, event: Event) -> Fraction:
        """Return where an event is written, in beats: swing is taken out."""
        _, _, inside = self.reading.meter.place(event.onset)
        length = self.reading.meter.beat_at(event.onset)
        return event.onset - inside + length * self.reading.drill.swing.written(event.division, inside / length)


def by_bar(bars: Sequence[TickBar], spans: Sequence[Span]) -> Iterator[tuple[TickBar, list[Span]]]:
    """Yield each bar with the spans inside it; what goes over a bar line is cut there."""
    place = 0
    for bar in bars:
        inside: list[Span] = []
        while place < len(spans) and spans[place].start < bar.end:
            span = spans[place]
            ends_here = span.end <= bar.end
            if ends_here and span.start >= bar.start:
                inside.append(span)
            else:
                start = max(span.start, bar.start)
                sounds = span.event is not None
                begins = span.begins and span.start >= bar.start
                goes_on = sounds and not ends_here
                inside.append(Span(start, min(span.end, bar.end), span.event, span.number, begins, goes_on))
            if not ends_here:
                break
            place += 1
        yield bar, inside
