"""Typed accents: a cycle of accent, plain and ghost over the notes."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.accents.mark import Level, Mark
from ripresa.core.errors import OutOfRange
from ripresa.core.place import Place, Restart, stretch_of

LONGEST_CYCLE = 64
_SIGNS: dict[Level, str] = {"accent": ">", "plain": "-", "ghost": "o"}


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

    def marks(self, places: Sequence[Place]) -> list[Mark]:
        """Return the level of each note in turn; silences use none up."""
        marks: list[Mark] = []
        stretch: object = None
        at = 0
        for place in places:
            if place.kind != "note":
                marks.append(Mark("plain"))
                continue
            now = stretch_of(place, self.restart)
            if now != stretch:
                stretch, at = now, 0
            marks.append(Mark(self.cycle[at % len(self.cycle)]))
            at += 1
        return marks


def shown(cycle: Sequence[Level]) -> str:
    """Return a cycle as it is typed.

    >>> shown(("accent", "plain", "ghost"))
    '> - o'
    """
    return " ".join(_SIGNS[level] for level in cycle)
