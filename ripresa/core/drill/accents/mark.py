"""How a note is stressed, and which group it belongs to."""

from typing import NamedTuple

from ripresa.core.rhythm import Level


class Mark(NamedTuple):
    """How loud a note is, and which one of which group.

    Args:
        level: One of three. group: Number of its group in its leg, from 0; None where there are no groups.
        number: Which note of its group it is, from 1: a group that runs on into another leg goes on counting.
    """

    level: Level
    group: int | None = None
    number: int | None = None


PLAIN = Mark("plain")
ACCENT = Mark("accent")
