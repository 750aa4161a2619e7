"""By place, the pendulum: the direction comes from the slot, whether it sounds or not."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.grid import Place
from ripresa.core.kind import Kind

Odd = Literal["through", "restart"]

ODD_SCHOOLS: dict[Odd, tuple[str, str]] = {
    "through": ("alternates through threes", "The arm keeps its swing; every second beat starts with an up stroke."),
    "restart": ("restarts on the beat in threes", "Every beat starts down; two down strokes meet at the beat."),
}
LEADS: dict[Literal["down", "up"], tuple[str, str]] = {
    "down": ("down on the beat", "The arm falls on the number: the usual swing."),
    "up": ("up on the beat", "Turned round, to free the other half of the swing."),
}


@dataclass(frozen=True, slots=True)
class ByPlace:
    """The arm swings through every slot.

    With 2 a beat the number is down and & up; with 4 the number and & are down, e and a up.

    Taking a note away changes nothing; its slot becomes an air stroke.

    Args:
        lead: Which way the arm goes on the beat.
        odd: Whether threes, fives and sevens alternate through the beats, or restart on each.
    """

    kind: Literal["by_place"] = field(default="by_place", kw_only=True)
    lead: Literal["down", "up"] = "down"
    odd: Odd = "through"

    def strokes(self, places: Iterable[Place]) -> Iterator[str | None]:
        """Yield D or U for each slot of a division, sounded or not; None for what only fills time."""
        ways = ("D", "U") if self.lead == "down" else ("U", "D")
        run = 0
        for place in places:
            notes = place.division.numerator
            if not place.on_grid:
                yield None
                run = 0
                continue
            swings_through = notes > 1 and notes % 2 == 1 and self.odd == "through"
            yield ways[(run if swings_through else place.slot) % 2]
            run = run + 1 if swings_through else 0


KIND = Kind(
    ByPlace(),
    "the arm swings",
    "By place: the slot says which way, and where nothing sounds the stroke goes through the air.",
)
