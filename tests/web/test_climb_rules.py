"""Climbs by their rules, through the API: parts on rungs, words on rungs, the clock, two up and one back."""

from typing import Any

from flask.testing import FlaskClient

from tests.conftest import Clock, Studio
from tests.web.test_takes import send, take

RULE = {"kind": "even", "step": "4"}


def begin(client: FlaskClient, studio: Studio, **plan: Any) -> dict[str, Any]:
    whole = {"start": "84", "target": {"kind": "bpm", "bpm": "100"}, "rule": RULE, "clean_to_rise": 1, **plan}
    body = {"student_id": studio.student.id, "drill_id": studio.drill.id, "plan": whole}
    found = client.post("/api/climbs", json=body)
    assert found.status_code == 201, found.get_json()
    return dict(found.get_json())


def heard(
    client: FlaskClient, studio: Studio, clock: Clock, climb: dict[str, Any], mark: str = "clean", **more: Any
) -> dict[str, Any]:
    """Send a take by ear of the present rung of a climb."""
    clock.forward(minutes=1)
    number = int(clock.moment.timestamp())
    tread = climb["treads"][climb["rung"] - 1]
    body = take(studio, number) | {
        "climb_id": climb["id"],
        "rung": climb["rung"],
        "bpm": tread["bpm"],
        "part": tread["part"],
        "source": "by_ear",
        "notes": [],
        "ear": {"mark": mark},
        "played_at": clock.moment.isoformat(),
    }
    return dict(send(client, {**body, **more})["climb"])


def follow(client: FlaskClient, clock: Clock, climb: dict[str, Any]) -> dict[str, Any]:
    clock.forward(minutes=1)
    body = {"decision": climb["word"]["decision"], "from_rung": climb["rung"]}
    return dict(client.post(f"/api/climbs/{climb['id']}/moves", json=body).get_json())


def test_two_up_one_back_is_followed_rung_by_rung(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    climb = begin(client, studio, moving="up_two_back_one")
    way = [climb["rung"]]
    for _ in range(6):
        climb = follow(client, clock, heard(client, studio, clock, climb))
        way.append(climb["rung"])
    assert way == [1, 3, 2, 4, 3, 5, 5]
    assert "then back one to make it firm" in climb["moving_words"]


def test_the_teachers_own_word_goes_by_one(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    climb = heard(client, studio, clock, begin(client, studio, moving="up_two_back_one"), mark="shaky")
    moved = client.post(f"/api/climbs/{climb['id']}/moves", json={"decision": "up", "from_rung": 1}).get_json()
    assert moved["rung"] == 2


def test_the_clock_adds_up_what_was_played_on_a_rung(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    climb = begin(client, studio, moving="time_box", box_minutes=1)
    climb = heard(client, studio, clock, climb, end=30.0)
    assert (climb["word"]["decision"], climb["word"]["sentence"]) == ("stay", "0.5 of 1 minute at this rung.")
    climb = heard(client, studio, clock, climb, end=30.0)
    assert climb["word"]["decision"] == "up"
    climb = follow(client, clock, climb)
    # The next rung begins at nothing.
    assert climb["word"]["sentence"] == "0.0 of 1 minute at this rung."


def test_a_rung_of_a_division_takes_takes_of_that_division_alone(
    client: FlaskClient, studio: Studio, clock: Clock
) -> None:
    rule = {"kind": "divide", "divisions": ["2", "3", "4"], "step": "8"}
    climb = begin(client, studio, rule=rule)
    assert [(one["bpm"], one["words"]) for one in climb["treads"]][:4] == [
        ("84", "2 a beat"),
        ("84", "3 a beat"),
        ("84", "4 a beat"),
        ("92", "4 a beat"),
    ]
    other = heard(client, studio, clock, climb, part=None)
    assert other["treads"][0]["marks"] == []
    climb = heard(client, studio, clock, climb)
    assert climb["treads"][0]["marks"] == ["clean"]
    assert climb["word"]["heading"] == "On to 3 a beat"
    places = client.get(f"/api/climbs/{climb['id']}/map").get_json()["rows"]
    at = {(one["division"], one["bpm"]): one for row in places for one in row}
    assert (at["2", "84"]["played"], at["2", "84"]["rung"], at["3", "84"]["rung"]) == ("clean", 1, 2)


def test_a_rule_that_a_drill_cannot_follow_is_refused(client: FlaskClient, studio: Studio) -> None:
    count = {"title": "Said", "material": {"kind": "count", "text": "1 & a 2 3 4"}}
    drill = client.post("/api/drills", json={"drill": count}).get_json()
    plan = {"start": "60", "rule": {"kind": "divide", "divisions": ["2", "3"], "step": "4"}}
    refused = client.post("/api/climbs/ladder", json={"drill_id": drill["id"], "plan": plan})
    assert refused.status_code == 422
    assert "rhythm of this drill is its own" in refused.get_json()["message"]
    assert studio.drill.id != drill["id"]


def test_by_heart_goes_step_by_step_at_one_tempo(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    climb = begin(client, studio, target={"kind": "heart", "steps": ["from the page", "by heart"]})
    assert [one["words"] for one in climb["treads"]] == ["from the page", "by heart"]
    assert [one["height"] for one in climb["treads"]] == [0, 1]
    climb = heard(client, studio, clock, climb)
    assert climb["word"]["heading"] == "On to by heart"
    climb = follow(client, clock, climb)
    # A take goes to the rung that it says, where several have its tempo.
    climb = heard(client, studio, clock, climb)
    assert [one["marks"] for one in climb["treads"]] == [["clean"], ["clean"]]
    assert climb["word"]["heading"] == "The target stands"
    assert climb["target_words"] == "playing by heart, at 84"


def test_a_band_says_where_one_stands(client: FlaskClient, studio: Studio) -> None:
    climb = begin(client, studio, target={"kind": "band", "low": "8", "high": "9", "division": "4"})
    assert climb["band_place"] == "below 8 to 9 notes a second"
    assert climb["target_words"] == "8 to 9 notes a second"
    assert climb["treads"][-1]["bpm"] == "120"
    rows = client.get(f"/api/climbs/{climb['id']}/map").get_json()["rows"]
    inside = [float(one["nps"]) for row in rows for one in row if one["inside"]]
    assert inside
    assert all(8 <= nps <= 9 for nps in inside)


def test_a_zigzag_keeps_takes_of_one_tempo_apart(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    climb = begin(client, studio, rule={"kind": "zigzag", "step": "8", "back": "4"})
    assert [one["bpm"] for one in climb["treads"]] == ["84", "92", "88", "96", "92", "100"]
    for _ in range(4):
        climb = follow(client, clock, heard(client, studio, clock, climb))
    climb = heard(client, studio, clock, climb, mark="shaky")
    assert [one["marks"] for one in climb["treads"]] == [["clean"]] * 4 + [["shaky"], []]
    # Another click ladder leaves each of them on its own rung.
    ladder = {"clicks": [{"kind": "named", "plan": "every_beat"}, {"kind": "named", "plan": "two_and_four"}]}
    body = {**ladder, "click_order": "at_target", "from_rung": 5, "based_on": climb["revision"]}
    changed = client.put(f"/api/climbs/{climb['id']}/clicks", json=body).get_json()
    assert [one["marks"] for one in changed["treads"]][:6] == [["clean"]] * 4 + [["shaky"], []]
