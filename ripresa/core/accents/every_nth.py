"""An accent on every g-th note: groups that may cross the beat."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.accents.mark import PLAIN, Mark
from ripresa.core.errors import OutOfRange
from ripresa.core.place import Place

LARGEST_GROUP = 64


@dataclass(frozen=True, slots=True)
class EveryNth:
    """Notes 1, g + 1, 2g + 1 … of each leg are accented.

    Args:
        size: Notes in a group, 2 to 64.

    Raises:
        OutOfRange: A smaller or larger group.
    """

    kind: Literal["every_nth"] = field(default="every_nth", kw_only=True)
    size: int = 3

    def __post_init__(self) -> None:
        if not 2 <= self.size <= LARGEST_GROUP:
            raise OutOfRange(f"A group has 2 to {LARGEST_GROUP} notes, not {self.size}.", field="accents.size")

    def marks(self, places: Sequence[Place]) -> list[Mark]:
        """Return an accent for the first note of each group, and each note's group; groups start anew with a leg."""
        marks: list[Mark] = []
        leg, count = -1, 0
        for place in places:
            if place.leg != leg:
                leg, count = place.leg, 0
            if place.kind != "note":
                marks.append(PLAIN)
                continue
            group, inside = divmod(count, self.size)
            marks.append(Mark("plain" if inside else "accent", group))
            count += 1
        return marks
