"""The shelf: ready drills of our own, one for each pattern, to be taken as a start."""

from ripresa.core.errors import NotFound
from ripresa.core.shelf.entry import AIMS, Shelved
from ripresa.core.shelf.keys import KEYS
from ripresa.core.shelf.layers import LAYERS
from ripresa.core.shelf.lines import LINES
from ripresa.core.shelf.printed import PRINTED
from ripresa.core.shelf.runs import RUNS
from ripresa.core.shelf.strings import STRINGS
from ripresa.core.shelf.strokes import STROKES
from ripresa.core.shelf.telling import FAMILIES, LEVELS, family_of, level_of, what_it_is
from ripresa.core.shelf.time import TIME
from ripresa.core.shelf.winds import WINDS

__all__ = [
    "AIMS",
    "FAMILIES",
    "LEVELS",
    "SHELF",
    "Shelved",
    "family_of",
    "level_of",
    "shelved",
    "what_it_is",
]

SHELF: tuple[Shelved, ...] = RUNS + TIME + STROKES + LINES + LAYERS + KEYS + STRINGS + WINDS + PRINTED


def shelved(key: str) -> Shelved:
    """Return a ready drill by its key.

    Raises:
        NotFound: There is none.
    """
    for one in SHELF:
        if one.key == key:
            return one
    raise NotFound("There is no such drill on the shelf.")
