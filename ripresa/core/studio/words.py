"""Words that go home with a student, in the teacher's own: a line for each, ``word: what it means``."""

import re
from collections.abc import Iterator
from typing import NamedTuple

from ripresa.core.errors import Unreadable

LONGEST_GLOSSARY, LONGEST_WORD = 8000, 40
#: What a studio begins with.
USUAL_GLOSSARY = """\
accent: a note that is louder than its neighbours
clean: no note left out, none too many, and easy enough to talk meanwhile
click: what the metronome plays; it may leave beats out on purpose
division: how many notes share a beat
fill: notes between the notes that matter
ghost: a note so soft that it is felt more than heard
group: notes that belong together, whatever the beat does
hit: a note that has to land
landing: where a run arrives
leg: a stretch with one division
rung: one tempo of the way up
seam: the change from one stretch to the next
shaky: still uneven: stay there, or go one rung back
swing: the first note of each pair is longer
way in: the steps by which it is learnt
"""


class Meaning(NamedTuple):
    """A word and what it means."""

    word: str
    meaning: str


def parse_glossary(text: str) -> tuple[Meaning, ...]:
    """Return the words of a glossary, in its order.

    Raises:
        Unreadable: A line has no colon, or no word before it.

    >>> parse_glossary("seam: the change")
    (Meaning(word='seam', meaning='the change'),)
    """
    if len(text) > LONGEST_GLOSSARY:
        raise Unreadable(f"The words have up to {LONGEST_GLOSSARY:,} signs, not {len(text):,}.", field="glossary")
    found = []
    for number, line in enumerate(text.splitlines(), start=1):
        if not line.strip():
            continue
        word, colon, meaning = (part.strip() for part in line.partition(":"))
        if not colon or not word or len(word) > LONGEST_WORD or not meaning:
            raise Unreadable(
                f"Line {number}, “{line.strip()[:40]}”, should be a word, a colon and what it means: seam: the change.",
                field="glossary",
            )
        found.append(Meaning(word, meaning))
    return tuple(found)


def words_used(text: str, glossary: tuple[Meaning, ...]) -> Iterator[Meaning]:
    """Yield the words of a glossary that stand in a text, alone or in the plural."""
    for one in glossary:
        if re.search(rf"(?<!\w){re.escape(one.word)}(?:e?s)?(?!\w)", text, re.IGNORECASE):
            yield one
