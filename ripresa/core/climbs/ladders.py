"""Click ladders: plans in the order in which a climb passes them, the lowest rungs first."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, TypeVar

from ripresa.core.drill.click import DropOut, NamedClick, Thinned
from ripresa.core.exact import Fraction

Plan = NamedClick | Thinned | DropOut
T = TypeVar("T")
S = TypeVar("S")
MOST_PLANS = 12

Order = Literal["with_tempo", "each_tempo", "at_target"]
ORDERS: dict[Order, tuple[str, str]] = {
    "with_tempo": ("shared out over the tempi", "Ever less help as the tempo rises."),
    "each_tempo": ("all of them at each tempo", "A tempo is left when it stands under every click."),
    "at_target": ("at the target alone", "Up with the first click; at the top the click is taken away step by step."),
}


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


def laid(plans: Sequence[T], tempi: Sequence[S], order: Order) -> tuple[tuple[S, T | None], ...]:
    """Return (tempo, plan) of each rung, in the order in which they are passed; no plan where there are none.

    >>> [plan for _, plan in laid("ABC", [Fraction(60 + n) for n in range(6)], "with_tempo")]
    ['A', 'A', 'B', 'B', 'C', 'C']
    >>> [f"{bpm}{plan}" for bpm, plan in laid("AB", [Fraction(60), Fraction(64)], "each_tempo")]
    ['60A', '60B', '64A', '64B']
    >>> [f"{bpm}{plan}" for bpm, plan in laid("AB", [Fraction(60), Fraction(64)], "at_target")]
    ['60A', '64A', '64B']
    """
    if not plans:
        return tuple((bpm, None) for bpm in tempi)
    match order:
        case "with_tempo":
            # Floored, so that the first click always has the lowest tempo, and the last one the target where it can.
            return tuple((bpm, plans[index * len(plans) // len(tempi)]) for index, bpm in enumerate(tempi))
        case "each_tempo":
            return tuple((bpm, plan) for bpm in tempi for plan in plans)
        case "at_target":
            return (*((bpm, plans[0]) for bpm in tempi), *((tempi[-1], plan) for plan in plans[1:]))
