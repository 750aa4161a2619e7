"""Economy picking: strict alternation on a string; across strings the pick goes on the way it has to go."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from ripresa.core.grid import Place
from ripresa.core.kind import Kind


@dataclass(frozen=True, slots=True)
class Economy:
    """D and U in turn on one string; to a thinner string D, to a thicker one U.

    It needs to know the strings: the fingering of an instrument that has them.

    Args:
        lead: The first stroke.
    """

    kind: Literal["economy"] = field(default="economy", kw_only=True)
    lead: Literal["down", "up"] = "down"

    def strokes(self, places: Iterable[Place]) -> Iterator[str | None]:
        """Yield D or U for each note, None for the others; a note on no known string alternates."""
        stroke, string = "U" if self.lead == "down" else "D", None
        for place in places:
            if place.kind != "note":
                yield None
                continue
            now = place.touch.string if place.touch else None
            if string is None or now is None or now == string:
                stroke = "U" if stroke == "D" else "D"
            else:
                stroke = "D" if now < string else "U"
            string = now
            yield stroke


KIND = Kind(
    Economy(),
    "economy picking",
    "Alternate on a string; to the next string the pick goes on the way it has to go. It needs strings.",
)
