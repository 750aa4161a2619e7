"""Strings: how the pick crosses them, which finger plays twice in a row, and how far the hand travels.

From a stroke to one on another string the pick goes *outside* where it has to go round both (down on the thicker one,
up on the thinner), *inside* where it stays between them, and *on* where it goes through both in one way (DOMAIN §14).
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from ripresa.core.grid import Event
from ripresa.core.reading import Reading

_FINGERS = set("pimac")


@dataclass(frozen=True, slots=True)
class Crossings:
    """How often the pick changes strings in a turn; from its last note to its first the hand goes back by itself.

    Args:
        outside, inside: With the stroke turning round. swept: In one way, which saves a turn of the hand.
        skipped: How many of all pass over a string that does not sound.
    """

    outside: int
    inside: int
    swept: int
    skipped: int

    @property
    def all_of_them(self) -> int:
        """Changes of string."""
        return self.outside + self.inside + self.swept


@dataclass(frozen=True, slots=True)
class Picking:
    """What the fingers of the right hand do in a turn.

    Args:
        twice: Neighbours that one finger plays, one for each pair of places; over the repeat too.
        crossed: Strings that are passed from note to note, altogether.
    """

    twice: tuple[tuple[Event, Event, str], ...]
    crossed: int


@dataclass(frozen=True, slots=True)
class BadSlur:
    """A note that no left hand can slur to as it is written.

    Args:
        why: ``"string"`` where it lies on another string, ``"down"`` where a hammer would have to fall, ``"up"`` where
            a pull would have to rise.
    """

    event: Event
    why: Literal["string", "down", "up"]


def bad_slurs(reading: Reading) -> Iterator[BadSlur]:
    """Yield the slurred notes that a left hand cannot make: across strings, hammered downwards, pulled upwards."""
    for before, after in pairwise(reading.notes):
        ornament = after.how.ornament
        if ornament is None or before.pitch is None or after.pitch is None:
            continue
        one, other = _string(before), _string(after)
        rise = after.pitch.midi - before.pitch.midi
        if one is not None and other is not None and one != other:
            yield BadSlur(after, "string")
        elif ornament == "hammer" and rise <= 0:
            yield BadSlur(after, "down")
        elif ornament == "pull" and rise >= 0:
            yield BadSlur(after, "up")


def _string(event: Event) -> int | None:
    """Return the string of a note; None where it is not known."""
    if len(event.how.plucks) == 1:
        return event.how.plucks[0].string
    return event.touch.string if event.touch else None


def crossings(reading: Reading) -> Crossings | None:
    """Return how the pick crosses strings; None where strokes or strings are not known."""
    known = [
        (event.stroke, event.touch.string)
        for event in reading.notes
        if event.stroke in {"D", "U"} and event.touch and event.touch.string is not None
    ]
    if len(known) < 2:
        return None
    counts = {"outside": 0, "inside": 0, "swept": 0}
    skipped = 0
    for (stroke, string), (after, other) in pairwise(known):
        if string == other:
            continue
        skipped += abs(string - other) > 1
        if stroke == after:
            counts["swept"] += 1
        else:
            # Down on the thicker string (the higher number) and up on the thinner: the pick goes round both.
            thicker_first = string > other
            counts["outside" if thicker_first == (stroke == "D") else "inside"] += 1
    return Crossings(counts["outside"], counts["inside"], counts["swept"], skipped)


def picking(reading: Reading) -> Picking | None:
    """Return what the fingers do; None where none are written."""
    struck = [event for event in reading.notes if event.how.plucks]
    if not any(_fingers(event) for event in struck):
        return None
    return Picking(tuple(_twice(struck)), sum(_distance(one, other) for one, other in pairwise(struck)))


def fingers_of(stroke: str) -> list[str]:
    """Return the symbols of a stroke: more than one where fingers strike together."""
    return stroke.split("+") if "+" in stroke and len(stroke) > 1 else [stroke]


def _fingers(event: Event) -> set[str]:
    return set(fingers_of(event.stroke or "")) & _FINGERS


def _twice(struck: Sequence[Event]) -> Iterator[tuple[Event, Event, str]]:
    seen: set[tuple[str, str, str]] = set()
    for before, after in pairwise([*struck, *struck[:1]]):
        for finger in sorted(_fingers(before) & _fingers(after)):
            key = before.count, after.count, finger
            if key not in seen:
                seen.add(key)
                yield before, after, finger


def _distance(before: Event, after: Event) -> int:
    """Return how many strings lie from one note to the next: none where one of them has both."""
    strings = [{pluck.string for pluck in event.how.plucks} for event in (before, after)]
    return min(abs(one - other) for one in strings[0] for other in strings[1])
