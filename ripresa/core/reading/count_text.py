"""A rhythm written as a count: the way back from a reading to words that can be typed."""

import re
from collections.abc import Iterable
from itertools import groupby

from ripresa.core.grid import Event
from ripresa.core.rhythm import Level, slot_word

_BARE = re.compile(r"^([>~x-]?\(?\d{1,2})(\)?)$")
_NUMBER = re.compile(r"^[>~x-]?\(?\d")
_SIGNS: dict[Level, str] = {"accent": ">", "ghost": "~", "plain": ""}


def count_text(events: Iterable[Event]) -> str | None:
    """Return the count of some events, with bar lines; None where it cannot be typed (slots that span beats).

    A silence is said where it begins, and on every beat that it goes through.

    >>> from fractions import Fraction
    >>> from ripresa.core.drill import Drill, Leg
    >>> from ripresa.core.drill.material import Count
    >>> from ripresa.core.reading.reading import read
    >>> count_text(read(Drill(material=Count("1 & a 2 (3) 4 trip let"), legs=(Leg(Fraction(1)),))).events)
    '>1 & a >2 (3) >4 trip let'
    """
    bars = []
    silent = False
    for _, inside in groupby(events, key=lambda event: event.bar):
        words: list[str] = []
        beat = 0
        for event in inside:
            begins = event.kind == "note" or (event.kind != "hold" and (event.slot == 0 or not silent))
            silent = event.kind in {"rest", "air"} or (silent and event.kind == "hold")
            if not begins:
                continue
            if event.slot and event.division.denominator > 1:
                return None
            if event.slot and event.beat != beat:
                # The beat itself is held over; its number is needed all the same.
                words.append("-" + slot_word(event.division, event.beat, 0))
            words.append(_word(event))
            beat = event.beat
        bars.append(" ".join(words))
    return " | ".join(bars)


def on_grid(text: str, division: int) -> str:
    """Return a count whose bare beats name a division, so that each of its places can be pressed.

    >>> on_grid("1 2 & (3) | >1", 4)
    '1/4 2 & (3/4) | >1/4'
    """
    words = text.replace("|", " | ").split()
    found = []
    for word, after in zip(words, [*words[1:], "|"], strict=True):
        is_bare = bool(_BARE.match(word)) and (after == "|" or bool(_NUMBER.match(after)))
        found.append(_BARE.sub(rf"\g<1>/{division}\g<2>", word) if is_bare else word)
    return " ".join(found)


def _word(event: Event) -> str:
    word = slot_word(event.division, event.beat, event.slot)
    if event.kind != "note":
        return f"({word})"
    return ("x" if event.how.dead else _SIGNS[event.accent]) + word
