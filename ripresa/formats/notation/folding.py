"""Folding: bars that come again at once are written once, between repeat signs."""

from collections.abc import Sequence
from typing import NamedTuple

#: The longest stretch that is looked for again: what is longer is easier to read played out.
_LONGEST = 16


class Block(NamedTuple):
    """Bars from ``start`` on, ``length`` of them, that are played so many times."""

    start: int
    length: int
    times: int


def blocks(bars: Sequence[str]) -> list[Block]:
    """Return bars as blocks, in order, so that together they are all of them.

    At each place the stretch is taken that says most bars by being repeated; the shorter one where two say as many.

    >>> blocks(["a", "a", "b", "c", "d", "c", "d"])
    [Block(start=0, length=1, times=2), Block(start=2, length=1, times=1), Block(start=3, length=2, times=2)]
    """
    found: list[Block] = []
    at = 0
    while at < len(bars):
        best = max(
            (Block(at, length, _times(bars, at, length)) for length in range(1, min(_LONGEST, len(bars) - at) + 1)),
            key=lambda block: (block.length * (block.times - 1), -block.length),
        )
        if best.times == 1 and found and found[-1].times == 1:
            found[-1] = found[-1]._replace(length=found[-1].length + 1)
        else:
            found.append(best)
        at += best.length * best.times
    return found


def _times(bars: Sequence[str], start: int, length: int) -> int:
    times = 1
    while bars[start : start + length] == bars[start + times * length : start + (times + 1) * length]:
        times += 1
    return times
