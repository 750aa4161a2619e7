"""Reports: every number and sentence that is told of a drill.

All of them are worked out from the events of the reading, never beside it by a formula; what goes round is read for as
many turns as it takes to come home.
"""

from ripresa.core.reports.breath import breath_marks, breath_sums
from ripresa.core.reports.click import click_report, off_the_beat
from ripresa.core.reports.dial import Dial, dial, drift_heard
from ripresa.core.reports.endings import Statement, ending, statements
from ripresa.core.reports.groups import Landing, landings, note_on_beat, realignment
from ripresa.core.reports.motion import beat_starts, flips, loads, on_numbers, positions, same_way
from ripresa.core.reports.sums import Home, Sums, WalkSums, sums, warnings

__all__ = [
    "Dial",
    "Home",
    "Landing",
    "Statement",
    "Sums",
    "WalkSums",
    "beat_starts",
    "breath_marks",
    "breath_sums",
    "click_report",
    "dial",
    "drift_heard",
    "ending",
    "flips",
    "landings",
    "loads",
    "note_on_beat",
    "off_the_beat",
    "on_numbers",
    "positions",
    "realignment",
    "same_way",
    "statements",
    "sums",
    "warnings",
]
