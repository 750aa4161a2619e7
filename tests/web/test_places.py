"""Desk, climbs, log and sums: what the places show."""

import csv
import io
from datetime import timedelta, timezone
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.store.tables import StudioDatabase
from tests.conftest import Clock, Studio
from tests.web.test_takes import send, take

PLAN: dict[str, Any] = {
    "start": "84",
    "target": {"kind": "bpm", "bpm": "120"},
    "rule": {"kind": "percent", "step": "4"},
}


def test_the_desk_shows_todays_lessons_and_then_the_others(client: FlaskClient, studio: Studio) -> None:
    desk = client.get("/api/desk").json
    assert desk is not None
    assert desk["weekday"] == "Wednesday"
    (lesson,) = desk["lessons"]
    assert (lesson["time"], lesson["student"]["name"], lesson["last_take"]) == ("15:30", "Mira Sund", "no take yet")
    assert lesson["climb"]["next_sentence"] == "2 clean takes at 84 to go up"
    assert [one["student"]["name"] for one in desk["others"]] == ["Oskar Vane"]
    assert desk["others"][0]["climb"] is None
    assert studio.climb.id == lesson["climb"]["id"]


def test_words_wait_on_the_desk_until_they_are_answered(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    for number in (1, 2):
        send(client, take(studio, number))
    waiting = client.get("/api/desk").json["waiting"]  # type: ignore[index]
    assert [climb["waiting"]["heading"] for climb in waiting] == ["Up to 88"]
    clock.forward(minutes=1)
    client.post(f"/api/climbs/{studio.climb.id}/moves", json={"decision": "stay", "from_rung": 1})
    assert client.get("/api/desk").json["waiting"] == []  # type: ignore[index]


def test_the_week_counts_minutes_played(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio, end=30.0))
    week = client.get("/api/desk").json["week"]  # type: ignore[index]
    assert [day["minutes"] for day in week] == [0, 0, 0.5, 0, 0, 0, 0]
    assert [day["name"] for day in week if day["is_today"]] == ["We"]


