"""No hands written: the student chooses."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.grid import Place
from ripresa.core.kind import Kind


@dataclass(frozen=True, slots=True)
class NoHands:
    """No hand, pick or tongue is prescribed."""

    kind: Literal["none"] = field(default="none", kw_only=True)

    def strokes(self, places: Iterable[Place]) -> Iterator[str | None]:
        """Yield None for each place."""
        return (None for _ in places)


KIND = Kind(NoHands(), "any hand", "No hand is written: the student chooses.")
