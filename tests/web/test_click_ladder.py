"""The click ladder of a climb is changed on the way, and kept as a student's own."""

from typing import Any

from flask.testing import FlaskClient

from tests.conftest import Studio
from tests.web.test_takes import send, take

BEAT, BACK, NONE = ({"kind": "named", "plan": plan} for plan in ("every_beat", "two_and_four", "none"))


def change(client: FlaskClient, studio: Studio, clicks: list[Any], order: str = "each_tempo", rung: int = 1) -> Any:
    address = f"/api/climbs/{studio.climb.id}"
    based_on = client.get(address).get_json()["revision"]
    body = {"clicks": clicks, "click_order": order, "from_rung": rung, "based_on": based_on}
    return client.put(f"{address}/clicks", json=body)


def test_a_climb_is_given_another_ladder_and_stays_at_its_tempo(client: FlaskClient, studio: Studio) -> None:
    found = change(client, studio, [BEAT, BACK]).get_json()
    assert [(tread["bpm_label"], tread["click_words"]) for tread in found["treads"][:3]] == [
        ("84", "every beat"),
        ("84", "2 and 4"),
        ("88", "every beat"),
    ]
    assert (found["rung"], found["bpm_label"]) == (1, "84")
    client.post(f"/api/climbs/{studio.climb.id}/moves", json={"decision": "up", "from_rung": 1})
    client.post(f"/api/climbs/{studio.climb.id}/moves", json={"decision": "up", "from_rung": 2})
    shared = change(client, studio, [BEAT, BACK], "with_tempo", rung=3).get_json()
    assert (shared["rung"], shared["bpm_label"], len(shared["treads"])) == (2, "88", 5)


def test_takes_stay_with_their_tempo_and_count_for_the_click_that_is_due(client: FlaskClient, studio: Studio) -> None:
    change(client, studio, [BEAT, BACK])
    for number in range(2):
        send(client, take(studio, number, click=BACK))
    found = client.get(f"/api/climbs/{studio.climb.id}").get_json()
    # Said to be on rung 1, they were played under the click of rung 2.
    assert [tread["marks"] for tread in found["treads"][:2]] == [[], ["clean", "clean"]]
    assert found["word"]["decision"] == "stay"
    for number in range(2, 4):
        send(client, take(studio, number, click=BEAT))
    found = client.get(f"/api/climbs/{studio.climb.id}").get_json()
    assert found["word"]["heading"] == "On to 2 and 4"
    after = change(client, studio, []).get_json()
    assert len(after["treads"][0]["marks"]) == 4


def test_a_ladder_that_the_drill_cannot_have_is_refused_with_its_click(client: FlaskClient, studio: Studio) -> None:
    refused = change(client, studio, [BEAT, {"kind": "typed", "text": "9"}])
    assert refused.status_code == 422
    assert refused.get_json()["field"] == "clicks"
    assert refused.get_json()["message"].startswith("Click 2 of the ladder: The click has a beat 9")
    assert change(client, studio, [BEAT], rung=3).status_code == 409


def test_a_students_own_ladder_is_kept_and_taken_away(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/students/{studio.student.id}/clicks"
    kept = client.put(address, json={"clicks": [BACK, NONE], "based_on": 1}).get_json()
    assert (kept["clicks"], kept["revision"]) == ([BACK, NONE], 2)
    roster = {one["id"]: one["clicks"] for one in client.get("/api/students").get_json()["students"]}
    assert roster == {studio.student.id: [BACK, NONE], studio.other.id: []}
    assert client.put(address, json={"clicks": [BACK, BACK], "based_on": 2}).status_code == 422
    assert client.put(address, json={"clicks": [], "based_on": 2}).get_json()["clicks"] == []
    assert client.put("/api/students/999/clicks", json={"clicks": [], "based_on": 1}).status_code == 404
