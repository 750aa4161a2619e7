"""What a teacher writes over the notes by hand: fingers of one's own, and where phrases begin."""

import re
from dataclasses import dataclass
from functools import lru_cache

from ripresa.core.errors import Unreadable
from ripresa.core.grid import Touch

LONGEST_FINGERS, LONGEST_PHRASES = 4000, 1000
#: A finger; with strings its place too, ``5:3/2``: string 5, fret 3, finger 2.
_FINGER = re.compile(r"^(?:(?P<string>\d{1,2}):(?P<fret>\d{1,2})(?:/(?P<under>[0-5]))?|(?P<finger>[0-5])|-)$")
_PHRASE = re.compile(r"^(?P<bar>\d{1,5})(?::(?P<beat>\d{1,3})(?::(?P<slot>\d{1,3}))?)?$")


@dataclass(frozen=True, slots=True)
class PhraseStart:
    """Where a phrase begins: bar and beat from 1, slot of the beat from 1."""

    bar: int
    beat: int = 1
    slot: int = 1

    @property
    def text(self) -> str:
        """As it is typed, as short as can be."""
        return (
            f"{self.bar}"
            if self.beat == self.slot == 1
            else (f"{self.bar}:{self.beat}" if self.slot == 1 else f"{self.bar}:{self.beat}:{self.slot}")
        )


@lru_cache(maxsize=64)
def parse_fingers(text: str, field: str = "fingers") -> tuple[Touch | None, ...]:
    """Return the fingers that are typed for the notes of a pass, one after the other; None where one is left as it is.

    Raises:
        Unreadable: A word is no finger.

    >>> [touch and touch.finger for touch in parse_fingers("1 2 - 5:3/2")]
    [1, 2, None, 2]
    """
    found: list[Touch | None] = []
    for place, word in enumerate(text.split(), start=1):
        read = _FINGER.match(word)
        if not read:
            raise Unreadable(
                f"Finger {place}, “{word}”, cannot be read. Write 1 to 5, 0 for an open string, - to leave one as it "
                "is; on strings the place too if you like: 5:3/2 is string 5, fret 3, finger 2.",
                field=field,
            )
        if read["finger"]:
            found.append(Touch(int(read["finger"])))
        elif read["string"]:
            fret = int(read["fret"])
            finger = int(read["under"]) if read["under"] else min(fret, 1)
            found.append(Touch(finger, int(read["string"]), fret, max(1, fret - finger + 1) if finger else 1))
        else:
            found.append(None)
    return tuple(found)


def write_fingers(touches: tuple[Touch | None, ...]) -> str:
    """Return fingers as they are typed; what is left as it is at the end is not written.

    >>> write_fingers(parse_fingers("1 - 5:3/2 - -"))
    '1 - 5:3/2'
    """
    words = [
        "-" if one is None else str(one.finger) if one.string is None else f"{one.string}:{one.fret}/{one.finger}"
        for one in touches
    ]
    while words and words[-1] == "-":
        words.pop()
    return " ".join(words)


@lru_cache(maxsize=64)
def parse_phrases(text: str) -> tuple[PhraseStart, ...]:
    """Return where phrases begin, in order: ``3 5:2`` is bar 3, and bar 5 from beat 2 on.

    Raises:
        Unreadable: A word is no bar.

    >>> [one.text for one in parse_phrases("5:2, 3 7:1:2")]
    ['3', '5:2', '7:1:2']
    """
    found = []
    for word in text.replace(",", " ").split():
        read = _PHRASE.match(word)
        start = PhraseStart(int(read["bar"]), int(read["beat"] or 1), int(read["slot"] or 1)) if read else None
        if start is None or not (start.bar and start.beat and start.slot):
            raise Unreadable(
                f"“{word}” is not where a phrase begins. Write its bar, 3, or bar and beat, 3:2.", field="phrases"
            )
        found.append(start)
    return tuple(sorted(set(found), key=lambda one: (one.bar, one.beat, one.slot)))
