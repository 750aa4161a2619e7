"""Meters: bars as lists of beats, one after the other, and the note value that bpm counts."""

from bisect import bisect_right
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import accumulate
from math import floor

from ripresa.core.exact import Fraction

_NOTE_SIGNS = {
    # The sign of a half note is in few fonts; its name is in all of them.
    Fraction(1, 2): "half",
    Fraction(1, 4): "♩",
    Fraction(3, 8): "♩.",
    Fraction(1, 8): "♪",
    Fraction(3, 16): "♪.",
    Fraction(1, 16): "sixteenth",
}
_NOTE_NAMES = {
    Fraction(1, 2): "half note",
    Fraction(1, 4): "quarter",
    Fraction(3, 8): "dotted quarter",
    Fraction(1, 8): "eighth",
    Fraction(3, 16): "dotted eighth",
    Fraction(1, 16): "sixteenth",
}


@dataclass(frozen=True, slots=True)
class Bar:
    """A bar.

    Args:
        beats: Length of each beat, in units of the note that bpm counts; all 1 unless beats are unequal.
        signature: ``(7, 8)``. of: Which of the meters that alternate it belongs to, from 0.
        groups: Beats that are felt together, as many as each has; empty where each beat stands alone.
    """

    beats: tuple[Fraction, ...]
    signature: tuple[int, int]
    of: int = 0
    groups: tuple[int, ...] = ()

    @property
    def length(self) -> Fraction:
        """Its length in beats of the bpm."""
        return sum(self.beats, Fraction(0))

    def beat_starts(self) -> tuple[Fraction, ...]:
        """Return where each beat starts, in beats of the bpm, the first at 0."""
        return tuple(accumulate(self.beats[:-1], initial=Fraction(0)))

    def group_starts(self) -> tuple[Fraction, ...]:
        """Return where each group of beats starts; each beat where they stand alone."""
        starts = self.beat_starts()
        return tuple(starts[at] for at in accumulate(self.groups[:-1], initial=0)) if self.groups else starts


