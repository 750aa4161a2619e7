"""Calendars as iCalendar, going out: practice and lessons."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta

from icalendar import Calendar, Event


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
