"""Takes: what was played against what was due. Match, measure, judge; and a player that stands in for a person."""

from ripresa.core.takes.figures import Figures, Interval, LegFigures, SeamFigures, SlotFigures, measure
from ripresa.core.takes.latency import CALIBRATION, measure_latency
from ripresa.core.takes.match import Match, match_onsets
from ripresa.core.takes.standin import STAND_INS, StandIn, play
from ripresa.core.takes.verdict import (
    EVENNESS,
    MOST_MEASURED,
    SOURCES,
    Evenness,
    Mark,
    Source,
    Verdict,
    by_ear,
    spread_limit,
    too_long,
    verdict,
)

__all__ = [
    "CALIBRATION",
    "EVENNESS",
    "MOST_MEASURED",
    "SOURCES",
    "STAND_INS",
    "Evenness",
    "Figures",
    "Interval",
    "LegFigures",
    "Mark",
    "Match",
    "SeamFigures",
    "SlotFigures",
    "Source",
    "StandIn",
    "Verdict",
    "by_ear",
    "match_onsets",
    "measure",
    "measure_latency",
    "play",
    "spread_limit",
    "too_long",
    "verdict",
]
