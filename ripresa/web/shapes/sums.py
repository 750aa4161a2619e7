"""The shapes of the sums column: the numbers of a drill in rows."""

from ripresa.core.exact import decimal, division_label, label, short
from ripresa.core.reading import Reading, left_divisions
from ripresa.core.reports import Paragraph, Sums, gear_told
from ripresa.core.rhythm import GearChange
from ripresa.web.shapes.sent import Sent


class LegShape(Sent, frozen=True):
    """The numbers of one leg, ready to show; ``is_fastest`` where no other leg is faster.

    ``left`` is the division of the left hand, empty where one hand plays.
    """

    index: int
    division: str
    left: str
    nps: str
    gap_ms: str
    notes: int
    beats: str
    bars: str
    seconds: str
    described: str
    fit: str
    is_fastest: bool


class GearShape(Sent, frozen=True):
    """A change of division in words."""

    name: str
    sentence: str
    is_narrow: bool


class TwinShape(Sent, frozen=True):
    """The same speed at another division."""

    division: str
    bpm: str


class HomeShape(Sent, frozen=True):
    """What is told of a drill beside its legs: a heading, sentences, and where something starts."""

    title: str
    sentences: list[str]
    starts: str
    starts_title: str


def leg_shapes(found: Sums, reading: Reading) -> list[LegShape]:
    """Return the numbers of each leg."""
    fastest = max(row.nps for row in found.legs)
    return [
        LegShape(
            index=row.leg.index,
            division=division_label(*row.leg.divisions),
            left=division_label(*left_divisions(reading.drill, row.leg)) if reading.other else "",
            nps=short(row.nps),
            gap_ms=" / ".join(decimal(gap * 1000, 1) for gap in row.gaps),
            notes=row.leg.notes,
            beats=label(row.beats),
            bars=label(row.bars),
            seconds=decimal(row.seconds, 1),
            described=row.leg.described,
            fit=row.fit.sentence,
            is_fastest=row.nps == fastest,
        )
        for row in found.legs
    ]


def gear_shape(change: GearChange) -> GearShape:
    """Return a change of division in words."""
    name, sentence = gear_told(change)
    return GearShape(name=name, sentence=sentence, is_narrow=change.is_narrow)


def home_shape(told: Paragraph) -> HomeShape:
    """Return a paragraph of what is told."""
    return HomeShape(
        title=told.title, sentences=list(told.sentences), starts=told.starts, starts_title=told.starts_title
    )
