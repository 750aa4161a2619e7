"""By place, with letters: the slot says which hand, whether it sounds or not."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.drill.hands.by_order import parted
from ripresa.core.drill.hands.by_place import Odd
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Place
from ripresa.core.kind import Kind

LONGEST_PATTERN, LONGEST_SYMBOL = 64, 4
HAND_LEADS: dict[Literal["R", "L"], tuple[str, str]] = {
    "R": ("R on numbers and &, L between", "The right hand keeps the eighths, the left one fills."),
    "L": ("L on numbers and &, R between", "The other lead: the left hand keeps the eighths."),
}


@dataclass(frozen=True, slots=True)
class Letters:
    """The leading hand plays numbers and &, the other one what lies between; or a pattern says each slot of the bar.

    With 1 and 2 a beat there is nothing between: the leading hand plays all. From 3 a beat the hands take turns slot
    by slot. Taking a note away changes nothing; its slot becomes a stroke in the air.

    Args:
        lead: The hand on numbers and &.
        odd: Whether threes, fives and sevens alternate through the beats, or restart on each.
        pattern: Symbols of the slots of a bar, in order, silent ones too; again from the first where the bar has more.
            Empty for the lead.

    Raises:
        OutOfRange: An overlong pattern or symbol.
    """

    kind: Literal["letters"] = field(default="letters", kw_only=True)
    lead: Literal["R", "L"] = "R"
    odd: Odd = "restart"
    pattern: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        object.__setattr__(self, "pattern", parted(self.pattern))
        if len(self.pattern) > LONGEST_PATTERN or any(
            not 1 <= len(one) <= LONGEST_SYMBOL or not one.strip() for one in self.pattern
        ):
            raise OutOfRange(
                f"A pattern of the bar has up to {LONGEST_PATTERN} symbols of 1 to {LONGEST_SYMBOL} signs, with "
                "spaces between: R L R R.",
                field="hands.pattern",
            )

    def strokes(self, places: Iterable[Place]) -> Iterator[str | None]:
        """Yield the hand of each slot of a division, sounded or not; None for what only fills time."""
        hands = ("R", "L") if self.lead == "R" else ("L", "R")
        run = number = 0
        bar: tuple[int, int] | None = None
        for place in places:
            if (place.leg, place.bar) != bar:
                bar, number = (place.leg, place.bar), 0
            if not place.on_grid:
                yield None
                run = 0
                continue
            if self.pattern:
                yield self.pattern[number % len(self.pattern)]
                number += 1
                continue
            notes = place.division.numerator
            if notes <= 2:
                yield hands[0]
                run = 0
                continue
            through = notes % 2 == 1 and self.odd == "through"
            yield hands[(run if through else place.slot) % 2]
            run = run + 1 if through else 0


KIND = Kind(
    Letters(),
    "hands by place",
    "R and L by the slot, as the arm swings: where nothing sounds the hand goes through the air.",
)
