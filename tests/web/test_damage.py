"""A row that cannot be read is named in one place, and the rest goes on."""

import csv
import io

import pytest
from flask.testing import FlaskClient

from ripresa.store.tables import database
from ripresa.web.blueprint import Api
from tests.conftest import Clock, Studio
from tests.web.test_takes import send, take

PLACES = ("/api/desk", "/api/students", "/api/drills", "/api/climbs", "/api/takes")


@pytest.fixture
def damaged(app: Api, client: FlaskClient, studio: Studio, clock: Clock, damage: str) -> FlaskClient:
    """A studio of two climbs with a take and a move, one row of it damaged."""
    plan = {"start": "60", "target": {"kind": "bpm", "bpm": "80"}}
    client.post("/api/drills", json={"drill": {"title": "Another"}})
    for drill in (1, 2):
        client.post("/api/climbs", json={"student_id": studio.other.id, "drill_id": drill, "plan": plan})
    for number in range(2):
        send(client, take(studio, number))
    clock.forward(minutes=1)
    client.post("/api/climbs/1/moves", json={"decision": "stay", "from_rung": 1, "take_id": "take-00000000"})
    with app.at_studio():
        database.execute_sql(damage)
    return client


@pytest.mark.parametrize(
    ("damage", "named"),
    [
        ("UPDATE drill_version SET body = '{' WHERE drill_id = 2", "Drill 2, version 1"),
        ("UPDATE drill_version SET saved_at = 'once' WHERE drill_id = 2", "Drill 2, version 1"),
        ("UPDATE climb SET plan = '[]' WHERE id = 2", "Climb 2"),
        ("UPDATE climb SET rung = 99 WHERE id = 2", "Climb 2"),
        ("UPDATE student SET instrument = 'kazoo' WHERE id = 2", "Student 2"),
        ("UPDATE student SET clicks = '[7]' WHERE id = 2", "Student 2"),
        ("UPDATE take SET bpm = '1/0' WHERE id = 'take-00000001'", "Take take-00000001"),
        ("UPDATE take SET mark = 'wonky' WHERE id = 'take-00000001'", "Take take-00000001"),
        ("UPDATE take SET reasons = '' WHERE id = 'take-00000001'", "Take take-00000001"),
        ("UPDATE take SET played_at = 'yesterday' WHERE id = 'take-00000001'", "Take take-00000001"),
        ("UPDATE move SET decision = 'sideways'", "Move 1"),
        ("UPDATE move SET made_at = ''", "Move 1"),
    ],
)
def test_the_rest_goes_on(damaged: FlaskClient, studio: Studio, named: str) -> None:
    log = damaged.get(f"/api/log?student_id={studio.student.id}")
    saved = damaged.get("/api/log.csv")
    assert (log.status_code, saved.status_code) == (200, 200)
    assert len(list(csv.DictReader(io.StringIO(saved.text)))) == (1 if named.startswith("Take") else 2)
    answers = {address: damaged.get(address) for address in PLACES}
    assert {answer.status_code for answer in answers.values()} == {200}
    # The desk looks at the climbs that stand nearest; what lies further off is named once someone has met it.
    desk = damaged.get("/api/desk").get_json()
    assert named in desk["unread"]
    assert "Mira Sund" in {one["student"]["name"] for one in (*desk["lessons"], *desk["others"])}
    assert damaged.post("/api/students", json={"details": {"name": "New"}}).status_code == 201


@pytest.mark.parametrize("damage", ["UPDATE drill_version SET body = '{' WHERE drill_id = 2"])
def test_what_is_asked_for_by_itself_is_refused_by_its_name(damaged: FlaskClient) -> None:
    refused = damaged.get("/api/drills/2")
    assert refused.status_code == 422
    assert refused.get_json()["message"].startswith("Drill 2, version 1 cannot be read: its data is damaged.")


@pytest.mark.parametrize("damage", ["UPDATE take SET figures = '{}' WHERE id = 'take-00000001'"])
def test_a_take_whose_figures_are_damaged_stays_in_the_lists(damaged: FlaskClient, studio: Studio) -> None:
    log = damaged.get(f"/api/log?student_id={studio.student.id}").get_json()
    assert log["takes"] == 2
    assert damaged.get("/api/takes/take-00000000").get_json()["figures"]["matched"] == 120
    assert damaged.get("/api/takes/take-00000001").status_code == 422
