"""The backbeat: every second beat weighs more."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.drill.accents.mark import ACCENT, PLAIN, Mark
from ripresa.core.grid import Place
from ripresa.core.kind import Kind


@dataclass(frozen=True, slots=True)
class Backbeat:
    """The note on every even beat of the bar is accented: 2 and 4."""

    kind: Literal["backbeat"] = field(default="backbeat", kw_only=True)

    def marks(self, places: Iterable[Place]) -> Iterator[Mark]:
        """Yield an accent for each note on slot 0 of an even beat, plain for the rest."""
        return (
            ACCENT if place.kind == "note" and place.slot == 0 and place.beat % 2 == 0 else PLAIN for place in places
        )


KIND = Kind(Backbeat(), "the backbeat", "2 and 4: where hands clap.")
