"""Reduce without cutting time: what is left out keeps its length, and everything arrives where it did."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ripresa.core.drill.hits import Hits, is_hit
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.grid import AS_WRITTEN, Event, LegReading, altered
from ripresa.core.rhythm import Meter

Reduction = Literal[
    "everything",
    "hits",
    "between",
    "first_half",
    "second_half",
    "first_bars",
    "second_bars",
    "hand",
    "in_turn",
    "composite",
    "burst",
]

REDUCTIONS: dict[Reduction, tuple[str, str]] = {
    "everything": ("everything", "As it is written."),
    "hits": (
        "the hits alone",
        "The layer of hits, or the accented notes; what is between them keeps its time in silence.",
    ),
    "between": ("what is between the hits", "The other half of it: the hits are heard inside."),
    "first_half": ("the first half of each leg", "Then silence, as long as the second half."),
    "second_half": ("the second half of each leg", "The first half goes by in silence."),
    "first_bars": ("the first half of its bars", "Whole bars of each leg; of three the first two, then silence."),
    "second_bars": ("the second half of its bars", "Whole bars of each leg; of three the last one."),
    "hand": ("one hand alone", "The other one rests, and its notes keep their places."),
    "in_turn": ("the hands in turn", "Bar by bar, the right one first: where one rests, the other plays."),
    "composite": ("what both hands strike, in one", "The rhythm of the two together, tapped with one hand."),
    "burst": ("bursts with a rest as long", "A few beats to the note that they arrive on, then silence as long."),
}
LONGEST_SYMBOL, LONGEST_BURST = 4, 64
NO_HITS = Hits()


@dataclass(frozen=True, slots=True)
class Reduce:
    """Which notes are played.

    Args:
        part: Everything, the hits, what is between, half of each leg or of its bars, one hand, two hands bar by bar, or
            both in one.
        hand: With ``"hand"``: its symbol, ``R``, ``D``, ``T``.
        beats: With ``"burst"``: how many beats of the meter sound before they rest, 1 to 64.

    Raises:
        OutOfRange: One hand alone, and it is not said which; a burst of no length.
    """

    part: Reduction = "everything"
    hand: str = ""
    beats: int = 1

    def __post_init__(self) -> None:
        if len(self.hand) > LONGEST_SYMBOL or (self.part == "hand" and not self.hand.strip()):
            raise OutOfRange("Say which hand plays alone by its symbol: R, D, T.", field="reduce.hand")
        if not 1 <= self.beats <= LONGEST_BURST:
            raise OutOfRange(f"A burst lasts 1 to {LONGEST_BURST} beats.", field="reduce.beats")

    def plays(self, event: Event, leg: LegReading, meter: Meter, hits: Hits) -> bool:
        """Return whether a note is played; its middle is that of the pass of its leg."""
        match self.part:
            case "everything":
                return True
            case "hits":
                return is_hit(event, hits)
            case "between":
                return not is_hit(event, hits)
            case "first_half":
                return event.onset < _middle(leg)
            case "second_half":
                return event.onset >= _middle(leg)
            case "first_bars" | "second_bars":
                return (event.bar < _middle_bar(leg, meter)) == (self.part == "first_bars")
            case "hand":
                return self.hand in (event.stroke, event.hand)
            case "in_turn":
                return (event.bar % 2 == 0) == (event.hand == "L")
            case "composite":
                return True
            case "burst":
                # The note that it arrives on is the goal of it, so that it sounds too.
                return meter.beats_passed(event.onset) % (2 * self.beats) <= self.beats


def reduced(
    events: Sequence[Event],
    reduce: Reduce,
    legs: Sequence[LegReading],
    meter: Meter,
    hits: Hits = NO_HITS,
    hands_from: int = 1,
    *,
    swings: bool = False,
) -> tuple[Event, ...]:
    """Return the events with what is not played silenced; onsets and lengths stay as they are.

    Args:
        hits: The layer of hits, whose fills may leave notes out. hands_from: The bar in which the hands enter.
        swings: Whether the hands go by place, so that they swing on in the air between the hits.
    """
    empty = hits.silent(events)
    if reduce.part in {"everything", "composite"} and not empty and hands_from == 1:
        return tuple(events)
    found: list[Event] = []
    silent = False
    for number, event in enumerate(events):
        if event.kind == "note":
            played = reduce.plays(event, legs[event.leg], meter, hits)
            silent = not played or number in empty or event.bar < hands_from
        elif event.kind != "hold":
            silent = False
        if silent and event.kind in {"note", "hold"}:
            in_the_air = swings and event.bar >= hands_from and (number in empty or reduce.part in _LAYERS)
            event = _silenced(event, event.stroke if in_the_air else None)
        found.append(event)
    return tuple(found)


#: Parts of a drill between whose notes an arm that goes by place swings on.
_LAYERS: tuple[Reduction, ...] = ("hits", "between")


def _silenced(event: Event, stroke: str | None) -> Event:
    return altered(
        event,
        kind="air" if stroke else "rest",
        pitch=None,
        chord=None,
        stroke=stroke,
        touch=None,
        slurred=False,
        accent="plain",
        how=AS_WRITTEN,
        hit=None,
    )


def _middle_bar(leg: LegReading, meter: Meter) -> int:
    """Return the bar with which the second half of the bars of a leg begins; the first half is the longer one."""
    first, last = (meter.place(at)[0] for at in (leg.start, leg.start + leg.last[0]))
    return first + (last - first) // 2 + 1


def _middle(leg: LegReading) -> Fraction:
    return leg.start + leg.pass_beats / 2
