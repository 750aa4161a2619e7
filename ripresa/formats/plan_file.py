"""The plan file: what practice is asked for, as JSON, and what the plan makes of it; documented in docs/commands.md."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, ValidationError

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction, fraction_of
from ripresa.core.plans import DayKind, PracticePlan, Spread, parse_date, spread
from ripresa.formats.reading_json import number
from ripresa.formats.sentences import explain
from ripresa.formats.wire import Shape, WireSchema, adapter

FORMAT = "ripresa.plan/1"
LARGEST_FILE = 2_000_000
_Day = Annotated[str, Field(max_length=40)]


class _Shape(Shape):
    """What a plan may hold, and nothing else."""

    model_config = ConfigDict(extra="forbid")


class DoneLine(_Shape):
    """Minutes that were played on a day; a day may stand more than once."""

    date: _Day
    minutes: float = Field(ge=0, le=1440, allow_inf_nan=False)


class PlanFile(_Shape):
    """What is asked for. Days are weekdays, dates, stretches of dates, or every so many weeks: R/2026-10-07/P2W."""

    format: Literal["ripresa.plan/1"]
    start: _Day
    weeks: int
    days_a_week: int
    minutes: int
    most_a_day: int | None = None
    off: list[_Day] = Field(default_factory=list, max_length=200)
    lessons: list[_Day] = Field(default_factory=list, max_length=200)
    done: list[DoneLine] = Field(default_factory=list, max_length=5000)
    today: _Day | None = None
    until: _Day | None = None

    @property
    def plan(self) -> PracticePlan:
        """The plan that it is.

        Raises:
            OutOfRange, Unreadable: As ``PracticePlan``.
        """
        return PracticePlan(
            start=parse_date(self.start),
            weeks=self.weeks,
            days_a_week=self.days_a_week,
            minutes=self.minutes,
            most_a_day=self.minutes * 3 // 2 if self.most_a_day is None else self.most_a_day,
            off=tuple(self.off),
            lessons=tuple(self.lessons),
            until=parse_date(self.until) if self.until else None,
        )

    @property
    def played(self) -> dict[date, Fraction]:
        """Minutes by day."""
        found: dict[date, Fraction] = {}
        for one in self.done:
            day = parse_date(one.date)
            found[day] = found.get(day, Fraction(0)) + fraction_of(repr(one.minutes))
        return found


@dataclass(frozen=True, slots=True)
class PlannedDayValues:
    """A day: minutes still to come, minutes played, what it is first of all, whether it has a lesson."""

    date: str
    planned: float
    done: float
    kind: DayKind
    lesson: bool


@dataclass(frozen=True, slots=True)
class PlannedValues:
    """A plan that was spread: done + planned + unplaced = asked, in minutes; ``fits`` is the day by which all would."""

    days: list[PlannedDayValues]
    asked: float
    done: float
    planned: float
    unplaced: float
    ends: str
    fits: str | None


def read_plan(data: bytes) -> PlanFile:
    """Return the plan of a file.

    Raises:
        Unreadable: It is too long, not JSON, or a part of it is malformed; the sentence names the part.
    """
    if len(data) > LARGEST_FILE:
        raise Unreadable(f"A plan file has up to {LARGEST_FILE // 1_000_000} MB.", field="file")
    try:
        found = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise Unreadable("This is not JSON. A plan file is one JSON object.", field="file") from error
    if not isinstance(found, Mapping) or found.get("format") != FORMAT:
        raise Unreadable(f"This is no plan. It should be an object with the format “{FORMAT}”.", field="format")
    try:
        return PlanFile.model_validate(found)
    except ValidationError as error:
        message, field = explain(error.errors(include_url=False))
        raise Unreadable(message, field=field) from error


def spread_values(asked: PlanFile, today: date) -> Any:
    """Return the plan of a file, spread over its days, as plain values.

    Args:
        today: Where the file does not say it.

    Raises:
        OutOfRange, Unreadable: As ``spread`` and ``PracticePlan``.
    """
    day = parse_date(asked.today) if asked.today else today
    return _VALUES.dump_python(planned_values(spread(asked.plan, asked.played, day)), mode="json")


def planned_values(found: Spread) -> PlannedValues:
    """Return a spread as it is printed."""
    return PlannedValues(
        days=[
            PlannedDayValues(
                date=one.date.isoformat(),
                planned=number(one.planned),
                done=number(one.done),
                kind=one.kind,
                lesson=one.lesson,
            )
            for one in found.days
        ],
        asked=number(found.asked),
        done=number(found.done),
        planned=number(found.planned),
        unplaced=number(found.unplaced),
        ends=found.ends.isoformat(),
        fits=found.fits.isoformat() if found.fits else None,
    )


def plan_schema() -> dict[str, Any]:
    """Return the JSON Schema of a plan file."""
    return PlanFile.model_json_schema()


def planned_schema() -> dict[str, Any]:
    """Return the JSON Schema of what is printed of one."""
    return _VALUES.json_schema(schema_generator=WireSchema)


_VALUES = adapter(PlannedValues)
