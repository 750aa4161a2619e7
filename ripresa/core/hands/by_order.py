"""By order: a cycle of symbols runs over the notes, whatever slots they stand on."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from math import lcm
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.place import Place, Restart, in_turn

RESTARTS: dict[Restart, tuple[str, str]] = {
    "never": ("runs on", "The hand never stops to think; leads change where the cycle is odd."),
    "leg": ("starts again with each leg", "Each division starts from the same hand, so that legs compare."),
    "bar": ("starts again each bar", "The same bar feels the same each time."),
    "beat": ("starts again each beat", "The beat always falls on the same hand."),
}
CYCLES: dict[str, tuple[tuple[str, ...], str]] = {
    "alternate": (("D", "U"), "alternate picking"),
    "hands": (("R", "L"), "hand to hand"),
    "double_tongue": (("T", "K"), "double tonguing"),
    "triple_tongue": (("T", "T", "K"), "triple tonguing"),
    "single_tongue": (("T",), "single tonguing"),
}
LONGEST_CYCLE = 32
LONGEST_SYMBOL = 4


@dataclass(frozen=True, slots=True)
class ByOrder:
    """A cycle of symbols over the notes.

    Args:
        cycle: 1 to 32 symbols of 1 to 4 signs: ``("D", "U")``, ``("T", "K")``, ``("R", "L", "R", "R")``.
        restart: Never (runs on), or at each beat, bar or leg.

    Raises:
        OutOfRange: An empty or overlong cycle or symbol.
    """

    kind: Literal["by_order"] = field(default="by_order", kw_only=True)
    cycle: tuple[str, ...] = ("D", "U")
    restart: Restart = "never"

    def __post_init__(self) -> None:
        if not 1 <= len(self.cycle) <= LONGEST_CYCLE:
            raise OutOfRange(
                f"A hand cycle has 1 to {LONGEST_CYCLE} symbols, not {len(self.cycle)}. Write them with spaces: D U.",
                field="hands.cycle",
            )
        for symbol in self.cycle:
            if not 1 <= len(symbol) <= LONGEST_SYMBOL or not symbol.strip():
                raise OutOfRange(
                    f"“{symbol}” is not a hand symbol: use 1 to {LONGEST_SYMBOL} signs, with spaces between symbols.",
                    field="hands.cycle",
                )

    def strokes(self, places: Sequence[Place]) -> list[str | None]:
        """Return a symbol for each place that is a note, None for the others; silences do not use one up."""
        return in_turn(places, self.cycle, self.restart)

    def home_beats(self, division: Fraction) -> Fraction:
        """Return after how many beats the lead comes home: lcm of cycle and division, in beats.

        >>> ByOrder(cycle=("D", "U")).home_beats(Fraction(3))
        Fraction(2, 1)
        """
        if self.restart == "beat":
            return max(Fraction(1), 1 / division)
        return lcm(len(self.cycle), division.numerator) / division
