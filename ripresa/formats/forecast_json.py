"""What ``ripresa forecast`` prints: the speed to expect, from a log as CSV."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from ripresa.core.errors import OutOfRange
from ripresa.core.plans import CleanTake, Forecast, forecast
from ripresa.formats.log_csv_in import LoggedRow, ReadLog
from ripresa.formats.wire import WireSchema, adapter


@dataclass(frozen=True, slots=True)
class WeekValues:
    """The fastest clean take to expect in the seven days that end so many weeks from now, in n/s, in 4 of 5 cases."""

    week: int
    low: float
    middle: float
    high: float


@dataclass(frozen=True, slots=True)
class SeriesValues:
    """Clean takes of one drill and click, on so many days; ``silent`` says why nothing is told of them.

    ``reason`` says why the middle lies under what was clean this week, or that a pause is behind it; else empty.
    """

    drill: str
    click: str
    clean: int
    days: int
    weeks: list[WeekValues]
    silent: str | None
    reason: str


@dataclass(frozen=True, slots=True)
class UnreadValues:
    """A line of the log that cannot be read, and why."""

    line: int
    why: str


@dataclass(frozen=True, slots=True)
class ForecastValues:
    """The forecast of the drill and click with most clean takes, and of all; what of the log was not read."""

    at: str
    student: str
    drill: str
    click: str
    weeks: list[WeekValues]
    silent: str | None
    reason: str
    series: list[SeriesValues]
    unread: list[UnreadValues]


def forecast_values(log: ReadLog, at: date | None, student: str | None) -> Any:
    """Return the forecast of a log as plain values.

    Args:
        at: From which day on; None is the day of the last take. student: Whose, where the log names several.

    Raises:
        OutOfRange: The log names several students and it is not said which, or not this one.
    """
    rows, name = _of_one(log.rows, student)
    day = at or max((row.played_at.date() for row in rows), default=date.today())
    series = [_series(key, found, day) for key, found in by_drill_and_click(rows).items()]
    # What stands first is what was played most; of two alike the one named first.
    series.sort(key=lambda one: -one.clean)
    first = series[0] if series else _values("", "", forecast((), day))
    return _VALUES.dump_python(
        ForecastValues(
            at=day.isoformat(),
            student=name,
            drill=first.drill,
            click=first.click,
            weeks=first.weeks,
            silent=first.silent,
            reason=first.reason,
            series=series,
            unread=[UnreadValues(one.line, one.why) for one in log.unread],
        ),
        mode="json",
    )


def by_drill_and_click(rows: Iterable[LoggedRow]) -> dict[tuple[str, str], list[CleanTake]]:
    """Return the clean takes of each drill and click: what another click or drill asks for is another speed."""
    found: dict[tuple[str, str], list[CleanTake]] = {}
    for row in rows:
        takes = found.setdefault((row.drill, row.click), [])
        if row.mark == "clean" and row.nps is not None:
            takes.append(CleanTake(row.played_at.date(), float(row.nps)))
    return found


def forecast_schema() -> dict[str, Any]:
    """Return the JSON Schema of what is printed."""
    return _VALUES.json_schema(schema_generator=WireSchema)


def _of_one(rows: Sequence[LoggedRow], student: str | None) -> tuple[list[LoggedRow], str]:
    names = list(dict.fromkeys(row.student for row in rows))
    if student is None:
        if len(names) > 1:
            raise OutOfRange(f"This log is of several students. Say of which: --student “{names[0]}”.")
        return list(rows), names[0] if names else ""
    if student not in names:
        raise OutOfRange(f"This log does not name “{student}”. It names {', '.join(f'“{one}”' for one in names[:10])}.")
    return [row for row in rows if row.student == student], student


def _series(key: tuple[str, str], takes: Sequence[CleanTake], day: date) -> SeriesValues:
    return _values(*key, forecast(takes, day))


def _values(drill: str, click: str, found: Forecast) -> SeriesValues:
    weeks = [WeekValues(one.week, one.low, one.middle, one.high) for one in found.weeks]
    return SeriesValues(drill, click, found.takes, found.days, weeks, found.silent, found.reason)


_VALUES = adapter(ForecastValues)
