"""An accent walk: neighbouring accents that move one slot later every so many bars, until they are home."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.drill.accents.mark import ACCENT, PLAIN, Mark
from ripresa.core.exact import Fraction
from ripresa.core.grid import Place
from ripresa.core.kind import Between, Kind, check_bounds

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
    width: Annotated[
        int,
        Between(
            1,
            WIDEST,
            "A walk moves {least} to {most} neighbouring accents, not {value}.",
            "A pair that straddles the beat takes the next 1 along.",
        ),
    ] = 1
    bars: Annotated[
        int,
        Between(
            1,
            MOST_BARS,
            "A walk stays {least} to {most} bars on a station, not {value}.",
            "Bars on each slot before it moves on.",
        ),
    ] = 2

    def __post_init__(self) -> None:
        check_bounds(self, "accents")

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


KIND = Kind(Walk(), "a walking slot", "The accent moves one slot later until it is home: every slot gets its turn.")
