"""Climbs: from a tempo to a target by rungs, and when to go up, stay or go back.

The rule is stated before the try, and the teacher's word overrules it.
"""

from ripresa.core.climbs.deciding import Decision, Word, beside, decide
from ripresa.core.climbs.ladders import CLICK_LADDERS, ORDERS, ClickLadder, Order, laid
from ripresa.core.climbs.plan import (
    MOST_RUNGS,
    RULES,
    TARGETS,
    BpmTarget,
    ClimbPlan,
    EvenSteps,
    PerCent,
    RungRule,
    SpeedTarget,
    Target,
)
from ripresa.core.climbs.rungs import LaidRungs, Rung, exact_steps, laid_rungs, rung_of, rungs, tempi, with_clicks

__all__ = [
    "CLICK_LADDERS",
    "MOST_RUNGS",
    "ORDERS",
    "RULES",
    "TARGETS",
    "BpmTarget",
    "ClickLadder",
    "ClimbPlan",
    "Decision",
    "EvenSteps",
    "LaidRungs",
    "Order",
    "PerCent",
    "Rung",
    "RungRule",
    "SpeedTarget",
    "Target",
    "Word",
    "beside",
    "decide",
    "exact_steps",
    "laid",
    "laid_rungs",
    "rung_of",
    "rungs",
    "tempi",
    "with_clicks",
]
