"""The shape of a performance: a score in seconds, its tones and clicks in tables."""

from ripresa.core.playing import BackTone, BarSpan, Performance, PulseTick, TimedLead, TimedSaid, TimedTick, TimedTone
from ripresa.formats.wire import WireExact
from ripresa.web.shapes.sent import Sent
from ripresa.web.shapes.table import Table


class ScoreShape(Sent, frozen=True):
    """One turn of the loop in seconds, and the lead before the first; its parts are those of ``Performance``."""

    bpm: WireExact
    loop_seconds: float
    bars: Table[BarSpan]
    tones: Table[TimedTone]
    ticks: Table[TimedTick]
    click_seconds: float
    lead: TimedLead
    yours_from: float | None
    pulse: Table[PulseTick]
    backing: Table[BackTone]
    said: Table[TimedSaid]
    told: list[str]


def score_shape(made: Performance) -> ScoreShape:
    """Return the shape of a performance."""
    return ScoreShape(
        bpm=made.bpm,
        loop_seconds=made.loop_seconds,
        bars=Table(made.bars),
        tones=Table(made.tones),
        ticks=Table(made.ticks),
        click_seconds=made.click_seconds,
        lead=made.lead,
        yours_from=made.yours_from,
        pulse=Table(made.pulse),
        backing=Table(made.backing),
        said=Table(made.said),
        told=list(made.told),
    )
