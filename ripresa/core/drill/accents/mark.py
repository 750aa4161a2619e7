"""How a note is stressed, and which group it belongs to."""

from typing import NamedTuple

from ripresa.core.rhythm import Level


class Mark(NamedTuple):
    """One of three levels, and the number of the group in its leg, from 0; None where there are no groups."""

    level: Level
    group: int | None = None


PLAIN = Mark("plain")
ACCENT = Mark("accent")
