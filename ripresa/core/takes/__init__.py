"""Takes: what was played against what was due. Match, measure, judge; and a player that stands in for a person."""

from ripresa.core.takes.figures import Figures, Interval, LegFigures, SeamFigures, SlotFigures, measure
from ripresa.core.takes.judge import Decision, Mark, Verdict, Word, beside, decide, verdict
from ripresa.core.takes.match import Match, match_onsets
from ripresa.core.takes.standin import StandIn, play

__all__ = [
    "Decision",
    "Figures",
    "Interval",
    "LegFigures",
    "Mark",
    "Match",
    "SeamFigures",
    "SlotFigures",
    "StandIn",
    "Verdict",
    "Word",
    "beside",
    "decide",
    "match_onsets",
    "measure",
    "play",
    "verdict",
]
