"""Days where the teacher is: the present moment, when a day begins, which day a moment is, the Monday of a week."""

from datetime import date, datetime, time, timedelta, tzinfo
from functools import cache


@cache
def own_zone() -> tzinfo | None:
    """Return the time zone of this computer by its name, so that each moment has the offset that held then."""
    # Here and not above: whoever only reads a drill need not load it.
    import tzlocal

    try:
        return tzlocal.get_localzone()
    except (LookupError, ValueError, OSError):
        # A zone that has no name here, or two: then what its clock is off by today has to do.
        return datetime.now().astimezone().tzinfo


def local_now() -> datetime:
    """Return the present moment in this computer's time zone."""
    return datetime.now(own_zone())


def begin_of(day: date, zone: tzinfo | None) -> datetime:
    """Return the moment at which a day begins."""
    return datetime.combine(day, time(), zone)


def day_of(moment: datetime, zone: tzinfo | None) -> date:
    """Return the day that the calendar of a zone shows at a moment."""
    return moment.astimezone(zone).date()


def monday_of(day: date) -> date:
    """Return the Monday of the week of a day."""
    return day - timedelta(days=day.weekday())
