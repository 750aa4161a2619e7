"""The way in: the steps by which a drill is learnt, in an order that the teacher chooses."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.drill.hands import Articulated, ByOrder, ByPlace, Economy, Hands, Letters
from ripresa.core.drill.reduce import Reduce
from ripresa.core.rhythm import Counting

Step = Literal[
    "listen",
    "say",
    "body",
    "hand",
    "hits",
    "first_half",
    "second_half",
    "first_bars",
    "second_bars",
    "whole",
    "right",
    "left",
    "in_turn",
    "composite",
    "over_click",
]

STEPS: dict[Step, tuple[str, str]] = {
    "listen": ("listen", "Nobody plays. Hear where the beat is, and what falls between."),
    "say": ("say it", "Say the count words aloud in time; the hands rest."),
    "body": ("move", "Only the body moves with the beat while it sounds."),
    "hand": ("the leading hand", "One hand alone; the other keeps its time in silence."),
    "hits": ("the hits", "Only the accented notes; everything between is silence, and stays as long."),
    "first_half": ("the first half", "Up to the middle of each leg."),
    "second_half": ("the second half", "From the middle to the end, in time."),
    "first_bars": ("the first half of the bars", "Whole bars; of three the first two."),
    "second_bars": ("the second half of the bars", "Whole bars, to the end; of three the last one."),
    "whole": ("everything", "As it is written."),
    "right": ("the right hand", "Alone; its notes keep their time."),
    "left": ("the left hand", "Alone; its notes keep their time."),
    "in_turn": ("the hands in turn", "A bar of the right, a bar of the left."),
    "composite": ("what both strike, with one hand", "Tap the rhythm of the two as one line, and say it."),
    "over_click": (
        "the faster hand over the other’s click",
        "The click plays the slower hand; the faster one meets it.",
    ),
}
#: Steps that two hands alone have.
FOR_TWO_HANDS: tuple[Step, ...] = ("right", "left", "in_turn", "composite", "over_click")
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
    "hands": (
        "hand by hand",
        "Each hand alone until it needs no thought, then bar by bar, then both.",
        ("listen", "right", "left", "in_turn", "whole"),
    ),
    "composite": (
        "the composite first",
        "The rhythm of both hands as one line, tapped with one hand, then shared out.",
        ("listen", "composite", "whole"),
    ),
    "over_click": (
        "one hand over the click of the other",
        "The slower hand is heard as a click until the faster one meets it by itself.",
        ("listen", "over_click", "whole"),
    ),
}


@dataclass(frozen=True, slots=True)
class StageCount:
    """How a step of the way in is counted, if not as the drill is."""

    step: Step
    counting: Counting = Counting()


def reduce_of(step: Step, hands: Hands, faster: str = "R") -> Reduce:
    """Return what is played at a step; those without the instrument sound as a whole.

    Args:
        faster: The hand with more notes a beat, of two.
    """
    match step:
        case "right" | "left":
            return Reduce("hand", "R" if step == "right" else "L")
        case "in_turn" | "composite":
            return Reduce(step)
        case "over_click":
            return Reduce("hand", faster)
        case "hits":
            return Reduce("hits")
        case "first_half" | "second_half" | "first_bars" | "second_bars":
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
    if isinstance(hands, Letters):
        return hands.pattern[0] if hands.pattern else hands.lead
    if isinstance(hands, Articulated):
        return "T"
    if isinstance(hands, ByPlace | Economy):
        return "D" if hands.lead == "down" else "U"
    return ""
