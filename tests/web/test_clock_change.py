"""Days and times of day across a change of the clock, where the teacher is."""

import base64
from datetime import UTC, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
import tzlocal
from flask.testing import FlaskClient

from ripresa.core.studio import StudentDetails
from ripresa.store import students
from ripresa.web.blueprint import Api
from ripresa.work.days import begin_of, day_of, local_now, own_zone
from tests.conftest import Clock, Studio
from tests.web.test_takes import send, take

BERLIN = ZoneInfo("Europe/Berlin")


@pytest.mark.parametrize(
    ("played", "now", "day"),
    [
        # Twenty past midnight in summer, told in winter: an hour less than today's offset.
        ("2026-10-24T22:20:00Z", "2026-10-27T12:00", "2026-10-25"),
        # Twenty to midnight in winter, told in summer: an hour more.
        ("2026-03-27T22:40:00Z", "2026-03-31T12:00", "2026-03-27"),
        ("2026-10-24T21:59:00Z", "2026-10-27T12:00", "2026-10-24"),
    ],
)
def test_a_take_is_of_the_day_that_the_clock_showed(
    client: FlaskClient, studio: Studio, clock: Clock, played: str, now: str, day: str
) -> None:
    clock.moment = datetime.fromisoformat(now).replace(tzinfo=BERLIN)
    send(client, take(studio, played_at=played, end=120.0))
    page = client.get(f"/api/students/{studio.student.id}").get_json()
    minutes = {one["date"]: one["minutes"] for week in page["weeks"] for one in week["days"]}
    assert {one: told for one, told in minutes.items() if told not in {"", "0"}} == {day: "2"}
    later = (datetime.fromisoformat(day) + timedelta(days=1)).date()
    for since, count in ((day, 1), (later, 0)):
        log = client.get(f"/api/log?student_id={studio.student.id}&since={since}").get_json()
        assert len(log["entries"]) == count


def lessons(client: FlaskClient, start: str, rule: str) -> Any:
    text = (
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Mira\r\n"
        f"DTSTART;TZID=Europe/Berlin:{start}\r\nRRULE:{rule}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    )
    found = client.post("/api/students/lessons", json={"base64": base64.b64encode(text.encode()).decode()})
    (entry,) = found.get_json()["entries"]
    return entry


@pytest.mark.parametrize(("start", "time"), [("20261006T153000", "15:30"), ("20261006T233000", "23:30")])
def test_a_lesson_keeps_its_time_and_its_day_across_the_change(
    client: FlaskClient, clock: Clock, start: str, time: str
) -> None:
    clock.moment = datetime(2026, 10, 5, 12, tzinfo=BERLIN)
    entry = lessons(client, start, "FREQ=WEEKLY;COUNT=8")
    assert entry["time"] == time
    first = datetime(2026, 10, 6)
    assert entry["dates"] == [(first + timedelta(weeks=week)).date().isoformat() for week in range(8)]


@pytest.mark.parametrize(("now", "first"), [("00:30", 0), ("00:59", 0), ("01:00", 0), ("12:30", 4), ("23:50", 4)])
def test_the_lessons_that_come_next_have_words(
    app: Api, client: FlaskClient, studio: Studio, clock: Clock, now: str, first: int
) -> None:
    clock.moment = datetime.fromisoformat(f"2026-05-06T{now}").replace(tzinfo=UTC)
    with app.at_studio():
        students.delete_student(studio.student.id)
        for hour in range(12):
            students.add_student(StudentDetails(f"Student {hour:02}", "guitar", 2, f"{8 + hour}:00"), clock.moment)
    told = [bool(one["words"]) for one in client.get("/api/desk").get_json()["lessons"]]
    assert told == [first <= number < first + 8 for number in range(12)]


def test_a_day_begins_where_the_teacher_is_on_the_days_of_the_change_too() -> None:
    for day, offset in ((24, 2), (25, 2), (26, 1)):
        begin = begin_of(datetime(2026, 10, day).date(), BERLIN)
        assert begin.utcoffset() == timedelta(hours=offset)
        assert day_of(begin.astimezone(UTC), BERLIN) == begin.date()


def test_this_computers_zone_has_a_name(monkeypatch: pytest.MonkeyPatch) -> None:
    own_zone.cache_clear()
    monkeypatch.setenv("TZ", "Europe/Berlin")
    tzlocal.reload_localzone()
    assert str(own_zone()) == "Europe/Berlin"
    assert local_now().tzinfo == BERLIN
    own_zone.cache_clear()
    monkeypatch.setattr("tzlocal.get_localzone", lambda: (_ for _ in ()).throw(LookupError("two zones")))
    assert local_now().utcoffset() == datetime.now().astimezone().utcoffset()
    monkeypatch.undo()
    own_zone.cache_clear()
    tzlocal.reload_localzone()
