"""What a score from elsewhere may hold: each number is checked where it is read, before anything is done with it."""

from collections.abc import Sequence
from functools import lru_cache

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction

#: What a file may have of each, before it is read any further: our choice, well above what a score to practise has.
MOST_NOTES, MOST_PARTS, MOST_METERS, MOST_SCORE_BARS = 50_000, 100, 1_000, 5_000
_LARGEST_ABOVE, _LARGEST_BELOW = 99, 64


@lru_cache(maxsize=8)
def bar_lines(meters: tuple[tuple[Fraction, int, int], ...]) -> tuple[tuple[int, Fraction, Fraction], ...]:
    """Return number, start and length of the bars under some time signatures; all parts of a file share them."""
    found, start, place = [], Fraction(0), 0
    for number in range(1, MOST_SCORE_BARS + 1):
        while place + 1 < len(meters) and meters[place + 1][0] <= start:
            place += 1
        length = Fraction(4 * meters[place][1], meters[place][2])
        found.append((number, start, length))
        start += length
    return tuple(found)


def check_meter(above: int, below: int, so_far: int) -> tuple[int, int]:
    """Return a time signature of a file.

    Args:
        so_far: How many the file has had.

    Raises:
        Unreadable: It is none that a score can have, or there are too many.
    """
    if not 1 <= above <= _LARGEST_ABOVE or below not in {1 << power for power in range(_LARGEST_BELOW.bit_length())}:
        raise Unreadable(
            f"This file has the meter {above}/{below}, which cannot be read. A bar has 1 to {_LARGEST_ABOVE} notes of "
            f"a value of 1, 2, 4 … {_LARGEST_BELOW}.",
            field="file",
        )
    if so_far >= MOST_METERS:
        raise Unreadable(
            f"This file changes its meter more than {MOST_METERS:,} times. Save a part of it.", field="file"
        )
    return above, below


def check_notes(count: int) -> None:
    """Refuse a file of too many notes.

    Raises:
        Unreadable: It has more than 50,000.
    """
    if count > MOST_NOTES:
        raise Unreadable(f"This file has more than {MOST_NOTES:,} notes. Save a part of it.", field="file")


def check_parts(count: int) -> None:
    """Refuse a file of too many parts.

    Raises:
        Unreadable: It has more than 100.
    """
    if count > MOST_PARTS:
        raise Unreadable(f"This file has more than {MOST_PARTS} parts with notes. Save some of them.", field="file")


def check_end(last: Fraction, meters: Sequence[tuple[Fraction, int, int]]) -> None:
    """Refuse a file that goes on for too long.

    Raises:
        Unreadable: A note lies behind its last bar that can be read.
    """
    _, start, length = bar_lines(tuple(meters))[-1]
    if last >= start + length:
        raise Unreadable(f"This file goes on for more than {MOST_SCORE_BARS:,} bars. Save a part of it.", field="file")