@dataclass(frozen=True)
class Meter:
    """Bars in turn, and what one beat of the bpm is.

    Args:
        name: As it is written, ``"6/8"``, ``"7/8 (2+2+3)"``, ``"3/4 | 13/16"``.
        bars: The bars that take turns; one alone in most meters.
        counted: The note that bpm counts, as a share of a whole note.
        head: Bars that come once, before the others begin to take turns.
    """

    name: str
    bars: tuple[Bar, ...]
    counted: Fraction
    head: tuple[Bar, ...] = ()

    @property
    def is_plain(self) -> bool:
        """Whether every bar is as the first."""
        return len(set(self.bars)) == 1 and set(self.head) <= set(self.bars)

    @property
    def sign(self) -> str:
        """The sign of the note that bpm counts: ``♩`` or ``♩.``."""
        return _NOTE_SIGNS[self.counted]

    @property
    def counted_name(self) -> str:
        """The name of the note that bpm counts, for people who listen to the screen."""
        return _NOTE_NAMES[self.counted]

    @property
    def signature(self) -> tuple[int, int]:
        """The time signature of the first bar: ``(7, 8)`` for ``7/8 (2+2+3)``."""
        return self.bar(1).signature

    @cached_property
    def cycle_beats(self) -> Fraction:
        """Beats of the bpm until the bars have all had their turn."""
        return sum((bar.length for bar in self.bars), Fraction(0))

    @cached_property
    def cycle_count(self) -> int:
        """Beats of the meter in that time, however long each is."""
        return sum(len(bar.beats) for bar in self.bars)

    @cached_property
    def _starts(self) -> tuple[Fraction, ...]:
        """Where each bar of the head begins, then each of the first turn, then the second turn."""
        lengths = [bar.length for bar in (*self.head, *self.bars)]
        return tuple(accumulate(lengths, initial=Fraction(0)))

    @cached_property
    def _counts(self) -> tuple[int, ...]:
        """Beats of the meter before each of these bars."""
        return tuple(accumulate((len(bar.beats) for bar in (*self.head, *self.bars)), initial=0))

    @cached_property
    def _even(self) -> int:
        """Beats of a bar where all bars are alike and each beat is one of the bpm; 0 elsewhere."""
        beats = self.bars[0].beats
        return len(beats) if len(self.bars) == 1 and not self.head and set(beats) == {1} else 0

    @cached_property
    def _head_beats(self) -> Fraction:
        return self._starts[len(self.head)]

    def bar(self, number: int) -> Bar:
        """Return a bar by its number, from 1; below it the meter goes on backwards as it would have."""
        index = number - 1 - len(self.head)
        return self.head[number - 1] if 0 <= number - 1 < len(self.head) else self.bars[index % len(self.bars)]

    def beats_of(self, number: int) -> tuple[Fraction, ...]:
        """Return the lengths of the beats of a bar, from 1."""
        return self.bar(number).beats

    def bar_start(self, number: int) -> Fraction:
        """Return where a bar, from 1, begins, in beats of the bpm."""
        if 1 <= number <= len(self.head) + len(self.bars):
            return self._starts[number - 1]
        turns, index = divmod(number - 1 - len(self.head), len(self.bars))
        return self._starts[len(self.head) + index] + turns * self.cycle_beats

    def _bar_at(self, position: Fraction) -> tuple[int, Fraction]:
        """Return the number of the bar at a position, and how far into it that is."""
        if self._even:
            turns, rest = divmod(position, self._even)
            return int(turns) + 1, rest
        if 0 <= position < self._head_beats:
            index = bisect_right(self._starts, position) - 1
            return index + 1, position - self._starts[index]
        turns, rest = divmod(position - self._head_beats, self.cycle_beats)
        if len(self.bars) == 1:
            return len(self.head) + int(turns) + 1, rest
        index = bisect_right(self._starts, self._head_beats + rest) - 1
        return index + int(turns) * len(self.bars) + 1, self._head_beats + rest - self._starts[index]

    def place(self, position: Fraction) -> tuple[int, int, Fraction]:
        """Return bar (from 1), beat (from 1) and what is left inside the beat, for a position in beats.

        >>> METERS["4/4"].place(Fraction(29, 2))
        (4, 3, Fraction(1, 2))
        """
        if self._even:
            passed = floor(position)
            turns, beat = divmod(passed, self._even)
            return turns + 1, beat + 1, position - passed
        bar, inside = self._bar_at(position)
        beat = 1
        for length in self.beats_of(bar):
            if inside < length:
                break
            inside -= length
            beat += 1
        return bar, beat, inside

    def phase(self, position: Fraction) -> tuple[int, int, Fraction]:
        """Return a place as it comes again: which of the bars that take turns, beat, and what is left inside it."""
        bar, beat, inside = self.place(position)
        return (bar - 1 - len(self.head)) % len(self.bars), beat, inside

    def beat_at(self, position: Fraction) -> Fraction:
        """Return how long the beat at a position is."""
        bar, beat, _ = self.place(position)
        return self.beats_of(bar)[beat - 1]

    def beats_passed(self, position: Fraction) -> Fraction:
        """Return how many beats of the meter have passed at a position, however long each was.

        >>> str(METERS["7/8 (2+2+3)"].beats_passed(Fraction(5, 2)))
        '7/3'
        """
        if self._even:
            return position
        bar, beat, inside = self.place(position)
        if 1 <= bar <= len(self.head):
            before = self._counts[bar - 1]
        else:
            turns, index = divmod(bar - 1 - len(self.head), len(self.bars))
            before = self._counts[len(self.head) + index] + turns * self.cycle_count
        return before + beat - 1 + inside / self.beats_of(bar)[beat - 1]

    def bars_passed(self, position: Fraction) -> Fraction:
        """Return how many bars have passed at a position, a begun one by its share."""
        if self._even:
            return position / self._even
        bar, inside = self._bar_at(position)
        return bar - 1 + inside / self.bar(bar).length

    def beats_until(self, end: Fraction, start: Fraction = Fraction(0)) -> Iterator[Fraction]:
        """Yield where each beat begins, from a bar line on, before a position."""
        at, bar = start, self._bar_at(start)[0]
        while at < end:
            for length in self.beats_of(bar):
                if at < end:
                    yield at
                at += length
            bar += 1

    def beats_before(self, start: Fraction) -> Iterator[tuple[Fraction, int]]:
        """Yield (position, number in its bar) of each beat before a position on a beat, the nearest first, without end.

        Positions before the first bar are negative, and go on as the meter would have.
        """
        bar, beat, _ = self.place(start)
        at = start
        while True:
            beat -= 1
            if not beat:
                bar -= 1
                beat = len(self.beats_of(bar))
            at -= self.beats_of(bar)[beat - 1]
            yield at, beat

    def to_bar_line(self, position: Fraction) -> Fraction:
        """Return how many beats are missing from a position to the next bar line; 0 on one.

        >>> METERS["4/4"].to_bar_line(Fraction(14))
        Fraction(2, 1)
        """
        bar, inside = self._bar_at(position)
        return self.bar(bar).length - inside if inside else Fraction(0)

    def to_beat(self, position: Fraction) -> Fraction:
        """Return how many beats are missing from a position to the next beat; 0 on one."""
        if self._even:
            return -position % 1
        bar, beat, inside = self.place(position)
        return self.beats_of(bar)[beat - 1] - inside if inside else Fraction(0)

    def after(self, head: tuple[Bar, ...]) -> "Meter":
        """Return the meter as it begins after some bars that were laid."""
        return replace(self, head=(*head, *self.head))

    def laid(self, count: int) -> tuple[Bar, ...]:
        """Return its first so many bars."""
        return tuple(self.bar(number) for number in range(1, count + 1))


