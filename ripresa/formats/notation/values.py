"""Note values: a bar in as few of them as show its beats, tuplets where halves of halves cannot say it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from math import gcd

from ripresa.formats.notation.ticks import Cell, Span, TickBar

#: Note values by how many times a quarter is halved, the longest first.
TYPES = dict(
    enumerate(
        ("breve", "whole", "half", "quarter", "eighth", "16th", "32nd", "64th", "128th", "256th", "512th", "1024th"),
        start=-3,
    )
)


#: The value of a rest that lasts as long as its bar.
WHOLE_BAR = ""


@dataclass(frozen=True, slots=True)
class Tuplet:
    """So many notes in the time of others, over a stretch of a bar in ticks."""

    actual: int
    normal: int
    start: int
    end: int


@dataclass(slots=True)
class Written:
    """A written note or rest.

    Args:
        start, length: Ticks. span: What it is a part of.
        begins: Whether it is struck here, not tied from before. goes_on: Whether it is tied to the next.
        value: Its note value; dotted: whether it lasts half as long again.
        beams: What each beam does here, the eighths' first.
    """

    start: int
    length: int
    span: Span
    begins: bool
    goes_on: bool
    value: str
    dotted: bool
    tuplet: Tuplet | None
    beams: tuple[str, ...] = ()

    @property
    def sounds(self) -> bool:
        """Whether it is a note."""
        return self.span.event is not None

    @property
    def ends(self) -> tuple[bool, bool]:
        """Whether its tuplet begins and ends with it."""
        if self.tuplet is None:
            return False, False
        return self.start == self.tuplet.start, self.start + self.length == self.tuplet.end


@lru_cache(maxsize=4096)
def value_of(length: int, quarter: int) -> tuple[str, bool] | None:
    """Return the note value of a length in ticks, and whether it is dotted; None where no single one lasts so long.

    >>> value_of(18, 12), value_of(5, 12), value_of(6, 12)
    (('quarter', True), None, ('eighth', False))
    """
    common = gcd(length, quarter)
    above, below = length // common, quarter // common
    dotted = above % 3 == 0
    plain = above // 3 * 2 if dotted else above
    power = below.bit_length() - plain.bit_length()
    if below & (below - 1) or plain & (plain - 1) or power not in TYPES:
        return None
    return TYPES[power], dotted


def written_bar(bar: TickBar, spans: Sequence[Span], cells: Sequence[Cell], quarter: int) -> list[Written]:
    """Return the notes and rests of a bar, in order.

    Args:
        spans: What sounds and is silent in it. cells: Where divisions have their slots, over its bar lines too.
        quarter: Ticks of a quarter.
    """
    tuplets = _tuplets(bar, spans, cells, quarter)
    edges = sorted({edge for tuplet in tuplets for edge in (tuplet.start, tuplet.end)})
    inside = {tuplet.start: tuplet for tuplet in tuplets}
    found: list[Written] = []
    for span in spans:
        if span.event is None and (span.start, span.end) == (bar.start, bar.end) and not bar.is_additive:
            # One sign for a silent bar, whatever its meter; in one that is a sum not every reader knows its length.
            found.append(Written(span.start, span.end - span.start, span, True, False, WHOLE_BAR, False, None))
            continue
        cuts = [span.start, *(edge for edge in edges if span.start < edge < span.end), span.end]
        pieces: list[tuple[int, int, Tuplet | None]] = []
        for start, end in pairwise(cuts):
            tuplet = next((one for one in inside.values() if one.start <= start < one.end), None)
            cut = _in_tuplet(start, end, tuplet) if tuplet else _plain(start, end, bar, quarter, silent=not span.event)
            pieces += [(*piece, tuplet) for piece in cut]
        for number, (start, end, tuplet) in enumerate(pieces):
            length = end - start
            scaled = length * tuplet.actual // tuplet.normal if tuplet else length
            value = value_of(scaled, quarter)
            assert value, "what is cut into values has one"
            goes_on = span.event is not None and (span.goes_on or number + 1 < len(pieces))
            found.append(Written(start, length, span, span.begins and not number, goes_on, *value, tuplet))
    return found


def _tuplets(bar: TickBar, spans: Sequence[Span], cells: Sequence[Cell], quarter: int) -> list[Tuplet]:
    """Return the tuplets of a bar: over each cell, or each beat, in which something begins off the halves of halves."""
    edges = sorted({span.start for span in spans} | {span.end for span in spans})
    odd = [edge for edge in edges if not _is_plain(edge - bar.start, quarter)]
    found: list[Tuplet] = []
    if not odd:
        return found
    whole = [cell for cell in cells if bar.start <= cell[0] and cell[1] <= bar.end]
    taken = bar.start
    for edge in odd:
        if edge < taken:
            continue
        cell = next((one for one in whole if one[0] < edge < one[1] and one[0] >= taken), None)
        # Where a bar line cuts a division, and where two hands are one line, each beat is cut for itself.
        start, end = cell or bar.beat_of(edge)
        start = max(start, taken)
        slots = (end - start) // gcd(end - start, *(one - start for one in edges if start < one < end))
        found.append(_tuplet(slots, start, end, quarter))
        taken = end
    return found


def _is_plain(ticks: int, quarter: int) -> bool:
    """Return whether a place is reached by halving the quarter."""
    below = quarter // gcd(ticks, quarter)
    return not below & (below - 1)


def _tuplet(slots: int, start: int, end: int, quarter: int) -> Tuplet:
    """Return so many slots over a stretch, in the time of as many of the next longer note value as are not more.

    >>> [(one.actual, one.normal) for one in (_tuplet(3, 0, 12, 12), _tuplet(7, 0, 12, 12), _tuplet(5, 0, 18, 12))]
    [(3, 2), (7, 4), (5, 3)]
    """
    normal = (end - start) // gcd(end - start, quarter)
    while normal % 2 == 0:
        normal //= 2
    while normal * 2 <= slots:
        normal *= 2
    return Tuplet(slots, normal, start, end)


def _in_tuplet(start: int, end: int, tuplet: Tuplet) -> Iterator[tuple[int, int]]:
    """Yield the pieces of a stretch of a tuplet, each of which one note value can say."""
    slot = (tuplet.end - tuplet.start) // tuplet.actual
    at, left = (start - tuplet.start) // slot, (end - start) // slot
    while left:
        power = 1 << (left.bit_length() - 1)
        dotted = power + power // 2
        take = left if left in {power, dotted} else 1 if at % 2 else power
        yield tuplet.start + at * slot, tuplet.start + (at + take) * slot
        at, left = at + take, left - take


def _plain(start: int, end: int, bar: TickBar, quarter: int, *, silent: bool) -> Iterator[tuple[int, int]]:
    """Yield the pieces of a stretch without tuplets: few, and such that the beats can be seen."""
    while start < end:
        until = _furthest(start, end, bar, quarter, silent=silent)
        yield start, until
        start = until


def _furthest(start: int, end: int, bar: TickBar, quarter: int, *, silent: bool) -> int:
    """Return where the first value of a stretch ends."""
    if value_of(end - start, quarter) and _reads_well(start, end, bar, silent=silent):
        return end
    begin, next_beat = bar.beat_of(start)
    if start == begin and end >= next_beat:
        group = next((one for one in bar.groups if one > start), bar.end)
        for beat in reversed(bar.beats):
            fits = start < beat <= min(end, group) and value_of(beat - start, quarter)
            if fits and _on_beats(start, beat, bar, silent=silent):
                return beat
    return _halved(start, min(end, next_beat), begin, quarter)


def _halved(start: int, end: int, begin: int, quarter: int) -> int:
    """Return where to cut a stretch inside a beat that no value can say: at the coarsest half of halves in it."""
    if value_of(end - start, quarter):
        return end
    step = 4 * quarter
    while step > 1:
        at = begin + ((start - begin) // step + 1) * step
        if start < at < end:
            return _halved(start, at, begin, quarter)
        step //= 2
    raise AssertionError("a stretch without tuplets is made of halves of halves")


def _on_beats(start: int, end: int, bar: TickBar, *, silent: bool) -> bool:
    """Return whether a value from beat to beat may stand: a rest lasts 1, 2 or 4 beats and begins on a multiple."""
    if not silent:
        return True
    count = sum(start <= beat < end for beat in bar.beats)
    return not count & (count - 1) and (start - bar.start) % (end - start) == 0


def _reads_well(start: int, end: int, bar: TickBar, *, silent: bool) -> bool:
    """Return whether one value over a stretch leaves the beats in sight."""
    begin, beat_end = bar.beat_of(start)
    if end <= beat_end:
        return True
    if any(start < group < end for group in bar.groups) and (start, end) != (bar.start, bar.end):
        return False
    last_begin, _ = bar.beat_of(end - 1)
    if start == begin and end in bar.beats:
        return _on_beats(start, end, bar, silent=silent)
    # Over a beat and not from beat to beat: only what every reader knows, over no more than one beat, and never over
    # the middle of a bar of four.
    four = len(bar.beats) == 5
    over_middle = four and start < bar.beats[2] < end
    beat = beat_end - begin
    if silent or over_middle or last_begin != beat_end:
        return False
    half_of_last = (end - last_begin) * 2 == bar.beat_of(last_begin)[1] - last_begin
    if start == begin:
        return half_of_last
    return half_of_last and (start - begin) * 2 == beat and end - start == beat
