"""Calendars: what goes out can be read by others, what comes in is bounded."""

from datetime import UTC, date, datetime, time

import pytest
from icalendar import Calendar

from ripresa.core.errors import Unreadable
from ripresa.formats.calendar_ics import MOST_EVENTS, Session, read_lessons, write_calendar

NOW = datetime(2026, 11, 26, 9, 0, tzinfo=UTC)
FIRST, LAST = date(2026, 11, 20), date(2027, 1, 10)


def calendar(*lines: str) -> bytes:
    event = ["BEGIN:VEVENT", "SUMMARY:Ottavia", *lines, "END:VEVENT"]
    return "\r\n".join(["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", *event, "END:VCALENDAR", ""]).encode()


def days(data: bytes) -> list[date]:
    return [day for day, _, _ in read_lessons(data, FIRST, LAST, UTC).days]


def test_what_is_written_is_read_by_another_reader() -> None:
    sessions = [
        Session(date(2026, 11, 27), "Practise 12 minutes", "3 min: warm up;\nthen, the seam"),
        Session(date(2026, 12, 2), "Lesson: Ottavia Renn – été", at=time(14, 30)),
    ]
    found = Calendar.from_ical(write_calendar("Ottavia", sessions, NOW, "student-1")).walk("VEVENT")
    assert [str(one["summary"]) for one in found] == [one.title for one in sessions]
    assert [one.decoded("dtstart") for one in found] == [date(2026, 11, 27), datetime(2026, 12, 2, 14, 30)]
    assert str(found[0]["description"]) == sessions[0].about
    again = Calendar.from_ical(write_calendar("Ottavia", sessions, NOW, "student-1")).walk("VEVENT")
    assert [one["uid"] for one in again] == [one["uid"] for one in found]


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        (["DTSTART:20261202T143000"], [(12, 2)]),
        (["DTSTART;VALUE=DATE:20261202"], [(12, 2)]),
        (["DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;INTERVAL=2"], [(12, 2), (12, 16), (12, 30)]),
        (["DTSTART:20260902T143000", "RRULE:FREQ=WEEKLY;INTERVAL=2"], [(11, 25), (12, 9), (12, 23), (1, 6)]),
        (["DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;COUNT=2"], [(12, 2), (12, 9)]),
        (["DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;UNTIL=20261210T000000Z"], [(12, 2), (12, 9)]),
        (
            ["DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;BYDAY=WE,FR;COUNT=3", "EXDATE:20261204T143000"],
            [(12, 2), (12, 9)],
        ),
        (["DTSTART:20261226", "RRULE:FREQ=DAILY;INTERVAL=5"], [(12, 26), (12, 31), (1, 5), (1, 10)]),
        (["DTSTART:20261202T233000Z"], [(12, 2)]),
    ],
)
def test_days_come_in_as_they_repeat(lines: list[str], expected: list[tuple[int, int]]) -> None:
    assert [(day.month, day.day) for day in days(calendar(*lines))] == expected


def test_what_is_not_followed_is_told() -> None:
    found = read_lessons(calendar("DTSTART:20261202T143000", "RRULE:FREQ=YEARLY"), FIRST, LAST, UTC)
    assert [day.day for day, _, _ in found.days] == [2]
    assert "repeats in a way that is not followed" in found.left_out[0]
    none = read_lessons(calendar("DTSTART:tomorrow"), FIRST, LAST, UTC)
    assert (none.days, len(none.left_out)) == ((), 1)


@pytest.mark.parametrize("data", [b"nothing of it", b"\xff\xfe", b"x" * 5_000_000])
def test_what_is_no_calendar_is_refused(data: bytes) -> None:
    with pytest.raises(Unreadable, match="calendar"):
        read_lessons(data, FIRST, LAST, UTC)


def test_many_entries_of_decades_are_met_with_a_bound() -> None:
    one = b"BEGIN:VEVENT\r\nSUMMARY:a\r\nDTSTART:19910101T100000\r\nRRULE:FREQ=DAILY\r\nEND:VEVENT\r\n"
    data = b"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n" + one * 300 + b"END:VCALENDAR\r\n"
    found = read_lessons(data, FIRST, LAST, UTC)
    assert len(found.days) == (LAST - FIRST).days + 1
    assert MOST_EVENTS >= 300
