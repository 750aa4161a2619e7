"""Versions of a drill under a climb: a newer one is offered, and one student may go on with a drill of his own."""

from flask.testing import FlaskClient

from tests.conftest import Studio
from tests.web.test_takes import send, take


def test_a_newer_version_is_offered_and_not_forced(client: FlaskClient, studio: Studio) -> None:
    drill = client.get("/api/drills/1").get_json()["drill"]
    client.put("/api/drills/1", json={"drill": {**drill, "title": "Slip steps, anew"}, "based_on": 1})
    climb = client.get(f"/api/climbs/{studio.climb.id}").get_json()
    assert (climb["version"], climb["newer_version"], climb["title"]) == (1, 2, "Slip steps")
    body = {"version": 2, "based_on": climb["revision"]}
    gone_on = client.put(f"/api/climbs/{studio.climb.id}/version", json=body).get_json()
    assert (gone_on["version"], gone_on["newer_version"], gone_on["title"]) == (2, None, "Slip steps, anew")
    assert client.put(f"/api/climbs/{studio.climb.id}/version", json={"version": 9, "based_on": 2}).status_code == 404


def test_a_drill_of_ones_own_leaves_the_one_for_everybody_as_it_is(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/climbs/{studio.climb.id}"
    before = client.get(address).get_json()
    drill = client.get("/api/drills/1").get_json()["drill"]
    send(client, take(studio))
    own = {**drill, "title": "Nora’s own: Slip steps", "meter": "3/4"}
    body = {"drill": own, "based_on": before["revision"], "key": "own-drill"}
    made = client.put(f"{address}/own", json=body).get_json()
    assert (made["title"], made["version"], made["rung"], made["newer_version"]) == (
        own["title"],
        1,
        before["rung"],
        None,
    )
    assert made["drill_id"] != before["drill_id"]
    assert client.get(f"{address}/drill").get_json()["drill"]["meter"] == "3/4"
    # A second arrival of the press makes nothing, and the drill for everybody has no second version.
    assert client.put(f"{address}/own", json=body).get_json()["drill_id"] == made["drill_id"]
    assert len(client.get("/api/drills").get_json()["drills"]) == 2
    assert [one["version"] for one in client.get("/api/drills/1/versions").get_json()["versions"]] == [1]
    # Its takes stay with what they were played of.
    assert [one["drill_id"] for one in client.get("/api/takes").get_json()["takes"]] == [1]
    stale = client.put(f"{address}/own", json={**body, "key": "another-key", "based_on": before["revision"]})
    assert stale.status_code == 409
    assert len(client.get("/api/drills").get_json()["drills"]) == 2
    unfit = client.put(f"{address}/own", json={"drill": {**own, "meter": "9/9"}, "based_on": made["revision"]})
    assert unfit.status_code == 422
