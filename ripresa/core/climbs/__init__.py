"""Climbs: from a tempo to a target by rungs, and when to go up, stay or go back.

The rule is stated before the try, and the teacher's word overrules it.
"""

from ripresa.core.climbs.bare import MOST_RUNGS, Bare
from ripresa.core.climbs.deciding import Decision, Word, beside, decide, run_of
from ripresa.core.climbs.ladders import CLICK_LADDERS, ORDERS, ClickLadder, Order, laid
from ripresa.core.climbs.moving import MOVINGS, PACES, Moving, Paces, moving_sentence
from ripresa.core.climbs.plan import ClimbPlan
from ripresa.core.climbs.presets import PRESETS, Level, Preset
from ripresa.core.climbs.rules import (
    NEVER_FALLS,
    RULES,
    Bursts,
    Checkpoints,
    DivideThenRaise,
    EvenSteps,
    PerCent,
    RungRule,
    ZigZag,
    rule_sentence,
)
from ripresa.core.climbs.rungs import (
    LaidRungs,
    Rung,
    Step,
    exact_steps,
    laid_rungs,
    rung_of,
    rungs,
    tempi,
    with_clicks,
)
from ripresa.core.climbs.speed_map import Place, Played, SpeedMap, speed_map
from ripresa.core.climbs.targets import (
    TARGETS,
    BandTarget,
    BpmTarget,
    HeartTarget,
    HitList,
    SpeedTarget,
    SteadyTarget,
    Target,
    is_without_speed,
    usual_target,
)

__all__ = [
    "CLICK_LADDERS",
    "MOST_RUNGS",
    "MOVINGS",
    "NEVER_FALLS",
    "ORDERS",
    "PACES",
    "PRESETS",
    "RULES",
    "TARGETS",
    "BandTarget",
    "Bare",
    "BpmTarget",
    "Bursts",
    "Checkpoints",
    "ClickLadder",
    "ClimbPlan",
    "Decision",
    "DivideThenRaise",
    "EvenSteps",
    "HeartTarget",
    "HitList",
    "LaidRungs",
    "Level",
    "Moving",
    "Order",
    "Paces",
    "PerCent",
    "Place",
    "Played",
    "Preset",
    "Rung",
    "RungRule",
    "SpeedMap",
    "SpeedTarget",
    "SteadyTarget",
    "Step",
    "Target",
    "Word",
    "ZigZag",
    "beside",
    "decide",
    "exact_steps",
    "is_without_speed",
    "laid",
    "laid_rungs",
    "moving_sentence",
    "rule_sentence",
    "run_of",
    "rung_of",
    "rungs",
    "speed_map",
    "tempi",
    "usual_target",
    "with_clicks",
]
