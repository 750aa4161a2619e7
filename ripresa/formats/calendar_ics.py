"""Calendars as iCalendar: practice and lessons out; the days of lessons in, from a file of somebody's calendar."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta, tzinfo

from icalendar import Calendar, Component, Event

from ripresa.core.errors import Unreadable
from ripresa.core.plans import EARLIEST, LATEST

LARGEST_FILE, MOST_EVENTS, MOST_TIMES = 4_000_000, 5_000, 2_000


@dataclass(frozen=True, slots=True)
class Session:
    """Something on a day: what it is called and about; its time of day where it has one, and minutes."""

    day: date
    title: str
    about: str = ""
    at: time | None = None
    minutes: int = 45


def write_calendar(name: str, sessions: Sequence[Session], now: datetime, key: str) -> bytes:
    """Return a calendar; the same session keeps its id, so that a later file moves it and makes no second one.

    Args:
        key: What the ids begin with: whose calendar it is.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Ripresa//Practice//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for session in sessions:
        event = Event()
        kind = "lesson" if session.at else "practice"
        event.add("uid", f"{key}-{kind}-{session.day.isoformat()}@ripresa")
        event.add("dtstamp", now.astimezone(UTC))
        if session.at is None:
            event.add("dtstart", session.day)
            event.add("dtend", session.day + timedelta(days=1))
            event.add("transp", "TRANSPARENT")
        else:
            # Without a zone: a lesson is at half past two where one is.
            begin = datetime.combine(session.day, session.at)
            event.add("dtstart", begin)
            event.add("dtend", begin + timedelta(minutes=session.minutes))
        event.add("summary", session.title)
        if session.about:
            event.add("description", session.about)
        calendar.add_component(event)
    return bytes(calendar.to_ical())


@dataclass(frozen=True, slots=True)
class FoundLessons:
    """Days of a calendar: each with what it is called, and its time of day; how many were left out, and why."""

    days: tuple[tuple[date, str, time | None], ...]
    left_out: tuple[str, ...]


def read_lessons(data: bytes, first: date, last: date, zone: tzinfo | None) -> FoundLessons:
    """Return the days of all events of a calendar between two days, in order.

    What repeats by days, weeks or months is followed; another rule gives its first day, and is told.

    Raises:
        Unreadable: It is too long, or no calendar.
    """
    if len(data) > LARGEST_FILE:
        raise Unreadable(f"A calendar has up to {LARGEST_FILE // 1_000_000} MB.", field="file")
    try:
        calendar = Calendar.from_ical(data)
        events = list(calendar.walk("VEVENT"))
    except (ValueError, KeyError, IndexError, TypeError, AttributeError, RecursionError) as error:
        raise Unreadable("This is no calendar. Save it as iCalendar (.ics) and open that.", field="file") from error
    left_out: list[str] = []
    found: list[tuple[date, str, time | None]] = []
    for event in events[:MOST_EVENTS]:
        title = str(event.get("summary", ""))[:200]
        try:
            begin = event.decoded("dtstart")
            days = list(_days_of(event, begin, first, last, left_out, title))
        except (ValueError, KeyError, TypeError, AttributeError, OverflowError):
            left_out.append(f"“{title}” has no day that can be read.")
            continue
        found += [(day, title, at) for day, at in (_here(one, begin, zone) for one in days) if first <= day <= last]
    if len(events) > MOST_EVENTS:
        left_out.append(f"A calendar is read up to {MOST_EVENTS:,} entries; what follows is left out.")
    return FoundLessons(tuple(sorted(set(found), key=lambda one: (one[0], one[1]))), tuple(dict.fromkeys(left_out)))


def _here(day: date, begin: date | datetime, zone: tzinfo | None) -> tuple[date, time | None]:
    """Return a day, and the time of day that it has where the teacher is."""
    if not isinstance(begin, datetime):
        return day, None
    moment = datetime.combine(day, begin.timetz())
    local = moment.astimezone(zone) if moment.tzinfo else moment
    return local.date(), local.time().replace(tzinfo=None)


def _days_of(
    event: Component, begin: date | datetime, first: date, last: date, left_out: list[str], title: str
) -> Iterator[date]:
    start = begin.date() if isinstance(begin, datetime) else begin
    if not EARLIEST <= start <= LATEST:
        raise ValueError("a day that no plan has")
    rule = event.get("rrule")
    if rule is None:
        yield start
        return
    kind = str(rule.get("freq", [""])[0]).upper()
    every = int(rule.get("interval", [1])[0])
    weekdays = [_WEEKDAYS[str(one)[-2:]] for one in rule.get("byday", []) if str(one)[-2:] in _WEEKDAYS]
    count = int(rule.get("count", [0])[0])
    if kind not in {"DAILY", "WEEKLY"} or every < 1 or count > MOST_TIMES:
        left_out.append(f"“{title}” repeats in a way that is not followed; its first day counts.")
        yield start
        return
    until = _until(rule, last)
    apart = set(_excepted(event))
    # What is not counted may begin near what is asked for: a calendar may go back for decades.
    near = start if count else _nearer(start, first, every * (1 if kind == "DAILY" else 7))
    for number, day in enumerate(_repeated(near, kind, every, weekdays, until)):
        if count and number >= count:
            return
        if day >= first and day not in apart:
            yield day


def _repeated(start: date, kind: str, every: int, weekdays: Sequence[int], until: date) -> Iterator[date]:
    if kind == "DAILY":
        day = start
        while day <= until:
            yield day
            day += timedelta(days=every)
        return
    monday = start - timedelta(days=start.weekday())
    while monday <= until:
        for weekday in sorted(set(weekdays) or {start.weekday()}):
            day = monday + timedelta(days=weekday)
            if start <= day <= until:
                yield day
        monday += timedelta(weeks=every)


def _nearer(start: date, first: date, apart: int) -> date:
    """Return a start moved on by whole repetitions, to the last one before a day."""
    times = max(0, (first - start).days // apart - 1)
    return start + timedelta(days=times * apart)


def _until(rule: "dict[str, list[object]]", last: date) -> date:
    given = rule.get("until", [None])[0]
    end = given.date() if isinstance(given, datetime) else given
    return min(last, end) if isinstance(end, date) else last


def _excepted(event: Component) -> Iterable[date]:
    found = event.get("exdate", [])
    for one in found if isinstance(found, list) else [found]:
        for moment in getattr(one, "dts", []):
            yield moment.dt.date() if isinstance(moment.dt, datetime) else moment.dt


_WEEKDAYS = {"MO": 0, "TU": 1, "WE": 2, "TH": 3, "FR": 4, "SA": 5, "SU": 6}
