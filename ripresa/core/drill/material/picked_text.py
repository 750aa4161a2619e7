"""The words of a picked pattern: which finger takes which string, slot by slot.

``p i m a c`` are the fingers, thumb first; a number after one is its string, ``i3``, else the chord's shape says it.
``p+m`` strikes together. ``bass`` is the thumb on the bass; ``strum`` strikes the whole shape, ``roll`` lets its
strings come one after the other; ``x`` is a damped stroke, ``r`` a rest, ``-`` holds what sounds. ``>`` before a
word is an accent, ``~`` a ghost.
"""

import re
from dataclasses import dataclass
from typing import Literal

from ripresa.core.errors import Unreadable
from ripresa.core.rhythm import Level

FINGERS = "pimac"
LONGEST_PATTERN = 64
_FIELD = "material.pattern"
_ACCENTS: dict[str, Level] = {">": "accent", "~": "ghost"}
_WORD = re.compile(r"^(?P<accent>[>~]?)(?P<word>bass|strum|roll|x|r|-|[pimac]\d?(?:\+[pimac]\d?){0,4})$")

What = Literal["fingers", "strum", "roll", "dead", "rest", "hold"]
_WHOLE: dict[str, What] = {"strum": "strum", "roll": "roll", "x": "dead", "r": "rest", "-": "hold"}


@dataclass(frozen=True, slots=True)
class Pick:
    """One word of a pattern.

    Args:
        what: Fingers, the whole shape struck or rolled, a damped stroke, a rest, or what sounds goes on.
        fingers: (finger, string or None where the shape says it).
        accent: A level that is asked for; None as the drill has it.
        word: As it is typed.
    """

    what: What
    fingers: tuple[tuple[str, int | None], ...] = ()
    accent: Level | None = None
    word: str = ""


def parse_pattern(text: str) -> tuple[Pick, ...]:
    """Return the words of a picked pattern, in order.

    Raises:
        Unreadable: A word cannot be read, one finger is asked for twice at once, or nothing is struck.

    >>> [pick.fingers for pick in parse_pattern("p5 p+m")]
    [(('p', 5),), (('p', None), ('m', None))]
    """
    found = []
    for place, word in enumerate(text.split(), start=1):
        read = _WORD.match(word)
        if not read:
            raise _unreadable(
                place,
                word,
                "is not a finger. Write p i m a, with a string if you like: p5; p+m together, bass, strum, roll, x, r",
            )
        found.append(_pick(read, place, word))
    if not 1 <= len(found) <= LONGEST_PATTERN:
        raise Unreadable(f"A pattern has 1 to {LONGEST_PATTERN} words, not {len(found)}. Write p i m a.", field=_FIELD)
    if all(pick.what in {"rest", "hold"} for pick in found):
        raise Unreadable("A pattern of rests alone strikes nothing. Write at least one finger: p.", field=_FIELD)
    return tuple(found)


def _pick(read: re.Match[str], place: int, word: str) -> Pick:
    accent, name = _ACCENTS.get(read["accent"]), read["word"]
    if name in _WHOLE:
        return Pick(_WHOLE[name], (), accent, name)
    parts = ("p",) if name == "bass" else name.split("+")
    fingers = tuple((part[0], int(part[1:]) if part[1:] else None) for part in parts)
    names, strings = [finger for finger, _ in fingers], [string for _, string in fingers if string is not None]
    if len(set(names)) < len(names) or len(set(strings)) < len(strings):
        raise _unreadable(place, word, "asks one finger or one string for two notes at once")
    if 0 in strings:
        raise _unreadable(place, word, "has no such string: the thinnest is 1")
    return Pick("fingers", fingers, accent, name)


def _unreadable(place: int, word: str, why: str) -> Unreadable:
    return Unreadable(f"Word {place} of the pattern, “{word}”, {why}.", field=_FIELD)
