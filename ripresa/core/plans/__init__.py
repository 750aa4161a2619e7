"""Plans: minutes over days, the tasks of a day, notes a week, and what is to be expected of a log.

Nothing here promises: what comes is told as a range, and nothing is told where a log is too short.
"""

from ripresa.core.plans.days import (
    EARLIEST,
    LATEST,
    WEEKDAYS,
    Days,
    days_between,
    parse_date,
    parse_days,
    told,
    told_days,
)
from ripresa.core.plans.forecast import (
    FEWEST_DAYS,
    FEWEST_TAKES,
    HORIZON,
    CleanTake,
    ExpectedWeek,
    Forecast,
    forecast,
)
from ripresa.core.plans.load import Load
from ripresa.core.plans.spread import DayKind, PlannedDay, PracticePlan, Spread, spread
from ripresa.core.plans.tasks import TASKS, Subject, Task, TaskKind, tasks_of
from ripresa.core.plans.what_if import MODEL, REPLAYS, Climbers, LoggedTake, WhatIf, silent_about, what_if

__all__ = [
    "EARLIEST",
    "FEWEST_DAYS",
    "FEWEST_TAKES",
    "HORIZON",
    "LATEST",
    "MODEL",
    "REPLAYS",
    "TASKS",
    "WEEKDAYS",
    "CleanTake",
    "Climbers",
    "DayKind",
    "Days",
    "ExpectedWeek",
    "Forecast",
    "Load",
    "LoggedTake",
    "PlannedDay",
    "PracticePlan",
    "Spread",
    "Subject",
    "Task",
    "TaskKind",
    "WhatIf",
    "days_between",
    "forecast",
    "parse_date",
    "parse_days",
    "silent_about",
    "spread",
    "tasks_of",
    "told",
    "told_days",
    "what_if",
]
