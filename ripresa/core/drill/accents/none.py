"""No accents: every note alike."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.drill.accents.mark import PLAIN, Mark
from ripresa.core.grid import Place
from ripresa.core.kind import Kind


@dataclass(frozen=True, slots=True)
class NoAccents:
    """Every note is plain."""

    kind: Literal["none"] = field(default="none", kw_only=True)

    def marks(self, places: Iterable[Place]) -> Iterator[Mark]:
        """Yield a plain mark for each place."""
        return (PLAIN for _ in places)


KIND = Kind(NoAccents(), "nothing", "All notes alike.")
