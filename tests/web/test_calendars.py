"""Calendars that go out to a family and come in from one."""

import base64
from typing import Any

from flask.testing import FlaskClient
from icalendar import Calendar

from ripresa.store.tables import database
from ripresa.web.blueprint import Api
from tests.conftest import Clock, Studio
from tests.web.test_students import planned


def test_a_calendar_goes_out_and_lessons_come_in(client: FlaskClient, studio: Studio) -> None:
    planned(client, studio)
    calendar = client.get(f"/api/students/{studio.student.id}/calendar.ics")
    assert calendar.mimetype == "text/calendar"
    text = calendar.get_data(as_text=True)
    assert "SUMMARY:Lesson: Mira Sund" in text
    assert "DTSTART:20260513T153000" in text
    assert "Practise 14 minutes" in text
    found = client.post("/api/students/lessons", json={"base64": base64.b64encode(text.encode()).decode()}).get_json()
    lessons = next(one for one in found["entries"] if one["title"].startswith("Lesson"))
    assert (lessons["dates"], lessons["time"]) == (["2026-05-06", "2026-05-13"], "15:30")
    assert client.post("/api/students/lessons", json={"base64": "?"}).status_code == 422
    assert client.post("/api/students/lessons", json={"base64": "bm9wZQ=="}).status_code == 422


class Family:
    """A calendar that takes files in, as RFC 5545 and 5546 have it: by UID, a later SEQUENCE over an earlier one."""

    def __init__(self) -> None:
        self.events: dict[str, Any] = {}

    def takes_in(self, client: FlaskClient, student_id: int) -> None:
        text = client.get(f"/api/students/{student_id}/calendar.ics").data
        for event in Calendar.from_ical(text).walk("VEVENT"):
            known = self.events.get(str(event["uid"]))
            if known is None or event["sequence"] >= known["sequence"]:
                self.events[str(event["uid"])] = event

    def lessons(self) -> list[str]:
        stand = [one for one in self.events.values() if one["status"] == "CONFIRMED"]
        return sorted(f"{one.decoded('dtstart'):%m-%d %H:%M}" for one in stand if "Lesson" in one["summary"])


def lesson_at(client: FlaskClient, student_id: int, **details: Any) -> None:
    shown = client.get(f"/api/students/{student_id}").get_json()["student"]
    body = {"details": shown["details"] | details, "based_on": shown["revision"]}
    assert client.put(f"/api/students/{student_id}", json=body).status_code == 200


def test_a_familys_calendar_follows_moved_lessons_and_keeps_no_old_day(
    client: FlaskClient, studio: Studio, clock: Clock
) -> None:
    planned(client, studio)
    family, mira = Family(), studio.student.id
    family.takes_in(client, mira)
    assert family.lessons() == ["05-06 15:30", "05-13 15:30"]
    family.takes_in(client, mira)
    assert {one["sequence"] for one in family.events.values()} == {0}
    # Another time on the same day is the same lesson, changed; another day is another, and the old one is off.
    lesson_at(client, mira, lesson_time="16:15")
    family.takes_in(client, mira)
    assert family.lessons() == ["05-06 16:15", "05-13 16:15"]
    lesson_at(client, mira, lesson_weekday=4)
    family.takes_in(client, mira)
    assert family.lessons() == ["05-08 16:15", "05-15 16:15"]
    # Whoever takes the last file alone in has all of it, and the next file says it again; what is over is said no more.
    late = Family()
    late.takes_in(client, mira)
    assert late.lessons() == family.lessons()
    lesson_at(client, mira, lesson_weekday=2)
    clock.forward(days=1)
    family.takes_in(client, mira)
    assert family.lessons() == ["05-13 16:15"]
    uid = next(uid for uid, one in family.events.items() if one["sequence"] == 3)
    assert uid.startswith("lesson-2026-05-13-student-1@")


def test_two_studios_days_are_never_one(app: Api, client: FlaskClient, studio: Studio) -> None:
    planned(client, studio)
    family = Family()
    family.takes_in(client, studio.student.id)
    first = len(family.events)
    with app.at_studio():
        database.execute_sql("UPDATE studio SET id = 'another'")
        database.execute_sql("DELETE FROM given_day")
    family.takes_in(client, studio.student.id)
    assert len(family.events) == 2 * first


def test_given_days_go_with_their_student(app: Api, client: FlaskClient, studio: Studio) -> None:
    planned(client, studio)
    Family().takes_in(client, studio.student.id)
    client.delete(f"/api/students/{studio.student.id}")
    with app.at_studio():
        assert database.execute_sql("SELECT count(*) FROM given_day").fetchone() == (0,)
