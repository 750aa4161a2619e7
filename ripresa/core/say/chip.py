"""What was understood of a sentence, and how a drill is changed by it."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ripresa.core.drill import Drill
from ripresa.core.drill.material import ScaleRun
from ripresa.core.exact import Fraction
from ripresa.core.say.words import Word

Change = Callable[[Drill], Drill]
#: Notes a beat of a division, where bpm counts a note of this value.
Division = Callable[[Fraction], Fraction]


@dataclass(frozen=True, slots=True)
class Chip:
    """Words that were understood: where they stand, and what they set.

    Args:
        start, end: Their place in the text. sets: The word before the line that they belong to. says: What they set.
        change: What they do to a drill. rank: What the material is comes before what it has.
        division: A stage that they ask for; None where they ask for none.
    """

    start: int
    end: int
    sets: str
    says: str
    change: Change
    rank: int = 5
    division: Division | None = None


#: How many words are understood together, and as what.
Found = tuple[int, Chip]


@dataclass(frozen=True, slots=True)
class Reader:
    """The words of a sentence, looked at from one of them."""

    words: Sequence[Word]
    at: int

    def text(self, length: int, after: int = 0) -> str:
        """Return so many words as one phrase; empty where there are fewer."""
        if not self.has(after + length - 1):
            return ""
        begin = self.at + after
        return " ".join(word.text for word in self.words[begin : begin + length])

    def has(self, after: int) -> bool:
        """Whether there is a word so many further on."""
        return 0 <= self.at + after < len(self.words)

    def word(self, after: int = 0) -> Word | None:
        """Return the word so many further on, or None."""
        return self.words[self.at + after] if self.has(after) else None

    def is_one(self, after: int, *texts: str) -> bool:
        """Whether the word so many further on is one of these."""
        word = self.word(after)
        return word is not None and word.text in texts

    def number(self, after: int = 0) -> int | None:
        """Return the number that the word so many further on is; None where it is none."""
        word = self.word(after)
        return word.number if word else None

    def ordinal(self, after: int = 0) -> int | None:
        """Return the place that the word so many further on says; None where it says none."""
        word = self.word(after)
        return word.ordinal if word else None

    def chip(
        self, length: int, sets: str, says: str, change: Change, rank: int = 5, division: Division | None = None
    ) -> Found:
        """Return so many words as understood."""
        first, last = self.words[self.at], self.words[self.at + length - 1]
        return length, Chip(first.start, last.end, sets, says, change, rank, division)


def setting(field: str, value: object) -> Change:
    """Return what sets a part of a drill."""
    return lambda drill: replace(drill, **{field: value})  # type: ignore[arg-type]


def of_run(field: str, value: object) -> Change:
    """Return what sets a part of a run; what is no run becomes a scale."""

    def change(drill: Drill) -> Drill:
        material: Any = drill.material if hasattr(drill.material, field) else ScaleRun()
        return replace(drill, material=replace(material, **{field: value}))

    return change


def unchanged(drill: Drill) -> Drill:
    """Return a drill as it is: what the words ask for is worked out from all of them."""
    return drill
