"""What a rung rule makes: the bare steps of a climb, before a click ladder is laid over them."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import NamedTuple

from ripresa.core.changes import Part
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.rhythm import Settings, setting

MOST_RUNGS = 200


@dataclass(frozen=True, slots=True)
class Bare:
    """One step as a rule sets it.

    Args:
        bpm: The tempo that is set.
        division: All of the drill in so many notes per beat; None as it is written.
        burst: Beats of it that sound, then rest; None is all of it.
        words: What the step is, where no number tells it: ``by heart``.
    """

    bpm: Fraction
    division: Fraction | None = None
    burst: int | None = None
    words: str = ""

    @property
    def part(self) -> Part | None:
        """How the drill is practised on it; None where it is as it is written."""
        if self.division is None and self.burst is None:
            return None
        return Part(only=self.division, burst=self.burst)


class Raised(NamedTuple):
    """Tempi as they are set, and how many steps there would be in exact ones."""

    tempi: tuple[Fraction, ...]
    exact_steps: int


def raised(exact_tempi: Iterator[Fraction], start: Fraction, goal: Fraction, settings: Settings) -> Raised:
    """Return rising tempi as they are set, the last the goal exactly, no two the same setting.

    Args:
        exact_tempi: From the start on, without end.

    Raises:
        OutOfRange: There would be more than 200.
    """
    found: list[Fraction] = [start]
    count = 0
    for count, exact in enumerate(exact_tempi):
        if exact >= goal:
            break
        check_many(count)
        tempo = setting(exact, settings)
        # A small step can end on the setting of the rung before, or of the target: such a rung is none.
        if found[-1] < tempo < goal:
            found.append(tempo)
    # The target stays exact, and a metronome of whole bpm is set to its neighbour: that is not a rung of its own too.
    if setting(found[-1], settings) == setting(goal, settings) and len(found) > 1:
        found.pop()
    return Raised((*found, goal), count)


def check_many(count: int) -> None:
    """Refuse more rungs than a climb may have.

    Raises:
        OutOfRange: There are more than 200.
    """
    if count >= MOST_RUNGS:
        raise OutOfRange(
            f"That makes more than {MOST_RUNGS} rungs. Take larger steps or a nearer target.", field="rule.step"
        )


def at_tempi(tempi: Iterable[Fraction], division: Fraction | None = None) -> tuple[Bare, ...]:
    """Return a bare step at each tempo."""
    return tuple(Bare(bpm, division) for bpm in tempi)
