"""No hands written: the student chooses."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.grid import Place


@dataclass(frozen=True, slots=True)
class NoHands:
    """No hand, pick or tongue is prescribed."""

    kind: Literal["none"] = field(default="none", kw_only=True)

    def strokes(self, places: Sequence[Place]) -> list[str | None]:
        """Return None for each place."""
        return [None] * len(places)
