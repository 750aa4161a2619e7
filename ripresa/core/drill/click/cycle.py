"""The cycle of clicks that a plan comes to."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, NamedTuple

from ripresa.core.exact import Fraction
from ripresa.core.rhythm import Meter

#: A bar, a beat, or a part of a beat.
ClickLevel = Literal["strong", "plain", "division"]


class ClickSlot(NamedTuple):
    """A slot of the drill that a click is laid over: its onset in beats, and whether it sounds.

    ``is_beside``: It is a note of the other hand.
    """

    onset: Fraction
    sounds: bool
    is_beside: bool = False


def level_at(position: Fraction, meter: Meter) -> ClickLevel:
    """Return how a click that divides the beat sounds at a position: strong on a bar line, plain on a beat.

    >>> from ripresa.core.rhythm import METERS
    >>> [level_at(Fraction(n, 2), METERS["4/4"]) for n in (0, 1, 2, 8)]
    ['strong', 'division', 'plain', 'strong']
    """
    _, beat, inside = meter.place(position)
    if inside:
        return "division"
    return "strong" if beat == 1 else "plain"


@dataclass(frozen=True, slots=True)
class ClickCycle:
    """A cycle of clicks.

    Args:
        length: Beats of the bpm until it starts again; a whole number of bars.
        clicks: (position in beats from the cycle's start, level), in order.
    """

    length: Fraction
    clicks: tuple[tuple[Fraction, ClickLevel], ...]

    @property
    def gaps(self) -> tuple[Fraction, ...]:
        """Beats from each click to the next, the last to the first of the next round."""
        positions = [at for at, _ in self.clicks]
        afters = [*positions[1:], *(at + self.length for at in positions[:1])]
        return tuple(after - before for before, after in zip(positions, afters, strict=True))

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
