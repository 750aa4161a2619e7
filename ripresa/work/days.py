"""Days where the teacher is: when one begins, and the Monday of its week."""

from datetime import date, datetime, time, timedelta, tzinfo


def begin_of(day: date, zone: tzinfo | None) -> datetime:
    """Return the moment at which a day begins."""
    return datetime.combine(day, time(), zone)


def monday_of(day: date) -> date:
    """Return the Monday of the week of a day."""
    return day - timedelta(days=day.weekday())
