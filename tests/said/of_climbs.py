"""What is said of climbs and plans: rungs, decisions, maps, days, tasks, the speed to expect."""

import io
import json
from collections.abc import Iterator
from contextlib import redirect_stdout
from dataclasses import replace
from datetime import date, timedelta
from itertools import product
from pathlib import Path
from tempfile import TemporaryDirectory

from ripresa.cli import main
from ripresa.core.climbs import (
    MOVINGS,
    PRESETS,
    BandTarget,
    BpmTarget,
    ClimbPlan,
    DivideThenRaise,
    EvenSteps,
    PerCent,
    RungRule,
    ZigZag,
    decide,
    laid_rungs,
    rule_sentence,
    speed_map,
)
from ripresa.core.climbs.speed_map import Played
from ripresa.core.climbs.targets import Target
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import decimal, division_label, label
from ripresa.core.plans import CleanTake, LoggedTake, forecast, parse_days, silent_about, told_days, what_if
from ripresa.core.plans.tasks import Subject, tasks_of
from ripresa.core.takes import Mark
from tests.cli.test_plans import PLAN
from tests.learners import logs


def climbs() -> Iterator[str]:
    """Yield the rungs of each rule, and what each moving rule says after every row of up to four marks."""
    rules: list[RungRule] = [PerCent(), EvenSteps(F(5)), ZigZag(), DivideThenRaise(step=F(6))]
    rules += [preset.rule for preset in PRESETS.values()]
    for rule, target, settings in product(rules, (BpmTarget(F(97)), BandTarget(F(6), F(7))), ("whole", "numbered")):
        try:
            plan = ClimbPlan(start=F(60), target=target, rule=rule, settings=settings)  # type: ignore[arg-type]
            steps = laid_rungs(plan)
        except RipresaError as error:
            yield f"{rule_sentence(rule)} {settings}: {error.message}"
            continue
        told = " ".join(f"{label(step.bpm)}{f'({step.words})' if step.words else ''}" for step in steps)
        yield f"{rule_sentence(rule)} {settings}: {told}"
    plan = ClimbPlan(start=F(60), target=BpmTarget(F(72)), rule=EvenSteps(F(4)), clean_to_rise=2, shaky_to_fall=2)
    marks: dict[str, Mark] = {"c": "clean", "s": "shaky", "n": "near"}
    for moving, rung, size in product(MOVINGS, (1, 2, 4), range(1, 5)):
        moved = replace(plan, moving=moving)
        for row in product(marks, repeat=size):
            came, seconds = (None, 1, 3)[len(row) % 3], 150.0 * size
            word = decide(moved, laid_rungs(moved), rung, [marks[one] for one in row], came_from=came, seconds=seconds)
            told = f"{word.decision} {word.rung}. {word.heading}: {word.sentence} ({word.clean_to_go} to go)"
            yield f"{moving}, rung {rung}, {''.join(row)}: {told}"


DAY = date(2026, 10, 7)
SHORT = {**PLAN, "weeks": 4, "off": ["sunday", "2026-10-20/2026-10-22"], "today": "2026-10-19"}


def plans() -> Iterator[str]:
    """Yield the days of some plans, as the command line prints them, and the maps of some climbs."""
    for more in ({}, {"most_a_day": 40}, {"days_a_week": 3, "done": []}, {"today": "2026-10-30"}):
        with TemporaryDirectory() as folder, redirect_stdout(io.StringIO()) as printed:
            file = Path(folder) / "plan.json"
            file.write_text(json.dumps({**SHORT, **more}))
            main(["plan", str(file)])
        found = json.loads(printed.getvalue())
        yield from (f"plan, day: {json.dumps(day)}" for day in found.pop("days"))
        yield f"plan: {json.dumps(found)}"
    played: dict[tuple[F, F], Played] = {(F(60), F(2)): "clean", (F(60), F(3)): "shaky", (F(61), F(3)): "clean"}
    targets: tuple[Target, ...] = (BpmTarget(F(97)), BandTarget(F(6), F(7)))
    rules: tuple[RungRule, ...] = (DivideThenRaise(step=F(6)), EvenSteps(F(2)))
    for target, rule, here in product(targets, rules, (1, 3)):
        plan = ClimbPlan(start=F(60), target=target, rule=rule)
        laid = speed_map(plan, F(4), here, played, [F(4), F(6)])
        yield f"map of {' '.join(label(bpm) for bpm in laid.tempi)}: {laid.twins}"
        for row in laid.rows:
            told = (
                f"{label(one.bpm)}={decimal(one.nps, 2)}{'!' if one.inside else ''}"
                f"{f'#{one.rung}' if one.rung else ''}{'' if one.played == 'none' else one.played}"
                for one in row
            )
            yield f"  × {division_label(row[0].division)}: {' '.join(told)}"


