"""Count words: what is said on each slot of a beat, in numbers, in syllables, or in the teacher's own words."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction

System = Literal["numbers", "syllables", "ands", "own"]
Runs = Literal["bar", "eight", "phrase"]

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
#: A beat of quarters of the counted note, however many it has: 13/16 goes on to a fifth.
_QUARTERS = (BEAT, "e", "&", "a", "+")
_NUMBER_NAMES = (
    *("five", "six", "seven", "eight", "nine", "ten"),
    *("eleven", "twelve", "thirteen", "fourteen", "fifteen", "sixteen"),
)
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
    "ands": ("on the & only", "What is between the beats is said, the beat itself is felt."),
    "own": ("in your own words", "For each division its words; # is the number of the beat."),
}

#: How far the numbers of the beats go on.
RUNS: dict[Runs, tuple[str, str]] = {
    "bar": ("from 1 in each bar", "The usual count: one hears where the bar begins."),
    "eight": ("on to eight", "Over two bars of four: a longer breath, as dancers count."),
    "phrase": ("on through the phrase", "To the end of the leg: one hears how long it is."),
}
EIGHT = 8


@dataclass(frozen=True, slots=True)
class Counting:
    """A way to count.

    Args:
        system: Numbers, syllables, or own words; a division without words of its own is counted in numbers.
        runs: Whether the numbers of the beats begin again with each bar, after eight, or with each leg.
        own: Words of each division, parted by ``;``: ``"2: # und; 3: # o la"``; ``#`` is the number of the beat.

    Raises:
        Unreadable: Own words that cannot be read; the sentence says which.
        OutOfRange: They are too long.
    """

    system: System = "numbers"
    own: str = ""
    runs: Runs = "bar"

    def __post_init__(self) -> None:
        if len(self.own) > LONGEST_TEXT:
            raise OutOfRange(
                f"Own count words have up to {LONGEST_TEXT} signs, not {len(self.own)}.", field="counting.own"
            )
        if self.system == "own":
            parse_own(self.own)

    @property
    def words(self) -> str:
        """How it counts, in words: ``in syllables, on to eight``."""
        runs = f", {RUNS[self.runs][0]}" if self.runs != "bar" else ""
        return f"{SYSTEMS[self.system][0]}{runs}"

    def word(self, division: Fraction, beat: int, slot: int, span: Fraction | None = None) -> str:
        """Return the word for a slot, empty where nothing is said; for ``span`` see ``count_word``.

        >>> [Counting("syllables").word(Fraction(4), 2, slot) for slot in range(4)]
        ['ta', 'ka', 'di', 'mi']
        >>> Counting("own", "2: # und").word(Fraction(2), 3, 1)
        'und'
        """
        words: tuple[str, ...] | None = None
        if self.system == "ands":
            # The half of the slots that its division shares, whatever it is called.
            return "&" if 2 * slot == division.numerator else ""
        if self.system != "numbers":
            known = SYLLABLES if self.system == "syllables" else parse_own(self.own)
            words = known.get(division.numerator)
        return words[slot].replace(BEAT, str(beat)) if words else count_word(division, beat, slot, span)


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


def count_word(division: Fraction, beat: int, slot: int, span: Fraction | None = None) -> str:
    """Return the word for a slot, in numbers: ``1``, ``&``, ``trip``; from five up ``1 2 3 4 5``.

    Args:
        division: Notes per beat; n/m is n notes in the time of m beats, and is counted as n.
        beat: The beat in its bar, from 1.
        slot: The slot in its beat, from 0.
        span: Beats of the bpm that its slots share. In a beat that a cell made longer or shorter,
            quarters of the counted note stay e & a, and a fifth is ``+``.

    >>> [count_word(Fraction(4), 2, slot) for slot in range(4)]
    ['2', 'e', '&', 'a']
    >>> [count_word(Fraction(5), 3, slot, Fraction(5, 4)) for slot in range(5)]
    ['3', 'e', '&', 'a', '+']
    """
    if slot == 0:
        return str(beat)
    words = _quarters(division, span) or _NUMBERS.get(division.numerator)
    return words[slot] if words else str(slot + 1)


def slot_name(division: Fraction, slot: int, span: Fraction | None = None) -> str:
    """Return how a slot is named so that it cannot be taken for another: ``&``; from five up ``4th of five``.

    Empty on the beat. What spans beats is named with them: ``3rd of 3:2``.

    >>> slot_name(Fraction(4), 2), slot_name(Fraction(5), 3), slot_name(Fraction(3, 2), 2)
    ('&', '4th of five', '3rd of 3:2')
    """
    if slot == 0:
        return ""
    if division.denominator > 1:
        return f"{ordinal(slot + 1)} of {division.numerator}:{division.denominator}"
    words = _quarters(division, span) or _NUMBERS.get(division.numerator)
    return words[slot] if words else f"{ordinal(slot + 1)} of {_NUMBER_NAMES[division.numerator - 5]}"


def place_name(bar: int, beat: int, name: str) -> str:
    """Return a position as it is said: ``bar 2, beat 3, &``; on the beat the slot has no name.

    >>> place_name(2, 3, "&"), place_name(4, 3, "")
    ('bar 2, beat 3, &', 'bar 4, beat 3')
    """
    return f"bar {bar}, beat {beat}" + (f", {name}" if name else "")


def ordinal(number: int) -> str:
    """Return a place in an order: ``2nd``, ``11th``.

    >>> [ordinal(number) for number in (1, 2, 3, 4, 11, 22)]
    ['1st', '2nd', '3rd', '4th', '11th', '22nd']
    """
    ending = "th" if number // 10 % 10 == 1 else {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")
    return f"{number}{ending}"


def _quarters(division: Fraction, span: Fraction | None) -> tuple[str, ...] | None:
    """Return the words of a beat whose length a cell changed; None where it is counted as any other."""
    changed = span is not None and span != division.denominator and 4 * span == division.numerator
    return _QUARTERS if changed and division.numerator <= len(_QUARTERS) else None


def _unreadable(place: int, part: str, why: str) -> Unreadable:
    return Unreadable(f"Part {place} of the count words, “{part.strip()}”, {why}.", field="counting.own")
