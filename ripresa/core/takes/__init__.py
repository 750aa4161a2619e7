"""Takes: what was played against what was due. Matched, measured, let through a gate or not, judged, remedied.

Everything is told of events of the reading; a stand-in player takes the place of a person.
"""

from ripresa.core.takes.beginning import Begun, found_take
from ripresa.core.takes.due import Due, due_notes
from ripresa.core.takes.fault import HAND_WORDS, Fault, FaultKind
from ripresa.core.takes.faults import furthest_limit
from ripresa.core.takes.figures import (
    AccentFigures,
    CornerFigures,
    Dot,
    Figures,
    Furthest,
    HandFigures,
    LandingFigures,
    LegFigures,
    LostBeat,
    PlaceFigures,
    Point,
    SeamFigures,
    SlotFigures,
    TogetherFigures,
)
from ripresa.core.takes.from_file import FromFile, heard_in, judge_file, shortest_gap
from ripresa.core.takes.gate import Offer
from ripresa.core.takes.heading import TakeWord, fault_heading, word_of
from ripresa.core.takes.heard import HeardNote
from ripresa.core.takes.interval import Interval, shown_ms, times_beyond
from ripresa.core.takes.judging import Judged, judge
from ripresa.core.takes.latency import CALIBRATION, measure_latency
from ripresa.core.takes.limits import EVENNESS, LIMITS, But, Evenness, Figure, Limits, asked, asked_in_short
from ripresa.core.takes.match import Match, match_take, match_times
from ripresa.core.takes.player import (
    FAULTS,
    STAND_INS,
    Performed,
    StandIn,
    changed_player,
    delayed,
    parse_faults,
    play,
)
from ripresa.core.takes.remedies import Remedy, heard_fault, remedies
from ripresa.core.takes.slips import misplaced
from ripresa.core.takes.sources import BY_SOUND, SOURCES, Source, usual_sound
from ripresa.core.takes.telling import FAULT_NAMES, fault_name
from ripresa.core.takes.unheard import unheard_words
from ripresa.core.takes.verdict import MARK_WORDS, MARKS, MOST_MEASURED, Mark, Verdict, by_ear, is_by_ear, too_long
from ripresa.core.takes.weak import Weak, pooled_faults

__all__ = [
    "BY_SOUND",
    "CALIBRATION",
    "EVENNESS",
    "FAULTS",
    "FAULT_NAMES",
    "HAND_WORDS",
    "LIMITS",
    "MARKS",
    "MARK_WORDS",
    "MOST_MEASURED",
    "SOURCES",
    "STAND_INS",
    "AccentFigures",
    "Begun",
    "But",
    "CornerFigures",
    "Dot",
    "Due",
    "Evenness",
    "Fault",
    "FaultKind",
    "Figure",
    "Figures",
    "FromFile",
    "Furthest",
    "HandFigures",
    "HeardNote",
    "Interval",
    "Judged",
    "LandingFigures",
    "LegFigures",
    "Limits",
    "LostBeat",
    "Mark",
    "Match",
    "Offer",
    "Performed",
    "PlaceFigures",
    "Point",
    "Remedy",
    "SeamFigures",
    "SlotFigures",
    "Source",
    "StandIn",
    "TakeWord",
    "TogetherFigures",
    "Verdict",
    "Weak",
    "asked",
    "asked_in_short",
    "by_ear",
    "changed_player",
    "delayed",
    "due_notes",
    "fault_heading",
    "fault_name",
    "found_take",
    "furthest_limit",
    "heard_fault",
    "heard_in",
    "is_by_ear",
    "judge",
    "judge_file",
    "match_take",
    "match_times",
    "measure_latency",
    "misplaced",
    "parse_faults",
    "play",
    "pooled_faults",
    "remedies",
    "shortest_gap",
    "shown_ms",
    "times_beyond",
    "too_long",
    "unheard_words",
    "usual_sound",
    "word_of",
]
