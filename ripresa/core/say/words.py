"""The words of a sentence as they are typed, dictated or in haste: each with its place, and numbers as figures."""

import re
from dataclasses import dataclass
from difflib import get_close_matches

from ripresa.core.exact import plain_signs

_WORD = re.compile(r"[^\s,;]+")
_UNITS = (
    "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen "
    "seventeen eighteen nineteen"
)
_NUMBERS = {word: number for number, word in enumerate(_UNITS.split())} | {"once": 1, "twice": 2}
_DECADES = "twenty thirty forty fifty sixty seventy eighty ninety"
_TENS = {word: 10 * number for number, word in enumerate(_DECADES.split(), start=2)}
_PLACES = "first second third fourth fifth sixth seventh eighth ninth tenth"
_ORDINALS = {word: number for number, word in enumerate(_PLACES.split(), start=1)}
_ORDINALS |= {"1st": 1, "2nd": 2, "3rd": 3} | {f"{number}th": number for number in range(4, 25)}
_ROMAN = {"i": 1, "ii": 2, "iii": 3, "iv": 4, "v": 5, "vi": 6, "vii": 7, "viii": 8, "ix": 9, "x": 10, "xii": 12}
#: A word of fewer letters is too short for one of them to be wrong.
_LONG_ENOUGH = 5
_NEAR = 0.82


@dataclass(frozen=True, slots=True)
class Word:
    """A word: as it was typed, as it is compared, and where it stands in the sentence."""

    typed: str
    text: str
    start: int
    end: int

    @property
    def number(self) -> int | None:
        """The number that it is, in figures or in words; None where it is none."""
        if self.text.isdigit():
            return int(self.text)
        if self.text in _NUMBERS:
            return _NUMBERS[self.text]
        if self.text in _TENS:
            return _TENS[self.text]
        tens, dash, unit = self.text.partition("-")
        if dash and tens in _TENS and _NUMBERS.get(unit, 10) < 10:
            return _TENS[tens] + _NUMBERS[unit]
        return None

    @property
    def ordinal(self) -> int | None:
        """The place that it says: ``third``, ``5th``, ``V``; None where it says none."""
        return _ORDINALS.get(self.text, _ROMAN.get(self.text) if self.typed.isupper() else None)


def words_of(text: str) -> list[Word]:
    """Return the words of a sentence; “b flat” is one of them, and “eighty four” is.

    >>> [word.text for word in words_of("B flat major, eighty-four; 16ths → 8ths")]
    ['bb', 'major', 'eighty-four', '16ths', '→', '8ths']
    """
    plain = plain_signs(text)
    # Signs that stand for one are as long, so that places stay those of the text.
    source = plain if len(plain) == len(text) else text
    found = [Word(one[0], one[0].lower().strip('.!?:"“”'), one.start(), one.end()) for one in _WORD.finditer(source)]
    joined: list[Word] = []
    for word in (one for one in found if one.text):
        before = joined[-1] if joined else None
        if before and word.text in {"flat", "sharp"} and before.text in set("abcdefg"):
            sign = "b" if word.text == "flat" else "#"
            joined[-1] = Word(f"{before.typed} {word.typed}", before.text + sign, before.start, word.end)
        elif before and before.text in _TENS and 0 < (_NUMBERS.get(word.text, 0)) < 10:
            joined[-1] = Word(f"{before.typed} {word.typed}", f"{before.text}-{word.text}", before.start, word.end)
        else:
            joined.append(word)
    return joined


def corrected(word: Word, known: frozenset[str]) -> Word:
    """Return a word that is misspelt by a letter as the one that was meant; others as they are."""
    if word.text in known or word.number is not None or word.ordinal is not None:
        return word
    meant = near(word.text, known)
    return Word(word.typed, meant[0], word.start, word.end) if meant else word


def near(word: str, known: frozenset[str], count: int = 1) -> list[str]:
    """Return the known words that one may have meant by a word that is misspelt, the nearest first."""
    if len(word) < _LONG_ENOUGH:
        return []
    return get_close_matches(word, sorted(one for one in known if one[0] == word[0]), n=count, cutoff=_NEAR)
