"""Days as they are written in a plan: weekdays, dates, stretches of dates, every so many weeks."""

import re
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache

from ripresa.core.errors import Unreadable

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
#: A plan, and what it is made of, lies between these years.
EARLIEST, LATEST = date(1990, 1, 1), date(2199, 12, 31)
_DATE = re.compile(r"\d{4}-\d{2}-\d{2}")
_EVERY = re.compile(r"R/(\d{4}-\d{2}-\d{2})/P(\d{1,2})W")


@dataclass(frozen=True, slots=True)
class Days:
    """Some days of the calendar.

    Args:
        text: As it was written.
        weekday: 0 (Monday) to 6, or None. first, last: Between which days it lies.
        every: Days from one to the next, from the first one on.
    """

    text: str
    weekday: int | None = None
    first: date = EARLIEST
    last: date = LATEST
    every: int = 1

    def covers(self, day: date) -> bool:
        """Return whether a day is one of them."""
        if not self.first <= day <= self.last or (self.weekday is not None and day.weekday() != self.weekday):
            return False
        return (day - self.first).days % self.every == 0


@lru_cache(maxsize=1024)
def parse_days(text: str) -> Days:
    """Return the days that are written: ``sunday``, ``2026-12-22``, ``2026-12-22/2027-01-02``, ``R/2026-10-07/P2W``.

    The last is every second week from a date on, as ISO 8601 writes what repeats.

    Raises:
        Unreadable: It is none of these.

    >>> parse_days("2026-12-22/2027-01-02").covers(date(2027, 1, 2))
    True
    >>> [parse_days("R/2026-10-07/P2W").covers(date(2026, 10, day)) for day in (7, 14, 21)]
    [True, False, True]
    """
    plain = text.strip()
    names = [name.lower() for name in WEEKDAYS]
    if plain.lower() in names:
        return Days(plain, weekday=names.index(plain.lower()))
    if found := _EVERY.fullmatch(plain):
        weeks = int(found[2])
        if weeks < 1:
            raise Unreadable(f"“{plain}” repeats every 0 weeks. Write R/2026-10-07/P2W.")
        return Days(plain, first=parse_date(found[1]), every=7 * weeks)
    first, slash, last = plain.partition("/")
    begin = parse_date(first, plain)
    end = parse_date(last, plain) if slash else begin
    if end < begin:
        raise Unreadable(f"“{plain}” ends before it begins. Write the earlier day first.")
    return Days(plain, first=begin, last=end)


def parse_date(text: str, whole: str = "") -> date:
    """Return a date written as 2026-10-07.

    Raises:
        Unreadable: It is none, or too far away.
    """
    try:
        found = date.fromisoformat(text) if _DATE.fullmatch(text) else None
    except ValueError:
        found = None
    if found is None or not EARLIEST <= found <= LATEST:
        raise Unreadable(
            f"“{whole or text}” is no day. Write a weekday (sunday), a date (2026-12-22), a stretch "
            "(2026-12-22/2027-01-02) or every second week from a date (R/2026-10-07/P2W)."
        )
    return found


def told_days(days: Days) -> str:
    """Return days as they are told: ``Sundays``, ``22 Dec – 2 Jan``, ``7 Oct``, ``every 2 weeks from 7 Oct``."""
    if days.weekday is not None:
        return f"{WEEKDAYS[days.weekday]}s"
    if days.every > 1 or days.last == LATEST:
        weeks = days.every // 7
        return f"every {weeks} weeks from {told(days.first)}" if weeks > 1 else f"weekly from {told(days.first)}"
    return told(days.first) if days.first == days.last else f"{told(days.first)} – {told(days.last)}"


def told(day: date) -> str:
    """Return a day as it is told beside others: ``7 Oct``.

    >>> told(date(2026, 10, 7))
    '7 Oct'
    """
    return f"{day.day} {day:%b}"


def days_between(first: date, last: date) -> list[date]:
    """Return all days from one to another, both among them."""
    return [first + timedelta(days=number) for number in range((last - first).days + 1)]
