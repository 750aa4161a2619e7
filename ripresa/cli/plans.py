"""The commands of climbs and plans: climb, breath, plan, forecast."""

import argparse
from dataclasses import replace
from datetime import date
from typing import Any

from ripresa.cli.files import amount, amounts, bytes_of, counts, show
from ripresa.core.climbs import RULES, BpmTarget, ClimbPlan, rungs, tempi
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.plans import parse_date
from ripresa.core.reading import read
from ripresa.core.rhythm import check_bpm
from ripresa.formats.drill_file import read_drill
from ripresa.formats.forecast_json import forecast_schema, forecast_values
from ripresa.formats.hands_json import rung_breaths
from ripresa.formats.log_csv_in import read_log
from ripresa.formats.plan_file import plan_schema, planned_schema, read_plan, spread_values
from ripresa.formats.reading_json import climb_schema, rung_values
from ripresa.work.days import local_now

_OF_A_RULE = ("step", "back", "count", "divisions", "beats")


def add_commands(commands: Any) -> None:
    """Add the commands to a parser."""
    climb = commands.add_parser("climb", help="print the rungs of a climb as JSON")
    breath = commands.add_parser("breath", help="print where to breathe in a drill file at each rung, as JSON")
    breath.add_argument("drill", help="a drill file, or - for standard input")
    for command in (climb, breath):
        command.add_argument("--from", dest="start", type=amount, required=True, help="start tempo in bpm")
        command.add_argument("--to", type=amount, required=True, help="target tempo in bpm")
        command.add_argument("--rule", choices=tuple(one.value for one in RULES), default="percent")
        command.add_argument("--step", type=amount, help="per cent (4), or bpm: even steps 4, zigzag 8, divide 4")
        command.add_argument("--back", type=amount, help="bpm back in turn, of a zigzag (4)")
        command.add_argument("--count", type=int, help="checkpoints, the start and the target among them (5)")
        command.add_argument("--divisions", type=amounts, help="notes per beat to pass first, of divide (2,3,4)")
        command.add_argument("--beats", type=counts, help="lengths of bursts in beats (1,2,4,8)")
        command.add_argument("--settings", choices=("whole", "halves", "numbered"), default="whole")
    breath.set_defaults(run=_breath)
    climb.add_argument("--division", type=amount, default=amount("4"), help="notes per beat, for the speeds")
    climb.set_defaults(run=_climb)

    planned = commands.add_parser("plan", help="spread the minutes of a plan file over its days, as JSON")
    planned.add_argument("plan", help="a plan file, or - for standard input")
    planned.set_defaults(run=_planned)

    expected = commands.add_parser("forecast", help="print the speed to expect from a log as CSV, as JSON")
    expected.add_argument("log", help="a log, as “Save as CSV” writes it, or - for standard input")
    expected.add_argument("--at", type=_day, help="from which day on (2026-11-25); the last take’s if left out")
    expected.add_argument("--student", help="whose log, where it names several")
    expected.set_defaults(run=_forecast)

    schema = commands.add_parser("plan-schema", help="print the JSON Schemas of a plan file, a plan, a forecast, rungs")
    schema.set_defaults(run=_schema)


def plan_schemas() -> dict[str, Any]:
    """Return the schemas of what these commands take and print."""
    return {
        "plan": plan_schema(),
        "planned": planned_schema(),
        "forecast": forecast_schema(),
        "climb": climb_schema(),
    }


def _climb(chosen: argparse.Namespace) -> None:
    if chosen.division <= 0:
        raise OutOfRange("Notes per beat have to be above 0.")
    show(rung_values(rungs(_plan(chosen), chosen.division)))


def _breath(chosen: argparse.Namespace) -> None:
    reading = read(read_drill(bytes_of(chosen.drill)))
    if not reading.drill.breath:
        raise OutOfRange("This drill says nothing of a breath. Give it the seconds that one lasts: “breath”.")
    show(rung_breaths(reading, [check_bpm(bpm) for bpm in tempi(_plan(chosen))]))


def _plan(chosen: argparse.Namespace) -> ClimbPlan:
    fresh = next(one.fresh for one in RULES if one.value == chosen.rule)
    asked = {name: value for name in _OF_A_RULE if (value := getattr(chosen, name)) is not None}
    if foreign := [name for name in asked if not hasattr(fresh, name)]:
        raise OutOfRange(f"The rule {chosen.rule} has no --{foreign[0]}.")
    rule = replace(fresh, **asked)
    return ClimbPlan(start=chosen.start, target=BpmTarget(chosen.to), rule=rule, settings=chosen.settings)


def _planned(chosen: argparse.Namespace) -> None:
    show(spread_values(read_plan(bytes_of(chosen.plan)), local_now().date()))


def _forecast(chosen: argparse.Namespace) -> None:
    show(forecast_values(read_log(bytes_of(chosen.log)), chosen.at, chosen.student))


def _schema(_chosen: argparse.Namespace) -> None:
    show(plan_schemas())


def _day(text: str) -> date:
    try:
        return parse_date(text)
    except Unreadable as error:
        raise argparse.ArgumentTypeError(error.message) from error
