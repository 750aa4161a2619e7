"""The shapes of the sums column: the numbers of a drill in rows."""

from ripresa.core.exact import decimal, division_label, label, short
from ripresa.core.reading import Reading, left_divisions
from ripresa.core.reports import GroupRow, Paragraph, Sums, gear_told, gear_words
from ripresa.core.rhythm import GearChange, division_name
from ripresa.web.shapes.sent import Sent


class LegShape(Sent, frozen=True):
    """The numbers of one leg, ready to show; ``is_fastest`` where no other leg is faster.

    ``left`` is the division of the left hand, empty where one hand plays. ``name`` is what the division is called,
    ``apart`` the time from note to note in whole ms. ``missing`` is what lacks to the bar line, ``beats_played`` and
    ``bar_beats`` what that is of, in beats, to be drawn.
    """

    index: int
    division: str
    name: str
    apart: str
    left: str
    nps: str
    gap_ms: str
    notes: int
    beats: str
    bars: str
    seconds: str
    described: str
    fit: str
    beats_played: float
    missing: float
    bar_beats: float
    is_fastest: bool


class GearShape(Sent, frozen=True):
    """A change of division in words."""

    name: str
    words: str
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


class GroupHomeShape(Sent, frozen=True):
    """When the groups of a leg are home; ``starts`` and ``beats`` are beats from its start, to be drawn."""

    on: str
    on_beat: str
    on_bar: str
    stage: str
    starts: list[float]
    beats: float
    also: list[str]


def group_home_shape(row: GroupRow) -> GroupHomeShape:
    """Return when the groups of a leg are home."""
    return GroupHomeShape(
        on=row.on,
        on_beat=row.on_beat,
        on_bar=row.on_bar,
        stage=row.stage,
        starts=list(row.starts),
        beats=row.beats,
        also=list(row.also),
    )


def leg_shapes(found: Sums, reading: Reading) -> list[LegShape]:
    """Return the numbers of each leg."""
    fastest = max(row.nps for row in found.legs)
    return [
        LegShape(
            index=row.leg.index,
            division=division_label(*row.leg.divisions),
            name=division_name(row.leg.divisions, reading.meter.counted),
            apart=" / ".join(decimal(gap * 1000, 0) for gap in row.gaps) + " ms" if row.gaps else "",
            left=division_label(*left_divisions(reading.drill, row.leg)) if reading.other else "",
            nps=short(row.nps),
            gap_ms=" / ".join(decimal(gap * 1000, 1) for gap in row.gaps),
            notes=row.leg.notes,
            beats=label(row.beats),
            bars=label(row.bars),
            seconds=decimal(row.seconds, 1),
            described=row.leg.described,
            fit=row.fit.sentence,
            beats_played=float(row.fit.beats),
            missing=float(row.fit.missing_beats),
            bar_beats=float(reading.meter.bars[0].length),
            is_fastest=row.nps == fastest,
        )
        for row in found.legs
    ]


def gear_shape(change: GearChange) -> GearShape:
    """Return a change of division in words."""
    name, sentence = gear_told(change)
    return GearShape(name=name, words=gear_words(change), sentence=sentence, is_narrow=change.is_narrow)


def home_shape(told: Paragraph) -> HomeShape:
    """Return a paragraph of what is told."""
    return HomeShape(
        title=told.title, sentences=list(told.sentences), starts=told.starts, starts_title=told.starts_title
    )
