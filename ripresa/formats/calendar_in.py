"""The days of lessons, from a file of somebody's calendar: what repeats, what was moved, what was called off.

Repetition is worked out by a kept library on the clock of the event's own zone (RFC 5545, 3.8.5.3), between two days.
"""

from calendar import monthrange
from collections import defaultdict
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import date, datetime, time, timedelta, tzinfo
from itertools import islice
from typing import Any

from dateutil.rrule import rrulestr
from icalendar import Calendar, Component

from ripresa.core.errors import Unreadable
from ripresa.core.plans import EARLIEST, LATEST

LARGEST_FILE, MOST_EVENTS, MOST_TIMES = 4_000_000, 5_000, 2_000
#: Days, weeks or months that all entries may go through together: thousands of entries over decades are too many.
_MOST_STEPS, _MONTH = 100_000, 30
_UNREAD = (ValueError, KeyError, IndexError, TypeError, AttributeError, OverflowError)
_APART = {"DAILY": 1, "WEEKLY": 7}
_ENDS, _OF_MONTHS = {"COUNT", "UNTIL"}, {"BYMONTH", "BYMONTHDAY", "BYDAY", "BYSETPOS"}

_WEEKDAYS = ("MO", "TU", "WE", "TH", "FR", "SA", "SU")
#: Parts of a rule that only leave days out, by what repeats, and what they leave (RFC 5545, 3.3.10).
_LIMITS = {"DAILY": ("BYDAY", "BYMONTH", "BYMONTHDAY"), "WEEKLY": ("BYMONTH",)}
_LIMIT: dict[str, Callable[[datetime, Sequence[str]], bool]] = {
    "BYDAY": lambda day, given: _WEEKDAYS[day.weekday()] in given,
    "BYMONTH": lambda day, given: str(day.month) in given,
    "BYMONTHDAY": lambda day, given: any(int(one) in _numbers(day) for one in given),
}
#: Days on either side that a moment may lie in, seen from another zone.
_ZONES = timedelta(days=2)
_Found = tuple[date, str, time | None]


def _numbers(day: datetime) -> tuple[int, int]:
    """Return which day of its month a day is, counted from the first, and from the last on as −1."""
    return day.day, day.day - 1 - monthrange(day.year, day.month)[1]


@dataclass(frozen=True, slots=True)
class FoundLessons:
    """Days of a calendar: each with what it is called, and its time of day; how many were left out, and why."""

    days: tuple[_Found, ...]
    left_out: tuple[str, ...]


@dataclass(slots=True)
class _Stretch:
    """Between which days lessons are looked for, where the teacher is; what is left out, and what may still be done."""

    first: date
    last: date
    zone: tzinfo | None
    left_out: list[str] = field(default_factory=list)
    steps: int = _MOST_STEPS

    def here(self, moment: date | datetime) -> tuple[date, time | None]:
        """Return the day of a moment, and the time of day that it has where the teacher is."""
        if not isinstance(moment, datetime):
            return moment, None
        local = moment.astimezone(self.zone) if moment.tzinfo else moment
        return local.date(), local.time().replace(tzinfo=None)


def read_lessons(data: bytes, first: date, last: date, zone: tzinfo | None) -> FoundLessons:
    """Return the days of all events of a calendar between two days, in order.

    Raises:
        Unreadable: It is too long, or no calendar.
    """
    if len(data) > LARGEST_FILE:
        raise Unreadable(f"A calendar has up to {LARGEST_FILE // 1_000_000} MB.", field="file")
    try:
        events = list(Calendar.from_ical(data).walk("VEVENT"))
    except (*_UNREAD, RecursionError) as error:
        raise Unreadable("This is no calendar. Save it as iCalendar (.ics) and open that.", field="file") from error
    stretch = _Stretch(first, last, zone)
    # An entry that stands for one time of another, moved or called off, names the moment that it had.
    moved: dict[str, set[date | datetime]] = defaultdict(set)
    for event in events[:MOST_EVENTS]:
        if "recurrence-id" in event:
            # One that cannot be read takes no time away.
            with suppress(*_UNREAD):
                moved[str(event.get("uid"))].add(event.decoded("recurrence-id"))
    found: set[_Found] = set()
    for event in events[:MOST_EVENTS]:
        title = str(event.get("summary", ""))[:200]
        if str(event.get("status", "")).upper() == "CANCELLED":
            continue
        apart = set() if "recurrence-id" in event else moved[str(event.get("uid"))]
        try:
            moments = list(_moments(event, apart, stretch, title))
        except _UNREAD:
            stretch.left_out.append(f"“{title}” has no day that can be read.")
            continue
        found |= {(day, title, at) for day, at in map(stretch.here, moments) if first <= day <= last}
    if len(events) > MOST_EVENTS:
        stretch.left_out.append(f"A calendar is read up to {MOST_EVENTS:,} entries; what follows is left out.")
    in_order = sorted(found, key=lambda one: (one[0], one[1], one[2] or time()))
    return FoundLessons(tuple(in_order), tuple(dict.fromkeys(stretch.left_out)))


