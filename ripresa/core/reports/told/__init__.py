"""What is told of a drill, in sentences: each says numbers that a report found, and finds none itself."""

from collections.abc import Iterator

from ripresa.core.exact import Fraction
from ripresa.core.reading import Reading
from ripresa.core.reports.sums import Sums
from ripresa.core.reports.told.breath import breath_told
from ripresa.core.reports.told.brief import brief, brief_runs
from ripresa.core.reports.told.changed import changed_told
from ripresa.core.reports.told.groups import (
    GroupRow,
    accents_added,
    beats_hit_told,
    group_rows,
    groups_told,
    lead_told,
    starts_told,
    walk_told,
)
from ripresa.core.reports.told.hands import hands_told, neck_told
from ripresa.core.reports.told.layers import enters_told, hits_told
from ripresa.core.reports.told.lines import landings_told, shared_told, statements_told
from ripresa.core.reports.told.paragraph import Paragraph
from ripresa.core.reports.told.rhythm import bar_told, cells_told, numbers_told
from ripresa.core.reports.told.speed import closest_told, gear_told, gear_words, working
from ripresa.core.reports.told.strings import steps_told, strings_told
from ripresa.core.reports.told.two_hands import two_hands_told
from ripresa.core.reports.told.winds import registers_told, tongue_told
from ripresa.core.reports.told.words import Run

__all__ = [
    "GroupRow",
    "Paragraph",
    "Run",
    "accents_added",
    "beats_hit_told",
    "brief",
    "brief_runs",
    "changed_told",
    "closest_told",
    "gear_told",
    "gear_words",
    "group_rows",
    "paragraphs",
    "starts_told",
    "working",
]


def paragraphs(reading: Reading, found: Sums, bpm: Fraction, *, has_rows: bool = False) -> Iterator[Paragraph]:
    """Yield all that is told of a reading beside its table of legs, in the order in which it is shown.

    Args:
        has_rows: Whether groups that run on are shown as ``group_rows``: no paragraph tells them once more.
    """
    yield from two_hands_told(reading, found.against, bpm)
    for group in found.groups:
        if not (has_rows and group.runs_on):
            yield from groups_told(group, reading)
    yield from lead_told(found.leads, reading)
    for walk in found.walks:
        yield walk_told(walk, reading, bpm)
    yield from bar_told(reading, bpm)
    yield from numbers_told(reading)
    yield from cells_told(reading)
    yield from landings_told(reading)
    yield from statements_told(reading)
    yield from shared_told(reading)
    yield from hits_told(reading)
    yield from enters_told(reading)
    yield from hands_told(reading, found, bpm)
    yield from strings_told(reading)
    yield from steps_told(reading)
    yield from neck_told(reading)
    yield from tongue_told(reading, bpm)
    yield from registers_told(reading)
    yield from breath_told(reading, found, bpm)
