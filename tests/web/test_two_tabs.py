"""Two tabs, late answers and presses that arrive twice: nobody overwrites anybody, and nothing is done twice."""

import sqlite3
from concurrent.futures import ThreadPoolExecutor
from types import SimpleNamespace
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.web.blueprint import Api
from tests.conftest import Clock, Studio
from tests.web.test_click_ladder import BACK, BEAT, change
from tests.web.test_takes import onsets, send, take

PLAN = {"start": "84", "target": {"kind": "bpm", "bpm": "120"}}
KEY, OTHER = "press-00001", "press-00002"


@pytest.mark.parametrize(
    ("address", "body"),
    [
        ("/api/students", {"details": {"name": "Ada Brink"}}),
        ("/api/drills", {"drill": {"title": "Once"}}),
        ("/api/drills/file", {"text": '{"format": "ripresa.drill/1"}'}),
        ("/api/shelf/lighthouse", {}),
        ("/api/climbs", {"student_id": 1, "drill_id": 1, "plan": PLAN}),
    ],
)
def test_a_press_that_arrives_twice_makes_one(
    client: FlaskClient, studio: Studio, address: str, body: dict[str, Any]
) -> None:
    assert studio
    first, again, other = (client.post(address, json={**body, "key": key}).get_json() for key in (KEY, KEY, OTHER))
    assert first == again
    assert other["id"] == first["id"] + 1


def test_a_key_is_of_one_kind(client: FlaskClient) -> None:
    client.post("/api/students", json={"details": {"name": "Ada"}, "key": KEY})
    refused = client.post("/api/drills", json={"drill": {"title": "X"}, "key": KEY})
    assert (refused.status_code, refused.get_json()["field"]) == (409, "key")


def test_a_word_to_stay_that_arrives_twice_stands_once(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/climbs/{studio.climb.id}/moves"
    for decision in ("stay", "up"):
        body = {"decision": decision, "from_rung": 1, "key": f"press-{decision}"}
        answers = [client.post(address, json=body) for _ in range(3)]
        assert [(one.status_code, one.get_json()["rung"]) for one in answers] == [
            (201, 1 if decision == "stay" else 2)
        ] * 3
    log = client.get(f"/api/log?student_id={studio.student.id}").get_json()
    assert len(log["entries"]) == 2


@pytest.mark.parametrize("identity", ["take-unknown", ""])
def test_a_move_names_a_take_of_its_climb(client: FlaskClient, studio: Studio, identity: str) -> None:
    body = {"decision": "stay", "from_rung": 1, "take_id": identity}
    refused = client.post(f"/api/climbs/{studio.climb.id}/moves", json=body)
    assert (refused.status_code, refused.get_json()["message"]) == (404, "This climb has no such take.")


def test_the_same_take_in_one_moment_is_one_take(app: Api, studio: Studio) -> None:
    body = take(studio)
    with ThreadPoolExecutor(8) as tabs:
        answers = list(tabs.map(lambda _: app.test_client().post("/api/takes", json=body).status_code, range(8)))
    assert sorted(answers) == [200] * 7 + [201]


def test_details_of_a_student_changed_in_two_tabs_are_a_conflict(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/students/{studio.student.id}"
    theirs = {"details": {"name": "Mira S."}, "based_on": 1}
    assert client.put(address, json=theirs).get_json()["revision"] == 2
    mine = client.put(address, json={"details": {"name": "Mira Sund-Berg"}, "based_on": 1})
    assert (mine.status_code, mine.get_json()["field"]) == (409, "based_on")
    assert mine.get_json()["message"].startswith("Mira S. was changed elsewhere")
    # The same change sent again, because its answer was lost, is no conflict.
    assert client.put(address, json=theirs).get_json()["revision"] == 2


def test_ladders_changed_in_two_tabs_are_a_conflict(client: FlaskClient, studio: Studio) -> None:
    own, climb = f"/api/students/{studio.student.id}/clicks", f"/api/climbs/{studio.climb.id}/clicks"
    assert client.put(own, json={"clicks": [BEAT], "based_on": 1}).status_code == 200
    assert client.put(own, json={"clicks": [BACK], "based_on": 1}).status_code == 409
    mine = {"clicks": [BEAT, BACK], "from_rung": 1, "based_on": 1}
    assert client.put(climb, json=mine).get_json()["revision"] == 2
    assert client.put(climb, json={**mine, "clicks": [BACK]}).status_code == 409
    assert client.put(climb, json=mine).get_json()["revision"] == 2


def test_what_a_page_kept_itself_is_no_conflict_when_its_answer_was_lost(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/drills/{studio.drill.id}"

    def save(title: str, writer: str) -> Any:
        return client.put(address, json={"drill": {"title": title}, "based_on": 1, "writer": writer})

    assert save("Half", "page-0001").get_json()["version"] == 2
    assert save("Half said", "page-0001").get_json()["version"] == 3
    assert save("Other", "page-0002").status_code == 409
    assert client.get(address).get_json()["drill"]["title"] == "Half said"


def test_a_late_take_of_a_rung_that_is_gone_locks_no_climb(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    change(client, studio, [BEAT, BACK])
    assert len(client.get(f"/api/climbs/{studio.climb.id}").get_json()["treads"]) == 10
    assert len(change(client, studio, []).get_json()["treads"]) == 5
    late = take(studio, 1, rung=10, bpm="100", click=BACK, onsets=onsets(studio, 100))
    kept = send(client, late)
    assert (kept["take"]["rung"], kept["climb"]["treads"][4]["marks"]) == (5, ["clean"])
    # At a tempo of no rung it is kept, and counts on none.
    assert send(client, take(studio, 2, rung=3, bpm="90", onsets=onsets(studio, 90)))["take"]["rung"] is None
    clock.forward(minutes=1)
    for clicks in ([BEAT, BACK], [BACK], []):
        assert change(client, studio, clicks).status_code == 200
    assert client.get(f"/api/climbs/{studio.climb.id}").get_json()["treads"][4]["marks"] == ["clean"]


def test_a_full_disk_is_told_and_what_was_kept_is_safe(
    client: FlaskClient, studio: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    connect = sqlite3.connect

    def full(*asked: Any, **more: Any) -> sqlite3.Connection:
        made: sqlite3.Connection = connect(*asked, **more)
        made.execute("PRAGMA max_page_count = 1")
        return made

    with monkeypatch.context() as patched:
        # What else in this process keeps something has room.
        patched.setattr("peewee.sqlite3", SimpleNamespace(**{**vars(sqlite3), "connect": full}))
        refused = client.post("/api/takes", json=take(studio, note="x" * 2000))
    assert refused.status_code == 503
    assert refused.get_json()["message"].startswith("The disk is full: Ripresa’s data cannot be kept there.")
    assert send(client, take(studio))["take"]["mark"] == "clean"
