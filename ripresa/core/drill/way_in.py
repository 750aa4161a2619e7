"""The way in: the steps by which a drill is learnt, in an order that the teacher chooses."""

from typing import Literal

from ripresa.core.drill.hands import ByOrder, ByPlace, Economy, Hands
from ripresa.core.drill.reduce import Reduce

Step = Literal["listen", "say", "body", "hand", "hits", "first_half", "second_half", "whole"]

STEPS: dict[Step, tuple[str, str]] = {
    "listen": ("listen", "Nobody plays. Hear where the beat is, and what falls between."),
    "say": ("say it", "Say the count words aloud in time; the hands rest."),
    "body": ("move", "Only the body moves with the beat while it sounds."),
    "hand": ("the leading hand", "One hand alone; the other keeps its time in silence."),
    "hits": ("the hits", "Only the accented notes; everything between is silence, and stays as long."),
    "first_half": ("the first half", "Up to the middle of each leg."),
    "second_half": ("the second half", "From the middle to the end, in time."),
    "whole": ("everything", "As it is written."),
}
#: Ready orders: key → (name, why, steps).
SCHOOLS: dict[str, tuple[str, str, tuple[Step, ...]]] = {
    "skeleton": (
        "skeleton first",
        "The hits carry the rest: what stands in time early stays in time.",
        ("listen", "say", "hits", "first_half", "second_half", "whole"),
    ),
    "whole": ("whole at once", "For short drills and students who hear well.", ("listen", "whole")),
    "body": (
        "through the body",
        "Voice and feet before hands.",
        ("listen", "say", "body", "hand", "hits", "whole"),
    ),
}


def reduce_of(step: Step, hands: Hands) -> Reduce:
    """Return what is played at a step; those without the instrument sound as a whole."""
    match step:
        case "hits":
            return Reduce("hits")
        case "first_half" | "second_half":
            return Reduce(step)
        case "hand":
            lead = leading(hands)
            return Reduce("hand", lead) if lead else Reduce()
        case _:
            return Reduce()


def leading(hands: Hands) -> str:
    """Return the symbol that strikes first: the leading hand; empty where none are written."""
    if isinstance(hands, ByOrder):
        return hands.cycle[0]
    if isinstance(hands, ByPlace | Economy):
        return "D" if hands.lead == "down" else "U"
    return ""
