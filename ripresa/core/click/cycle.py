"""The cycle of clicks that a plan comes to."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, NamedTuple

ClickLevel = Literal["strong", "plain"]


class ClickSlot(NamedTuple):
    """A slot of the drill that a click is laid over: its onset in beats, whether it is on a beat, and sounds."""

    onset: Fraction
    on_beat: bool
    sounds: bool


@dataclass(frozen=True, slots=True)
class ClickCycle:
    """A cycle of clicks.

    Args:
        length: Beats of the bpm until it starts again; a whole number of bars.
        clicks: (position in beats from the cycle's start, level), in order.
    """

    length: Fraction
    clicks: tuple[tuple[Fraction, ClickLevel], ...]

    def within(self, beats: Fraction) -> Iterator[tuple[Fraction, ClickLevel]]:
        """Yield every click of the first so many beats."""
        if not self.clicks:
            return
        start = Fraction(0)
        while True:
            for position, level in self.clicks:
                if start + position >= beats:
                    return
                yield start + position, level
            start += self.length