def test_a_day_is_a_day_where_the_teacher_is(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    # Wednesday 15:00 in Greenwich is Thursday three in the morning in Auckland.
    clock.moment = clock.moment.astimezone(timezone(timedelta(hours=12)))
    send(client, take(studio, end=30.0))
    desk = client.get("/api/desk").get_json()
    assert desk["weekday"] == "Thursday"
    assert [day["minutes"] for day in desk["week"]] == [0, 0, 0, 0.5, 0, 0, 0]
    assert {one["last_take"] for one in desk["others"]} == {"last take today", "no take yet"}


def test_a_ladder_is_shown_before_it_is_climbed(client: FlaskClient, studio: Studio) -> None:
    ladder = client.post("/api/climbs/ladder", json={"drill_id": studio.drill.id, "plan": PLAN}).json
    assert ladder is not None
    assert [tread["bpm_label"] for tread in ladder["treads"]] == [
        "84",
        "87",
        "91",
        "94",
        "98",
        "102",
        "106",
        "111",
        "115",
        "120",
    ]
    assert ladder["sentence"] == "9 steps, 10 rungs from 84 to 120. 1 rung fell together with a neighbour and went."
    assert (ladder["treads"][0]["height"], ladder["treads"][-1]["height"]) == (0, 1)


def test_a_climb_is_started_for_a_student(client: FlaskClient, studio: Studio) -> None:
    body = {"student_id": studio.other.id, "drill_id": studio.drill.id, "plan": PLAN}
    started = client.post("/api/climbs", json=body)
    assert started.status_code == 201
    assert started.json is not None
    assert (started.json["rung"], started.json["bpm_label"], started.json["target_label"]) == (1, "84", "120")
    mine = client.get(f"/api/climbs?student_id={studio.other.id}").json
    assert [one["id"] for one in mine["climbs"]] == [started.json["id"]]  # type: ignore[index]


@pytest.mark.parametrize(
    ("change", "says", "field"),
    [
        ({"target": {"kind": "bpm", "bpm": "60"}}, "above the start", "target"),
        ({"rule": {"kind": "percent", "step": "0"}}, "leads nowhere", "rule.step"),
        ({"target": {"kind": "speed", "nps": "0", "division": "4"}}, "above 0", "target"),
    ],
    ids=["down", "no step", "no speed"],
)
def test_a_plan_that_cannot_be_is_refused(
    client: FlaskClient, studio: Studio, change: dict[str, Any], says: str, field: str
) -> None:
    refused = client.post("/api/climbs/ladder", json={"drill_id": studio.drill.id, "plan": {**PLAN, **change}})
    assert refused.status_code == 422
    assert refused.json is not None
    assert says in refused.json["message"]
    assert refused.json["field"] == field


def test_a_climb_that_does_not_exist(client: FlaskClient) -> None:
    assert client.get("/api/climbs/7").status_code == 404
    assert client.post("/api/climbs/7/moves", json={"decision": "up", "from_rung": 1}).status_code == 404


def test_students_are_added_and_changed(client: FlaskClient) -> None:
    made = client.post("/api/students", json={"details": {"name": "  Ada Brink ", "instrument": "piano"}})
    assert made.status_code == 201
    assert made.json is not None
    assert (made.json["name"], made.json["instrument_name"]) == ("Ada Brink", "piano")
    details = {"name": "Ada Brink", "instrument": "recorder", "lesson_weekday": 3, "lesson_time": "9:15"}
    client.put(f"/api/students/{made.json['id']}", json={"details": details, "based_on": 1})
    assert client.get("/api/students").json["students"][0]["lesson_time"] == "9:15"  # type: ignore[index]


@pytest.mark.parametrize(
    ("details", "field"),
    [
        ({"name": " "}, "name"),
        ({"name": "x" * 81}, "name"),
        ({"name": "Ada", "lesson_time": "quarter past"}, "lesson_time"),
        ({"name": "Ada", "lesson_time": "25:00"}, "lesson_time"),
        ({"name": "Ada", "lesson_weekday": 7}, "lesson_weekday"),
        ({"name": "Ada", "instrument": "kazoo"}, "instrument"),
    ],
    ids=["no name", "long name", "words", "no hour", "no day", "no instrument"],
)
def test_a_student_that_cannot_be_is_refused(client: FlaskClient, details: dict[str, object], field: str) -> None:
    refused = client.post("/api/students", json={"details": details})
    assert refused.status_code == 422
    assert refused.json is not None
    assert refused.json["field"] == field


def test_the_log_has_takes_points_and_a_csv(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio))
    log = client.get(f"/api/log?student_id={studio.student.id}").json
    assert log is not None
    assert log["points"][0]["label"] == "5.6 n/s at 84 bpm"
    assert log["last_clean"] == "5.6 n/s at 84 bpm"
    assert log["entries"][0]["heading"] == "clean at 84 bpm"
    saved = client.get(f"/api/log.csv?student_id={studio.student.id}")
    (row,) = csv.DictReader(io.StringIO(saved.text))
    assert (row["student"], row["drill"], row["mark"], row["rung"]) == ("Mira Sund", "Slip steps", "clean", "1")
    assert len(list(csv.DictReader(io.StringIO(client.get("/api/log.csv").text)))) == 1


@pytest.mark.parametrize("address", ["/api/log?student_id=9", "/api/log.csv?student_id=9"])
def test_the_log_of_nobody_is_not_found(client: FlaskClient, address: str) -> None:
    assert client.get(address).status_code == 404


def test_the_sums_of_the_drawer(client: FlaskClient) -> None:
    found = client.get("/api/sums").json
    assert found is not None
    assert found["speed"] == "7.2 notes a second"
    assert found["speed_working"] == "108 bpm = 1.8 beats a second; × 4 = 7.2 notes a second."
    assert found["dial"] == "Set it to 54. Its first click is beat 2."
    assert found["drift"] == "A click every 1.11 s: 1 % off is heard as 11 ms."
    assert found["groups"].startswith("Home on a beat after 20 notes (5 beats), on a bar line after 80 notes (5 bars")
    assert found["beat_notes"] == "The beats hit notes 1, 5, 4, 3, 2, 1 … of the group."
    assert found["span"] == "14 beats at 108 bpm last 7.78 s."
    assert found["tempi"][5] == {"division": "7", "exact": "68.57", "setting": "69", "gives": "8.05"}