def _meter(signature: str, counted: Fraction, *eighths: int) -> Meter:
    """Return a meter of beats that last so many eighths each; unequal beats are named in brackets."""
    beats = tuple(Fraction(length, 8) / counted for length in eighths)
    unequal = f" ({'+'.join(str(length) for length in eighths)})" if len(set(eighths)) > 1 else ""
    eighth_beats = " in eighths" if counted == _EIGHTH else ""
    above, below = (int(number) for number in signature.split("/"))
    return Meter(signature + unequal + eighth_beats, (Bar(beats, (above, below)),), counted)


_HALF, _QUARTER, _DOTTED, _EIGHTH = (Fraction(*share) for share in ((1, 2), (1, 4), (3, 8), (1, 8)))

#: The meters that are offered; any other one is typed.
METERS: dict[str, Meter] = {
    meter.name: meter
    for meter in (
        _meter("4/4", _QUARTER, 2, 2, 2, 2),
        _meter("3/4", _QUARTER, 2, 2, 2),
        _meter("2/4", _QUARTER, 2, 2),
        _meter("5/4", _QUARTER, 2, 2, 2, 2, 2),
        _meter("2/2", _HALF, 4, 4),
        _meter("6/8", _DOTTED, 3, 3),
        _meter("9/8", _DOTTED, 3, 3, 3),
        _meter("12/8", _DOTTED, 3, 3, 3, 3),
        _meter("5/8", _QUARTER, 2, 3),
        _meter("5/8", _QUARTER, 3, 2),
        _meter("7/8", _QUARTER, 2, 2, 3),
        _meter("7/8", _QUARTER, 3, 2, 2),
        _meter("8/8", _QUARTER, 3, 3, 2),
        _meter("7/8", _EIGHTH, 1, 1, 1, 1, 1, 1, 1),
    )
}
