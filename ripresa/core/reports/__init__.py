"""Reports: every number and sentence that is told of a drill.

All of them are worked out from the events of the reading, never beside it by a formula; what goes round is read for as
many turns as it takes to come home.
"""

from ripresa.core.reports.breath import (
    Breath,
    RungBreath,
    breath_plan,
    breath_sums,
    breaths_by_rung,
    slowest_of_one_breath,
)
from ripresa.core.reports.click import ClickFigures, click_figures, click_report, off_the_beat
from ripresa.core.reports.dial import Dial, dial, drift_heard, named
from ripresa.core.reports.endings import Ending, Landing, Statement, ending, landings, statements
from ripresa.core.reports.groups import Groups, Home, Start, groups
from ripresa.core.reports.layout import Keys, Neck, keys, names, necks
from ripresa.core.reports.lead import LeadHome, lead_homes
from ripresa.core.reports.motion import loads, motions
from ripresa.core.reports.registers import Break, breaks, sounding_key, sounding_pitch
from ripresa.core.reports.small import Asked, SmallSums, small_sums
from ripresa.core.reports.speed import Speeds, pace_changes, peak_of, peak_of_drill, speeds
from ripresa.core.reports.strings import Crossings, Picking, crossings, picking
from ripresa.core.reports.sums import Sums, Warned, WarnedOf, sums, warned, warnings
from ripresa.core.reports.told import (
    GroupRow,
    Paragraph,
    Run,
    accents_added,
    brief,
    brief_runs,
    changed_told,
    closest_told,
    gear_told,
    gear_words,
    group_rows,
    paragraphs,
    starts_told,
    working,
)
from ripresa.core.reports.two_hands import Against, Thumbs, against, thumbs
from ripresa.core.reports.walk import WalkHome, walk_homes

__all__ = [
    "Against",
    "Asked",
    "Break",
    "Breath",
    "ClickFigures",
    "Crossings",
    "Dial",
    "Ending",
    "GroupRow",
    "Groups",
    "Home",
    "Keys",
    "Landing",
    "LeadHome",
    "Neck",
    "Paragraph",
    "Picking",
    "Run",
    "RungBreath",
    "SmallSums",
    "Speeds",
    "Start",
    "Statement",
    "Sums",
    "Thumbs",
    "WalkHome",
    "Warned",
    "WarnedOf",
    "accents_added",
    "against",
    "breaks",
    "breath_plan",
    "breath_sums",
    "breaths_by_rung",
    "brief",
    "brief_runs",
    "changed_told",
    "click_figures",
    "click_report",
    "closest_told",
    "crossings",
    "dial",
    "drift_heard",
    "ending",
    "gear_told",
    "gear_words",
    "group_rows",
    "groups",
    "keys",
    "landings",
    "lead_homes",
    "loads",
    "motions",
    "named",
    "names",
    "necks",
    "off_the_beat",
    "pace_changes",
    "paragraphs",
    "peak_of",
    "peak_of_drill",
    "picking",
    "slowest_of_one_breath",
    "small_sums",
    "sounding_key",
    "sounding_pitch",
    "speeds",
    "starts_told",
    "statements",
    "sums",
    "thumbs",
    "walk_homes",
    "warned",
    "warnings",
    "working",
]
