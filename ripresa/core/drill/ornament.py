"""Ornaments by hand: any note of a drill is hammered, pulled off or slid to instead of struck."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ripresa.core.errors import OutOfRange
from ripresa.core.grid import ORNAMENTS, Ornament, Place, altered

MOST = 256
_LARGEST = 20_000
#: What a press makes of an ornament, in turn: none, then each, then none.
IN_TURN: tuple[Ornament | None, ...] = (None, *ORNAMENTS)


@dataclass(frozen=True, slots=True)
class Ornamented:
    """One slot whose note is not struck.

    Args:
        bar: Of the drill, beat: of the bar, from 1. slot: Of the beat, from 0.
        ornament: How its note is reached.

    Raises:
        OutOfRange: A place that no drill has.
    """

    bar: int
    beat: int
    slot: int
    ornament: Ornament = "hammer"

    def __post_init__(self) -> None:
        if not (1 <= self.bar <= _LARGEST and 1 <= self.beat <= _LARGEST and 0 <= self.slot < _LARGEST):
            raise OutOfRange("An ornament stands on a bar and a beat from 1 and a slot from 0.", field="ornaments")

    @property
    def at(self) -> tuple[int, int, int]:
        """Where it stands: bar, beat, slot."""
        return self.bar, self.beat, self.slot


def ornamented(places: Sequence[Place], ornaments: Sequence[Ornamented]) -> Sequence[Place]:
    """Return places with the ornaments that are written by hand; where no note begins nothing changes."""
    if not ornaments:
        return places
    by_place = {one.at: one.ornament for one in ornaments}
    return [
        altered(place, how=replace(place.how, ornament=by_place[place.bar, place.beat, place.slot]))
        if place.kind == "note" and place.on_grid and (place.bar, place.beat, place.slot) in by_place
        else place
        for place in places
    ]
