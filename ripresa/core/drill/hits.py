"""Hits and fills: two layers of their own over the notes, whatever is accented.

A hit is a slot of a layer of its own, full or light. What lies between the hits are the fills, the other layer; section
by section so many of them are played, and the rest keeps its time in silence.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.grid import MOST_BARS_COUNTED, Counted, Event, Hit, altered, counted
from ripresa.core.rhythm import Meter, Swing, parse_named

LONGEST_TEXT = 2000
MOST_SECTIONS, MOST_FILLS, MOST_BARS = 64, 400, 16
#: How much more each section plays than the one before: our choice, a third.
_GROWS = Fraction(4, 3)

From = Literal["end", "start"]
FROMS: dict[From, tuple[str, str]] = {
    "end": ("up to the next section", "The last ones before it: the fill leads into the hit that follows."),
    "start": ("from its first note on", "The first ones after the hit, then silence."),
}


@dataclass(frozen=True, slots=True)
class Hits:
    """Which slots are hits, and how many of the notes between them are played.

    Args:
        text: A count of one bar or more that begins again by itself: ``"1 a | 3 ~&"``; ``~`` is a light hit. Empty
            for no layer of its own: then the accented notes are the hits.
        fills: How many notes between the hits each section plays, in order; it begins again after the last.
            Empty for all of them.
        bars: Bars of a section, 1 to 16.
        filled: Which of them are played.
        again: Bars after which the count begins again, where it says fewer, 0 to 128; 0 for as many as it says.

    Raises:
        Unreadable: A word cannot be read.
        OutOfRange: It is too long, or a number is outside its range.
    """

    text: str = ""
    fills: tuple[int, ...] = ()
    bars: int = 1
    filled: From = "end"
    again: int = 0

    def __post_init__(self) -> None:
        if len(self.text) > LONGEST_TEXT:
            raise OutOfRange(f"Hits have up to {LONGEST_TEXT} signs, not {len(self.text)}.", field="hits.text")
        if self.text.strip():
            parse_named(self.text, "the hits", "hits.text")
        if len(self.fills) > MOST_SECTIONS or any(not 0 <= count <= MOST_FILLS for count in self.fills):
            raise OutOfRange(
                f"Fills are up to {MOST_SECTIONS} numbers of 0 to {MOST_FILLS} notes, one for each section: 5 6 8 11.",
                field="hits.fills",
            )
        if not 1 <= self.bars <= MOST_BARS:
            raise OutOfRange(f"A section has 1 to {MOST_BARS} bars, not {self.bars}.", field="hits.bars")
        if not 0 <= self.again <= MOST_BARS_COUNTED:
            raise OutOfRange(
                f"Hits begin again after up to {MOST_BARS_COUNTED} bars, not {self.again}.", field="hits.again"
            )

    @property
    def is_written(self) -> bool:
        """Whether there is a layer of hits of its own."""
        return bool(self.text.strip())

    def laid(self, meter: Meter, swing: Swing) -> Counted:
        """Return the hits over the bars of a meter, where the notes of a swing fall.

        Raises:
            OutOfRange: They have a beat that the meter does not have.
        """
        return counted(self.text, meter, "the layer of hits", "hits.text", swing, self.again)

    def hitting(self, events: Sequence[Event], meter: Meter, swing: Swing) -> tuple[Event, ...]:
        """Return events with their hits: notes that begin where a hit is written."""
        if not self.is_written:
            return tuple(events)
        laid = self.laid(meter, swing)
        weights: dict[Fraction, Hit] = {at: "light" if level == "ghost" else "full" for at, level in laid.marks}
        return tuple(
            altered(event, hit=weights[event.onset % laid.length])
            if event.kind == "note" and event.onset % laid.length in weights
            else event
            for event in events
        )

    def silent(self, events: Sequence[Event]) -> frozenset[int]:
        """Return the numbers of the notes between the hits that are not played, by their places in ``events``."""
        if not self.fills:
            return frozenset()
        sections: dict[int, list[int]] = {}
        for number, event in enumerate(events):
            if event.kind == "note" and not is_hit(event, self):
                sections.setdefault((event.bar - 1) // self.bars, []).append(number)
        found: set[int] = set()
        for section, numbers in sections.items():
            played = self.fills[section % len(self.fills)]
            rest = max(0, len(numbers) - played)
            found.update(numbers[:rest] if self.filled == "end" else numbers[len(numbers) - rest :])
        return frozenset(found)


def is_hit(event: Event, hits: Hits) -> bool:
    """Return whether a note is a hit: of the layer where one is written, else by its accent."""
    return event.hit is not None if hits.is_written else event.accent == "accent"


def grown(total: int, sections: int) -> tuple[int, ...]:
    """Return fills that grow by a third from section to section and make so many notes together.

    The largest remainders round up, so that none is lost.

    Raises:
        OutOfRange: No section, or more than there may be.

    >>> grown(30, 4), sum(grown(30, 4))
    ((5, 6, 8, 11), 30)
    """
    if not 1 <= sections <= MOST_SECTIONS:
        raise OutOfRange(f"Fills grow over 1 to {MOST_SECTIONS} sections, not {sections}.", field="hits.fills")
    parts = [_GROWS**number for number in range(sections)]
    exact = [total * part / sum(parts) for part in parts]
    whole = [int(one) for one in exact]
    by_rest = sorted(range(sections), key=lambda number: exact[number] - whole[number], reverse=True)
    for number in by_rest[: total - sum(whole)]:
        whole[number] += 1
    return tuple(whole)
