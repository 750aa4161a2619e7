"""Calendars: what goes out can be read by others, what comes in is bounded."""

from datetime import UTC, date, datetime, time
from zoneinfo import ZoneInfo

import pytest
from icalendar import Calendar

from ripresa.core.errors import Unreadable
from ripresa.formats.calendar_ics import Dated, Session, write_calendar
from ripresa.formats.calendar_in import MOST_EVENTS, read_lessons

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
    entries = [Dated(sessions[0], "practice-1@here"), Dated(sessions[1], "lesson-1@here", 2, is_cancelled=True)]
    found = Calendar.from_ical(write_calendar("Ottavia", entries, NOW)).walk("VEVENT")
    assert [str(one["summary"]) for one in found] == [one.title for one in sessions]
    assert [one.decoded("dtstart") for one in found] == [date(2026, 11, 27), datetime(2026, 12, 2, 14, 30)]
    assert str(found[0]["description"]) == sessions[0].about
    assert [(str(one["uid"]), one["sequence"], str(one["status"])) for one in found] == [
        ("practice-1@here", 0, "CONFIRMED"),
        ("lesson-1@here", 2, "CANCELLED"),
    ]


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
    found = read_lessons(calendar("DTSTART:20261202T143000", "RRULE:FREQ=HOURLY;INTERVAL=12"), FIRST, LAST, UTC)
    assert [day.day for day, _, _ in found.days] == [2]
    assert found.left_out == ("“Ottavia” repeats in a way that is not followed; its first day counts.",)
    none = read_lessons(calendar("DTSTART:tomorrow"), FIRST, LAST, UTC)
    assert (none.days, len(none.left_out)) == ((), 1)
    for odd in ("RECURRENCE-ID:yesterday", "EXDATE:never", "RDATE:often", "RRULE:FREQ=WEEKLY;UNTIL=soon"):
        assert len(read_lessons(calendar("DTSTART:20261202T143000", odd), FIRST, LAST, UTC).days) <= 1
    nowhere = read_lessons(calendar("DTSTART;TZID=Ferry/Landing:20261202T143000"), FIRST, LAST, UTC)
    assert nowhere.days == ((date(2026, 12, 2), "Ottavia", time(14, 30)),)
    assert nowhere.left_out == (
        "“Ottavia” is on the clock of “Ferry/Landing”, which is not known: its time stands as it is.",
    )


BERLIN = ZoneInfo("Europe/Berlin")


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        # The first and the last Wednesday of each month; the second of every December; the 31st, where there is one.
        (["DTSTART:20261104T150000", "RRULE:FREQ=MONTHLY;BYDAY=1WE,-1WE"], ["11-25", "12-02", "12-30", "01-06"]),
        (["DTSTART:20241211T150000", "RRULE:FREQ=YEARLY;BYMONTH=12;BYDAY=2WE"], ["12-09"]),
        (["DTSTART:20261204T150000", "RRULE:FREQ=WEEKLY;BYDAY=MO;UNTIL=20261214"], ["12-04", "12-07", "12-14"]),
        (["DTSTART:20261031", "RRULE:FREQ=MONTHLY"], ["12-31"]),
        (["DTSTART:20261201", "RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30"], ["12-01"]),
        (["DTSTART:20261130", "RRULE:FREQ=DAILY;BYDAY=MO"], ["11-30", "12-07", "12-14", "12-21", "12-28", "01-04"]),
        # Which weeks are the second ones depends on the day on which a week begins.
        (
            ["DTSTART:20261122", "RRULE:FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=SU,TU;WKST=MO"],
            ["11-22", "12-01", "12-06", "12-15"],
        ),
        (
            ["DTSTART:20261122", "RRULE:FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=SU,TU;WKST=SU"],
            ["11-22", "11-24", "12-06", "12-08"],
        ),
        # In Berlin it is the next day: neither the end nor what is taken out is a day early.
        (
            ["DTSTART;TZID=Europe/Berlin:20261203T003000", "RRULE:FREQ=WEEKLY;UNTIL=20261216T233000Z"],
            ["12-03", "12-10", "12-17"],
        ),
        (
            ["DTSTART;TZID=Europe/Berlin:20261203T003000", "RRULE:FREQ=WEEKLY;COUNT=3", "EXDATE:20261209T233000Z"],
            ["12-03", "12-17"],
        ),
        (["DTSTART:20261202T150000", "RDATE:20261204T150000,20261207T150000"], ["12-02", "12-04", "12-07"]),
        (["DTSTART:20261202T150000", "STATUS:CANCELLED"], []),
    ],
)
def test_rules_are_followed_on_the_clock_of_the_event(lines: list[str], expected: list[str]) -> None:
    found = read_lessons(calendar(*lines), FIRST, LAST, BERLIN)
    assert [f"{day:%m-%d}" for day, _, _ in found.days] == expected
    assert not found.left_out


def test_a_lesson_keeps_its_time_over_the_change_of_the_clock() -> None:
    lines = ("DTSTART;TZID=Europe/Berlin:20261014T153000", "RRULE:FREQ=WEEKLY;COUNT=4")
    found = read_lessons(calendar(*lines), date(2026, 10, 1), LAST, BERLIN)
    assert {at for _, _, at in found.days} == {time(15, 30)}
    # Seen from where the clock does not change, it moves.
    found = read_lessons(calendar(*lines), date(2026, 10, 1), LAST, UTC)
    assert [at for _, _, at in found.days] == [time(13, 30), time(13, 30), time(14, 30), time(14, 30)]


def test_one_lesson_that_was_moved_and_one_that_was_called_off() -> None:
    event = "BEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Ottavia\r\n{}\r\nEND:VEVENT\r\n"
    zoned = "DTSTART;TZID=Europe/Berlin"
    data = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n" + "".join(
        event.format("\r\n".join(lines))
        for lines in (
            (f"{zoned}:20261202T153000", "RRULE:FREQ=WEEKLY;COUNT=4"),
            (f"{zoned}:20261211T100000", "RECURRENCE-ID;TZID=Europe/Berlin:20261209T153000"),
            (f"{zoned}:20261216T153000", "RECURRENCE-ID:20261216T143000Z", "STATUS:CANCELLED"),
        )
    )
    found = read_lessons(f"{data}END:VCALENDAR\r\n".encode(), FIRST, LAST, BERLIN)
    assert [(f"{day:%m-%d}", at) for day, _, at in found.days] == [
        ("12-02", time(15, 30)),
        ("12-11", time(10)),
        ("12-23", time(15, 30)),
    ]


@pytest.mark.parametrize("data", [b"nothing of it", b"\xff\xfe", b"x" * 5_000_000])
def test_what_is_no_calendar_is_refused(data: bytes) -> None:
    with pytest.raises(Unreadable, match="calendar"):
        read_lessons(data, FIRST, LAST, UTC)


@pytest.mark.parametrize("rule", ["DAILY", "DAILY;COUNT=2000", "MONTHLY"])
def test_many_entries_of_decades_are_met_with_a_bound(rule: str) -> None:
    one = f"BEGIN:VEVENT\r\nSUMMARY:a\r\nDTSTART:20210101T100000\r\nRRULE:FREQ={rule}\r\nEND:VEVENT\r\n".encode()
    data = b"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n" + one * 2000 + b"END:VCALENDAR\r\n"
    found = read_lessons(data, FIRST, LAST, UTC)
    assert len(found.days) == {"DAILY": (LAST - FIRST).days + 1, "MONTHLY": 2}.get(rule, 0)
    assert found.left_out == ("“a” and what follows repeats over more time than can be gone through.",)
    assert MOST_EVENTS >= 2000