SUBJECTS = (
    Subject(1, "Kelp", "♩ = 76, two takes", date(2026, 10, 1), date(2026, 9, 20), 0.5),
    Subject(2, "Ebb", "♩ = 60, no take"),
    Subject(3, "Mole", "♩ = 92, one take", date(2026, 10, 4), date(2026, 10, 4), 0.25, "Loop the change"),
    Subject(4, "Quay", "♩ = 100, four takes", date(2026, 9, 1), date(2026, 9, 1), stands=True),
    Subject(5, "Buoy", "♩ = 88, three takes", date(2026, 9, 12), date(2026, 9, 10), 0.75, stands=True),
)


def tasks() -> Iterator[str]:
    """Yield the tasks of days that are short and long, soon and late, of students who play little and much."""
    choices = (SUBJECTS, SUBJECTS[:1], SUBJECTS[3:], SUBJECTS[1:4], ())
    for minutes, chosen, ahead in product((0, 1, 2, 5, 7, 8, 11, 12, 13, 24, 45), choices, (0, 1, 4)):
        told = (f"{one.minutes} {one.kind}: {one.words} ({one.key})" for one in tasks_of(DAY, minutes, chosen, ahead))
        yield f"{minutes} minutes, {len(chosen)} climbs, {ahead} ahead: {'; '.join(told)}"
    for days in (
        "sunday",
        "2026-10-20/2026-10-22",
        "2026-12-24",
        "R/2026-10-07/P2W",
        "R/2026-10-07/P0W",
        "2026-10-2",
        "2026-10-22/2026-10-20",
    ):
        try:
            yield f"{days}: {told_days(parse_days(days))}"
        except RipresaError as error:
            yield f"{days}: {error.message}"


def expected() -> Iterator[str]:
    """Yield the speed that is to be expected of learners, and how their logs go under other rules."""
    for name in ("late starter", "stepwise"):
        for number, (_, past, log) in enumerate(logs(name, 2, 11)):
            day = [DAY - timedelta(days=past - 1 - day) for day, _, _ in log]
            clean = [CleanTake(at, nps) for at, (_, nps, is_clean) in zip(day, log, strict=True) if is_clean]
            found = forecast(clean, DAY, target=1.1 * max(one.nps for one in clean))
            weeks = (f"{one.week}: {one.low:.2f} {one.middle:.2f} {one.high:.2f}" for one in found.weeks)
            yield f"{name} {number}: {found.sentence} {', '.join(weeks)}; {found.first} to {found.last}"
            yield f"  {found.takes} takes on {found.days} days"
            taken = [
                LoggedTake(at, nps, is_clean) for at, (when, nps, is_clean) in zip(day, log, strict=True) if when < past
            ]
            if reason := silent_about(taken):
                yield f"  {reason}"
                continue
            for moving in MOVINGS:
                plan = ClimbPlan(start=F(60), target=BpmTarget(F(78)), rule=EvenSteps(F(3)), moving=moving)
                speeds = [taken[-1].nps * float(step.bpm) / 66 for step in laid_rungs(plan)]
                word = what_if(taken, plan, speeds)
                weeks_told = [None if one is None else round(one, 2) for one in word.weeks or ()]
                yield f"  {moving}: {weeks_told} {word.shaky[0]:.3f} {word.shaky[1]:.3f} {word.arrived:.3f}"
