"""By order: a cycle of symbols runs over the notes, whatever slots they stand on."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Restart, Spot, in_turn
from ripresa.core.kind import Kind

RESTARTS: dict[Restart, tuple[str, str]] = {
    "never": ("runs on", "It never stops to think; where it is odd, another part of it falls on 1."),
    "leg": ("starts again with each leg", "Each division starts the same way, so that legs compare."),
    "bar": ("starts again each bar", "The same bar feels the same each time."),
    "beat": ("starts again each beat", "The beat always falls on the same part of it."),
}
#: Stands in a cycle for a note that is not struck: it is slurred to the one before.
SLUR = "-"
CYCLES: dict[str, tuple[tuple[str, ...], str]] = {
    "alternate": (("D", "U"), "alternate picking"),
    "hands": (("R", "L"), "hand to hand"),
    "double_tongue": (("T", "K"), "double tonguing"),
    "triple_tongue": (("T", "T", "K"), "triple tonguing"),
    "single_tongue": (("T",), "single tonguing"),
    "slur_pairs": (("T", SLUR), "tongue one, slur one"),
    "slur_two_tongue_two": (("T", SLUR, "T", "T"), "slur two, tongue two"),
}
LONGEST_CYCLE = 32
LONGEST_SYMBOL = 4


#: Signs of which each is a symbol by itself, however close they are typed.
_ALONE = tuple(frozenset(signs) for signs in ("RL", "DU", f"TK{SLUR}", "pima", "12345"))


def parted(symbols: Sequence[str]) -> tuple[str, ...]:
    """Return hand symbols one by one, those that were typed without spaces too.

    >>> parted(["RLRRLL"]), parted(["rlrr"]), parted(["p+i", "m", "T-TT"])
    (('R', 'L', 'R', 'R', 'L', 'L'), ('R', 'L', 'R', 'R'), ('p+i', 'm', 'T', '-', 'T', 'T'))
    """
    found: list[str] = []
    for symbol in symbols:
        same = [symbol, symbol.upper()]
        close = next((one for one in same for signs in _ALONE if len(one) > 1 and signs.issuperset(one)), None)
        found += close or (symbol,)
    return tuple(found)


@dataclass(frozen=True, slots=True)
class ByOrder:
    """A cycle of symbols over the notes.

    Args:
        cycle: 1 to 32 symbols of 1 to 4 signs: ``("D", "U")``, ``("T", "K")``, ``("R", "L", "R", "R")``;
            ``-`` is a note that is slurred. ``"RLRR"`` is four of them.
        restart: Never (runs on), or at each beat, bar or leg.

    Raises:
        OutOfRange: An empty or overlong cycle or symbol, or one that strikes nothing.
    """

    kind: Literal["by_order"] = field(default="by_order", kw_only=True)
    cycle: tuple[str, ...] = ("D", "U")
    restart: Restart = "never"

    def __post_init__(self) -> None:
        object.__setattr__(self, "cycle", parted(self.cycle))
        if not 1 <= len(self.cycle) <= LONGEST_CYCLE:
            raise OutOfRange(
                f"A hand cycle has 1 to {LONGEST_CYCLE} symbols, not {len(self.cycle)}. Write them with spaces: D U.",
                field="hands.cycle",
            )
        if set(self.cycle) == {SLUR}:
            raise OutOfRange(
                "A hand cycle of slurs alone strikes nothing. Begin with what is struck: T - for a slur of two.",
                field="hands.cycle",
            )
        for symbol in self.cycle:
            if not 1 <= len(symbol) <= LONGEST_SYMBOL or not symbol.strip():
                raise OutOfRange(
                    f"“{symbol}” is not a hand symbol: use 1 to {LONGEST_SYMBOL} signs, with spaces between symbols.",
                    field="hands.cycle",
                )

    def strokes(self, places: Iterable[Spot]) -> Iterator[str | None]:
        """Yield a symbol for each place that is a note, None for the others; silences do not use one up."""
        return in_turn(places, self.cycle, self.restart)


KIND = Kind(
    ByOrder(("R", "L")),
    "your own cycle",
    "Write the symbols with spaces: R L R R L L, p i m a, 1 2 3 1 2 3 4; - is a slurred note: T -.",
)
