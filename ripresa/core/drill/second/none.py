"""No second hand: one line alone."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import ClassVar, Literal

from ripresa.core.drill.second.first import First
from ripresa.core.grid import Place
from ripresa.core.kind import Kind


@dataclass(frozen=True, slots=True)
class NoSecond:
    """Nothing is played with the other hand."""

    #: Whether it has the rhythm of the first hand where none of its own is written.
    follows: ClassVar[bool] = True
    kind: Literal["none"] = field(default="none", kw_only=True)

    def fill(self, places: Sequence[Place], _first: First) -> list[Place]:
        """Return the places with what it plays in them."""
        return list(places)


KIND = Kind(NoSecond(), "rests", "One hand plays.")
