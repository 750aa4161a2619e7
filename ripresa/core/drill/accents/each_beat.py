"""An accent on each beat."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.drill.accents.mark import ACCENT, PLAIN, Mark
from ripresa.core.grid import Place
from ripresa.core.kind import Kind


@dataclass(frozen=True, slots=True)
class EachBeat:
    """The note that stands on a beat is accented."""

    kind: Literal["each_beat"] = field(default="each_beat", kw_only=True)

    def marks(self, places: Iterable[Place]) -> Iterator[Mark]:
        """Yield an accent for each note on slot 0, plain for the rest."""
        return (ACCENT if place.kind == "note" and place.slot == 0 else PLAIN for place in places)


KIND = Kind(EachBeat(), "each beat", "The beat is heard in the playing itself.")
