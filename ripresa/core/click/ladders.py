"""Click ladders: plans in the order in which a climb passes them, the lowest rungs first."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import TypeVar

from ripresa.core.click.made import DropOut, Thinned
from ripresa.core.click.plans import NamedClick

Plan = NamedClick | Thinned | DropOut
T = TypeVar("T")
MOST_PLANS = 12


@dataclass(frozen=True, slots=True)
class ClickLadder:
    """A ready order: its name, why one would choose it, and its plans."""

    name: str
    why: str
    plans: tuple[Plan, ...]


def _named(*keys: str) -> tuple[Plan, ...]:
    return tuple(NamedClick(plan=key) for key in keys)


CLICK_LADDERS: dict[str, ClickLadder] = {
    "thin_out": ClickLadder(
        "thinning out",
        "Ever fewer clicks: more and more is kept alone as the tempo rises.",
        _named("every_beat", "two_and_four", "every_bar", "every_2_bars", "every_4_bars"),
    ),
    "backbeat": ClickLadder(
        "the backbeat early",
        "2 and 4 from the second step on: the student places the 1.",
        (*_named("every_beat", "two_and_four", "off_beats"), DropOut(2, 2)),
    ),
    "shift": ClickLadder(
        "shifting",
        "The click moves off the beat, to the & and then to the e and the a.",
        (*_named("every_beat", "off_beats"), Thinned(by=Fraction(1, 4)), Thinned(by=Fraction(3, 4))),
    ),
}


def due(plans: Sequence[T], rung: int, rungs: int) -> T | None:
    """Return the plan of a rung, from 1: the plans share the rungs evenly, in order; None where there are none.

    >>> [due("ABC", rung, 6) for rung in range(1, 7)]
    ['A', 'A', 'B', 'B', 'C', 'C']
    """
    return plans[(rung - 1) * len(plans) // rungs] if plans else None
