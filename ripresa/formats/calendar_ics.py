"""Calendars as iCalendar, going out: practice and lessons."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta

from icalendar import Calendar, Event


@dataclass(frozen=True, slots=True)
class Session:
    """Something on a day: what it is called and about, its time of day where it has one, minutes, lesson or not."""

    day: date
    title: str
    about: str = ""
    at: time | None = None
    minutes: int = 45
    is_lesson: bool = False


@dataclass(frozen=True, slots=True)
class Dated:
    """A session as a calendar holds it (RFC 5545).

    Args:
        uid: Its id, in every calendar of every studio the same one. sequence: How often it was changed since.
        is_cancelled: Whether it is called off.
    """

    session: Session
    uid: str
    sequence: int = 0
    is_cancelled: bool = False


def write_calendar(name: str, entries: Sequence[Dated], now: datetime) -> bytes:
    """Return a calendar; an entry that was in an earlier one takes its place, or takes it away."""
    calendar = Calendar()
    calendar.add("prodid", "-//Ripresa//Practice//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", name)
    for entry in entries:
        session, event = entry.session, Event()
        event.add("uid", entry.uid)
        event.add("sequence", entry.sequence)
        event.add("status", "CANCELLED" if entry.is_cancelled else "CONFIRMED")
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