def _moments(event: Component, moved: set[date | datetime], stretch: _Stretch, title: str) -> Iterator[date | datetime]:
    """Yield when an event is: each of its times, but for those that were moved or taken out."""
    begin = event.decoded("dtstart")
    if not EARLIEST <= _day(begin) <= LATEST:
        raise ValueError("a day that no plan has")
    named = event["dtstart"].params.get("TZID")
    if named and isinstance(begin, datetime) and begin.tzinfo is None:
        stretch.left_out.append(
            f"“{title}” is on the clock of “{named}”, which is not known: its time stands as it is."
        )
    out = moved | set(_listed(event, "exdate"))
    for moment in (*_repeated(event, begin, stretch, title), *_listed(event, "rdate")):
        if moment not in out and _day(moment) not in out:
            yield moment


def _repeated(event: Component, begin: date | datetime, stretch: _Stretch, title: str) -> Iterator[date | datetime]:
    """Yield the times of an event by its rule, as its own clock shows them."""
    # Where an event begins it is, whatever its rule says of that day.
    yield begin
    parts = event.get("rrule")
    if parts is None:
        return
    rule = {name.upper(): [str(one).upper() for one in parts[name]] for name in parts}
    kind, every = rule.get("FREQ", [""])[0], int(rule.get("INTERVAL", ["1"])[0])
    count = int(rule.get("COUNT", ["0"])[0])
    if every < 1 or not 0 <= count <= MOST_TIMES or not _is_followed(rule, kind, every):
        stretch.left_out.append(f"“{title}” repeats in a way that is not followed; its first day counts.")
        return
    zone = begin.tzinfo if isinstance(begin, datetime) else None
    start = _clock(begin, zone)
    end = datetime.combine(stretch.last, time.max) + _ZONES
    if "until" in parts:
        end = min(end, _until(parts["until"][0], zone))
    if kind in _APART and not count:
        # What is not counted may begin near what is asked for: a calendar may go back for decades.
        apart = every * _APART[kind]
        start += timedelta(days=max(0, (stretch.first - start.date()).days // apart - 1) * apart)
    stretch.steps -= max(0, (end - start).days) // _APART.get(kind, _MONTH) + 1
    if stretch.steps < 0:
        stretch.left_out.append(f"“{title}” and what follows repeats over more time than can be gone through.")
        return
    limits = _LIMITS.get(kind, ())
    asked = ";".join(f"{name}={','.join(given)}" for name, given in rule.items() if name not in {*_ENDS, *limits})
    laid = rrulestr(f"{asked};UNTIL={end:%Y%m%dT%H%M%S}", dtstart=start)
    found = (moment for moment in laid if all(_LIMIT[one](moment, rule[one]) for one in limits if one in rule))
    for moment in islice(found, count or None):
        yield moment.replace(tzinfo=zone) if isinstance(begin, datetime) else moment.date()


def _is_followed(rule: Mapping[str, Sequence[str]], kind: str, every: int) -> bool:
    """Return whether a rule is one of days, weeks, months or years that surely meets a day.

    The library looks to the end of time for the next day of a rule that meets none: the 31st of February.
    """
    if kind in _APART:
        return rule.keys() <= {"FREQ", "INTERVAL", "WKST", "BYDAY", *_ENDS, *_LIMITS[kind]}
    if kind not in {"MONTHLY", "YEARLY"} or not rule.keys() <= {"FREQ", "INTERVAL", "WKST", *_ENDS, *_OF_MONTHS}:
        return False
    days = [abs(int(one)) for one in rule.get("BYMONTHDAY", ())]
    numbers = [abs(int(one[:-2] or 0)) for one in rule.get("BYDAY", ())]
    places = [abs(int(one)) for one in rule.get("BYSETPOS", ())]
    is_plain = every == 1 and "BYMONTH" not in rule
    return (
        not (days and numbers)
        and all(one <= 28 or is_plain for one in days)
        and all(one <= 4 or (one == 5 and is_plain) for one in numbers)
        and not (places and (not numbers or any(numbers) or max(places) > 4))
        and ("BYMONTH" not in rule or kind == "YEARLY" or every == 1)
    )


def _until(given: date | datetime, zone: tzinfo | None) -> datetime:
    """Return the last moment of a rule on the clock of its event; a day counts to its end."""
    return _clock(given, zone) if isinstance(given, datetime) else datetime.combine(given, time.max)


def _clock(moment: date | datetime, zone: tzinfo | None) -> datetime:
    """Return what the clock of a zone shows at a moment; a day begins at its beginning."""
    if not isinstance(moment, datetime):
        return datetime.combine(moment, time())
    local = moment.astimezone(zone) if moment.tzinfo and zone else moment
    return local.replace(tzinfo=None)


def _listed(event: Component, name: str) -> Iterator[date | datetime]:
    """Yield the moments of a property that may stand once or often, of each one or many; of a stretch its beginning."""
    found: Any = event.get(name, [])
    for one in found if isinstance(found, list) else [found]:
        for moment in getattr(one, "dts", ()):
            yield moment.dt[0] if isinstance(moment.dt, tuple) else moment.dt


def _day(moment: date | datetime) -> date:
    return moment.date() if isinstance(moment, datetime) else moment
