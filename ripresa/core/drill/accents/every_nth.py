"""An accent on every g-th note: groups that may cross the beat."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.drill.accents.mark import PLAIN, Mark
from ripresa.core.grid import Restart, Spot, stretch_of
from ripresa.core.kind import Between, Kind, check_bounds

LARGEST_GROUP = 64


@dataclass(frozen=True, slots=True)
class EveryNth:
    """Notes 1, g + 1, 2g + 1 … of each stretch are accented.

    Args:
        size: Notes in a group, 2 to 64.
        restart: Whether the count goes on for ever, or starts anew at each leg, bar or beat:
            what is left of a group there is cut off.

    Raises:
        OutOfRange: A smaller or larger group.
    """

    kind: Literal["every_nth"] = field(default="every_nth", kw_only=True)
    size: Annotated[
        int,
        Between(
            2,
            LARGEST_GROUP,
            "A group has {least} to {most} notes, not {value}.",
            "Five on four comes home after five beats.",
        ),
    ] = 3
    restart: Restart = "leg"

    def __post_init__(self) -> None:
        check_bounds(self, "accents")

    def marks(self, places: Iterable[Spot]) -> Iterator[Mark]:
        """Yield an accent for the first note of each group, and each note's group, numbered from 0 in its leg."""
        leg, group, inside = -1, -1, 0
        stretch: object = None
        for place in places:
            if place.kind != "note":
                yield PLAIN
                continue
            now = stretch_of(place, self.restart)
            if now != stretch:
                stretch, inside = now, 0
            if place.leg != leg:
                # A group that runs on into another leg is that leg's first.
                leg, group = place.leg, 0 if inside else -1
            if not inside:
                group += 1
            yield Mark("plain" if inside else "accent", group, inside + 1)
            inside = (inside + 1) % self.size


KIND = Kind(EveryNth(size=5), "every so many notes", "Groups that may cross the beat: the accent wanders.")
