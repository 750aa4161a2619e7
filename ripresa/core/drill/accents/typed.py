"""Typed accents: a cycle of accent, plain and ghost over the notes."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.drill.accents.mark import Mark
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Restart, Spot, in_turn
from ripresa.core.kind import Kind
from ripresa.core.rhythm import Level

LONGEST_CYCLE = 64


@dataclass(frozen=True, slots=True)
class TypedAccents:
    """A cycle of levels over the notes.

    Args:
        cycle: 1 to 64 levels.
        restart: Never (runs on), or at each beat, bar or leg.

    Raises:
        OutOfRange: An empty or overlong cycle.
    """

    kind: Literal["typed"] = field(default="typed", kw_only=True)
    cycle: tuple[Level, ...] = ("accent", "plain", "plain", "ghost")
    restart: Restart = "bar"

    def __post_init__(self) -> None:
        if not 1 <= len(self.cycle) <= LONGEST_CYCLE:
            raise OutOfRange(
                f"Typed accents are 1 to {LONGEST_CYCLE} signs, not {len(self.cycle)}. "
                "Write > for an accent, - for a plain note, o for a ghost, with spaces: > - - o.",
                field="accents.cycle",
            )

    def marks(self, places: Iterable[Spot]) -> Iterator[Mark]:
        """Yield the level of each note in turn; silences use none up."""
        return (Mark(level or "plain") for level in in_turn(places, self.cycle, self.restart))


KIND = Kind(TypedAccents(), "your own pattern", "Accents, plain notes and ghosts, as you write them.")
