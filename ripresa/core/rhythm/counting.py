"""Count words: what is said on each slot of a beat, in numbers, in syllables, or in the teacher's own words."""

from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from ripresa.core.errors import OutOfRange, Unreadable

System = Literal["numbers", "syllables", "own"]

LONGEST_TEXT = 600
#: Stands in own words for the number of the beat.
BEAT = "#"
_MOST_SLOTS = 16
_NUMBERS: dict[int, tuple[str, ...]] = {
    1: (BEAT,),
    2: (BEAT, "&"),
    3: (BEAT, "trip", "let"),
    4: (BEAT, "e", "&", "a"),
}
SYLLABLES: dict[int, tuple[str, ...]] = {
    1: ("ta",),
    2: ("ta", "di"),
    3: ("ta", "ki", "da"),
    4: ("ta", "ka", "di", "mi"),
    5: ("ta", "ka", "di", "mi", "ti"),
    6: ("ta", "va", "ki", "di", "da", "ma"),
    7: ("ta", "va", "ki", "di", "da", "ma", "ti"),
    8: ("ta", "ka", "di", "mi", "ta", "ka", "di", "mi"),
}
SYSTEMS: dict[System, tuple[str, str]] = {
    "numbers": ("in numbers", "1 e & a: the beat is always heard."),
    "syllables": ("in syllables", "ta ka di mi: each division has a sound of its own."),
    "own": ("in your own words", "For each division its words; # is the number of the beat."),
}


@dataclass(frozen=True, slots=True)
class Counting:
    """A way to count.

    Args:
        system: Numbers, syllables, or own words; a division without words of its own is counted in numbers.
        own: Words of each division, parted by ``;``: ``"2: # und; 3: # o la"``; ``#`` is the number of the beat.

    Raises:
        Unreadable: Own words that cannot be read; the sentence says which.
        OutOfRange: They are too long.
    """

    system: System = "numbers"
    own: str = ""

    def __post_init__(self) -> None:
        if len(self.own) > LONGEST_TEXT:
            raise OutOfRange(
                f"Own count words have up to {LONGEST_TEXT} signs, not {len(self.own)}.", field="counting.own"
            )
        if self.system == "own":
            parse_own(self.own)

    def word(self, division: Fraction, beat: int, slot: int) -> str:
        """Return the word for a slot.

        >>> [Counting("syllables").word(Fraction(4), 2, slot) for slot in range(4)]
        ['ta', 'ka', 'di', 'mi']
        >>> Counting("own", "2: # und").word(Fraction(2), 3, 1)
        'und'
        """
        words: tuple[str, ...] | None = None
        if self.system != "numbers":
            known = SYLLABLES if self.system == "syllables" else parse_own(self.own)
            words = known.get(division.numerator)
        return words[slot].replace(BEAT, str(beat)) if words else count_word(division, beat, slot)


@lru_cache(maxsize=16)
def parse_own(text: str) -> dict[int, tuple[str, ...]]:
    """Return the words of each division of ``"2: # und; 3: # o la"``.

    Raises:
        Unreadable: A division is not one, comes twice, or has another number of words than slots.
    """
    found: dict[int, tuple[str, ...]] = {}
    for place, part in enumerate((one for one in text.split(";") if one.strip()), start=1):
        head, colon, rest = part.partition(":")
        words = tuple(rest.split())
        if not colon or not head.strip().isdigit() or not 1 <= int(head) <= _MOST_SLOTS:
            raise _unreadable(place, part, "does not begin with its division. Write 2: # und")
        division = int(head)
        if division in found:
            raise _unreadable(place, part, f"is the second one for {division} a beat. Keep one")
        if len(words) != division:
            raise _unreadable(place, part, f"has {len(words)} words for {division} slots. Write one for each")
        found[division] = words
    if not found:
        raise Unreadable("Own count words name a division and its words: 2: # und; 3: # o la.", field="counting.own")
    return found


def count_word(division: Fraction, beat: int, slot: int) -> str:
    """Return the word for a slot, in numbers: ``1``, ``&``, ``trip``; from five up ``1 2 3 4 5``.

    Args:
        division: Notes per beat; n/m is n notes in the time of m beats, and is counted as n.
        beat: The beat in its bar, from 1.
        slot: The slot in its beat, from 0.

    >>> [count_word(Fraction(4), 2, slot) for slot in range(4)]
    ['2', 'e', '&', 'a']
    """
    if slot == 0:
        return str(beat)
    words = _NUMBERS.get(division.numerator)
    return words[slot] if words else str(slot + 1)


def place_name(bar: int, beat: int, word: str) -> str:
    """Return a position as it is said: ``bar 2, beat 3, &``; on the beat the word is left out.

    >>> place_name(2, 3, "&"), place_name(4, 3, "3")
    ('bar 2, beat 3, &', 'bar 4, beat 3')
    """
    name = f"bar {bar}, beat {beat}"
    return name if word == str(beat) else f"{name}, {word}"


def _unreadable(place: int, part: str, why: str) -> Unreadable:
    return Unreadable(f"Part {place} of the count words, “{part.strip()}”, {why}.", field="counting.own")
