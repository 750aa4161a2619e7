"""A log replayed under other rules than its own."""

from dataclasses import replace
from datetime import tzinfo

from ripresa.core.climbs import Checkpoints, ClimbPlan, rungs
from ripresa.core.plans import (
    LoggedTake,
    WhatIf,
    silent_about,
    what_if,
)
from ripresa.core.reports import peak_of_drill
from ripresa.store import climbs
from ripresa.store.practice import (
    speeds_of,
)
from ripresa.work.days import day_of
from ripresa.work.standing import MOST_TRACED, nps_of


def replayed(climb_id: int, zone: tzinfo | None) -> tuple[str | None, list[tuple[str, bool, WhatIf]], int]:
    """Replay the log of a climb under its own rule and three others, from where it stands; days are those of a zone.

    Returns:
        (why there is nothing, (rule in words, whether it is the present one, how it went) of each, takes of the log).

    Raises:
        NotFound: There is no such climb.
    """
    climb = climbs.find_climb(climb_id)
    peak = peak_of_drill(climb.drill.drill)
    takes = [
        LoggedTake(day_of(one.played_at, zone), float(nps_of(one, peak)), one.mark == "clean")
        for one in speeds_of([climb_id], MOST_TRACED)[climb_id]
    ]
    silent = silent_about(takes)
    here = rungs(climb.plan, peak)[climb.rung - 1]
    if silent is None and (climb.plan.is_without_speed or here.bpm >= climb.plan.goal):
        silent = "The tempo does not rise any more, so that there is nothing to replay."
    if silent is not None:
        return silent, [], len(takes)
    plan = replace(climb.plan, start=here.bpm, clicks=())
    found = []
    for words, other in _others(plan):
        speeds = [float(rung.nps) for rung in rungs(other, peak)]
        found.append((words, other == plan, what_if(takes, other, speeds)))
    return None, found, len(takes)


def _others(plan: ClimbPlan) -> list[tuple[str, ClimbPlan]]:
    ways = [
        (f"{plan.rule.words}, as now", plan),
        ("two up, one back", replace(plan, moving="up_two_back_one")),
        ("one up, two back", replace(plan, moving="staircase")),
        ("few wide checkpoints", replace(plan, rule=Checkpoints(4), moving="stay_until_clean")),
    ]
    return [(words, one) for number, (words, one) in enumerate(ways) if number == 0 or one != plan]
