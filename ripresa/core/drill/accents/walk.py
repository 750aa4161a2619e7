"""An accent walk: neighbouring accents that move one slot later every so many bars, until they are home."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal

from ripresa.core.drill.accents.mark import ACCENT, PLAIN, Mark
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Place

WIDEST = 8
MOST_BARS = 16


@dataclass(frozen=True, slots=True)
class Walk:
    """Accents on ``width`` neighbouring notes of each beat, one slot later every ``bars`` bars.

    With n notes a beat there are n stations, and the walk is home after
    n · ``bars`` bars. A group that straddles the beat (a and the next 1) is
    one group: the 1 is accented because of the a before it. So the first 1 of
    such a station is plain unless the walk goes round, and the partner of the
    last a is the first note of what follows.

    Args:
        width: Neighbouring accents, 1 to 8.
        bars: Bars on each station, 1 to 16.

    Raises:
        OutOfRange: A number outside its range.
    """

    kind: Literal["walk"] = field(default="walk", kw_only=True)
    width: int = 1
    bars: int = 2

    def __post_init__(self) -> None:
        if not 1 <= self.width <= WIDEST:
            raise OutOfRange(
                f"A walk moves 1 to {WIDEST} neighbouring accents, not {self.width}.", field="accents.width"
            )
        if not 1 <= self.bars <= MOST_BARS:
            raise OutOfRange(f"A walk stays 1 to {MOST_BARS} bars on a station, not {self.bars}.", field="accents.bars")

    def marks(self, places: Iterable[Place]) -> Iterator[Mark]:
        """Yield an accent for each note of a walking group; each leg walks from its own first bar."""
        leg, first_bar, left = -1, 0, 0
        for place in places:
            if place.leg != leg:
                # What is left of a straddling group goes over into the next leg.
                leg, first_bar = place.leg, place.bar
            if place.kind != "note":
                yield PLAIN
                continue
            if place.slot == self.station(place.division, place.bar - first_bar):
                left = self.width
            yield ACCENT if left else PLAIN
            left = max(0, left - 1)

    def station(self, division: Fraction, bar: int) -> int:
        """Return the slot on which groups start in a bar, counted from 0 at the start of the leg.

        >>> [Walk(bars=2).station(Fraction(4), bar) for bar in range(9)]
        [0, 0, 1, 1, 2, 2, 3, 3, 0]
        """
        return bar // self.bars % self.stations(division)

    def stations(self, division: Fraction) -> int:
        """Return how many stations there are: one for each slot of the division."""
        return division.numerator
