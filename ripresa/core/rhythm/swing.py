"""Swing: a ratio that moves the ideal places of a division; never the tolerance."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, label

WIDEST = 4
#: Ready ratios, from straight to the hardest in use.
RATIOS: tuple[tuple[Fraction, str, str], ...] = (
    (Fraction(1), "straight", "Both notes of a pair are as long."),
    (Fraction(5, 4), "with a light swing, 5:4", "Just felt: for fast tempi."),
    (Fraction(3, 2), "with a swing of 3:2", "Between straight and triplets."),
    (Fraction(2), "with a swing of 2:1", "The second note is the last of a triplet."),
    (Fraction(3), "with a swing of 3:1", "The second note is the last of four."),
)


def leads(slot: int, slots: int, on: int) -> bool:
    """Return whether a slot is in the first of a pair: of two slots, or of the halves of a beat of four.

    >>> [leads(slot, 4, 2) for slot in range(4)], [leads(slot, 4, 4) for slot in range(4)]
    ([True, True, False, False], [True, False, True, False])
    """
    return slot * on // slots % 2 == 0


@dataclass(frozen=True, slots=True)
class Swing:
    """The first of each pair of slots is longer than the second.

    Args:
        ratio: Long to short; 1 is straight, 2 is 2:1; 1 to 4.
        on: The division whose pairs swing: 2 or 4 notes a beat. With 2, quarters of a
            beat go along: each half is cut evenly, so that the & of both falls together.

    Raises:
        OutOfRange: A ratio outside 1 to 4.
    """

    ratio: Exact = Fraction(1)
    on: Literal[2, 4] = 2

    def __post_init__(self) -> None:
        if not 1 <= self.ratio <= WIDEST:
            raise OutOfRange(
                f"A swing of {label(self.ratio)}:1 cannot be played. Use 1 (straight) to {WIDEST}; 3/2 is 3:2.",
                field="swing.ratio",
            )

    @property
    def long(self) -> Fraction:
        """Share of the first note in a pair."""
        return self.ratio / (self.ratio + 1)

    def share(self, division: Fraction, slot: int) -> Fraction:
        """Return the share of its span that a slot lasts.

        >>> [str(Swing(Fraction(2)).share(Fraction(2), slot)) for slot in (0, 1)]
        ['2/3', '1/3']
        """
        even = Fraction(1, division.numerator)
        if self.ratio == 1 or division not in {2, 4} or self.on > division:
            return even
        return 2 * even * (self.long if leads(slot, division.numerator, self.on) else 1 - self.long)

    def written(self, division: Fraction, share: Fraction) -> Fraction:
        """Return where in its beat a swung place is written: print does not show swing.

        >>> str(Swing(Fraction(2)).written(Fraction(2), Fraction(2, 3)))
        '1/2'
        """
        at = Fraction(0)
        for slot in range(division.numerator if division in {2, 4} else 0):
            if at == share:
                return Fraction(slot, division.numerator)
            at += self.share(division, slot)
        return share
