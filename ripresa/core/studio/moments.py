"""Moments and lengths that a studio keeps: within a lifetime of it, so that days and weeks around them can be told."""

from datetime import datetime
from math import isfinite

from ripresa.core.errors import OutOfRange

FIRST_YEAR, LAST_YEAR = 1970, 2100
#: Seconds that a take may last: a day.
LONGEST_TAKE = 86_400


def check_moment(at: datetime, field: str = "played_at") -> datetime:
    """Return a moment of the years 1970 to 2100.

    Raises:
        OutOfRange: It is of another year.
    """
    if not FIRST_YEAR <= at.year <= LAST_YEAR:
        raise OutOfRange(
            f"What is kept lies between {FIRST_YEAR} and {LAST_YEAR}, not in the year {at.year}. Is the clock right?",
            field=field,
        )
    return at


def check_lasting(seconds: float, field: str = "seconds") -> float:
    """Return seconds that a take may last: none to a day.

    Raises:
        OutOfRange: It is no such length.
    """
    if not (isfinite(seconds) and 0 <= seconds <= LONGEST_TAKE):
        raise OutOfRange(f"A take lasts from 0 to {LONGEST_TAKE} seconds, not {seconds:g}.", field=field)
    return seconds
