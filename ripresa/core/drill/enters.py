"""Layers that enter one after the other: foot, count, hands and movement, each from a bar of its own."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import capital

Entering = Literal["foot", "count", "hands", "movement"]
LAST_BAR = 64

ENTERING: dict[Entering, tuple[str, str]] = {
    "foot": ("the foot", "First the ground: it keeps the beat for all that follows."),
    "count": ("the count", "The voice names the slots before the hands play them."),
    "hands": ("the hands", "They join what is heard already."),
    "movement": ("the movement", "Last: what moves freely when the rest is safe."),
}


@dataclass(frozen=True, slots=True)
class Enters:
    """From which bar each layer is there, 1 to 64; before it, it keeps its time in silence.

    Raises:
        OutOfRange: Another bar.
    """

    foot: int = 1
    count: int = 1
    hands: int = 1
    movement: int = 1

    def __post_init__(self) -> None:
        for name in ENTERING:
            bar = self.bar_of(name)
            if not 1 <= bar <= LAST_BAR:
                raise OutOfRange(
                    f"{capital(ENTERING[name][0])} enters in bar 1 to {LAST_BAR}, not {bar}.",
                    field=f"enters.{name}",
                )

    def bar_of(self, layer: Entering) -> int:
        """Return the bar in which a layer enters, from 1."""
        return {"foot": self.foot, "count": self.count, "hands": self.hands, "movement": self.movement}[layer]

    @property
    def order(self) -> tuple[tuple[Entering, int], ...]:
        """The layers with their bars, in the order in which they enter; those of one bar in the usual order."""
        return tuple(sorted(((name, self.bar_of(name)) for name in ENTERING), key=lambda pair: pair[1]))
