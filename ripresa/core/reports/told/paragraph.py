"""A paragraph of what is told."""

from dataclasses import dataclass

from ripresa.core.exact import division_label
from ripresa.core.grid import LegReading
from ripresa.core.reading import Reading


@dataclass(frozen=True, slots=True)
class Paragraph:
    """A heading, its sentences, and a list where one is told, bars parted by ``|``, with the heading of that."""

    title: str
    sentences: tuple[str, ...]
    starts: str = ""
    starts_title: str = "Where every group starts"


def a_beat(leg: LegReading) -> str:
    """Return the divisions of a leg as they are told: ``4 a beat``, ``6+5 a beat``."""
    return f"{division_label(*leg.divisions)} a beat"


def which(leg: LegReading, reading: Reading) -> str:
    """Return what tells a leg from others of the same divisions: ``, leg 2``; nothing where none is like it."""
    first = next(one.index for one in reading.legs if one.divisions == leg.divisions)
    return f", leg {leg.index + 1}" if first != leg.index else ""