@pytest.mark.parametrize(
    ("asked", "field"),
    [
        ({"bpm": "0"}, "bpm"),
        ({"size": 1}, "size"),
        ({"beats": "0"}, "beats"),
        ({"meter": "9/3"}, "meter"),
        ({"nps": "12-9"}, "nps"),
        ({"click": "thinned"}, "click.plan"),
        ({"click": "{every"}, "click"),
        ({"click": '{"kind": "thinned", "every": "x", "by": "0"}'}, "click.every"),
    ],
    ids=lambda one: one if isinstance(one, str) else "",
)
def test_a_sum_that_cannot_be_worked_out(client: FlaskClient, asked: dict[str, object], field: str) -> None:
    refused = client.get("/api/sums", query_string=asked)
    assert refused.status_code == 422
    assert refused.json is not None
    assert refused.json["field"] == field


@pytest.mark.parametrize(
    ("click", "dial"),
    [
        ('{"kind": "named", "plan": "two_and_four"}', "Set it to 54. Its first click is beat 2."),
        ('{"kind": "thinned", "every": "8", "by": "0"}', "below most metronomes’ lowest"),
        ('{"kind": "drop_out", "on": 1, "off": 1, "grows": 0}', "No single setting: the clicks are uneven."),
        ('{"kind": "typed", "text": "every &"}', "Set it to 108. Its first click is the & of beat 1."),
    ],
)
def test_every_kind_of_click_has_its_dial_in_the_drawer(client: FlaskClient, click: str, dial: str) -> None:
    found = client.get("/api/sums", query_string={"click": click})
    assert found.status_code == 200, found.json
    assert dial in found.get_json()["dial"]


@pytest.mark.parametrize(
    ("nps", "towards"), [("8", "8"), ("9-12", "9 to 12"), ("9 – 12", "9 to 12"), ("8.5 to 9", "8½ to 9")]
)
def test_a_band_is_worked_out_from_end_to_end(client: FlaskClient, nps: str, towards: str) -> None:
    found = client.get("/api/sums", query_string={"nps": nps}).get_json()
    assert found["towards"] == f"{towards} notes a second"
    if nps.startswith("9"):
        row = {"division": "4", "exact": "135 to 180", "setting": "135 to 180", "gives": "9 to 12"}
        assert [{name: text.replace(".00", "") for name, text in one.items()} for one in found["tempi"]][2] == row


def test_slow_is_said_to_be_hard(client: FlaskClient) -> None:
    found = client.get("/api/sums?bpm=54").json
    assert found is not None
    assert found["pulse"] == "Count 3 a beat inside: 162 a minute."
    assert "hard to hold" in found["pulse_note"]


def test_the_desk_asks_as_often_for_many_students_as_for_few(
    client: FlaskClient, studio: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []
    execute: Any = StudioDatabase.execute_sql

    def noted(studio: StudioDatabase, sql: str, *rest: object) -> object:
        asked.append(sql)
        return execute(studio, sql, *rest)

    monkeypatch.setattr(StudioDatabase, "execute_sql", noted)

    def questions() -> int:
        asked.clear()
        assert client.get("/api/desk").status_code == 200
        return len(asked)

    few = questions()
    # Half of them today: what matters in their lessons is asked for all at once.
    for number in range(8):
        lesson = {"lesson_weekday": 2, "lesson_time": "16:00"} if number % 2 else {}
        student = client.post("/api/students", json={"details": lesson | {"name": f"Student {number}"}}).get_json()
        body = {"student_id": student["id"], "drill_id": studio.drill.id, "plan": PLAN}
        client.post("/api/climbs", json=body)
    assert questions() == few < 30
