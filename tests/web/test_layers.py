"""What stand and bench ask for besides a reading: what tools did, comparing, guesses, circuits, layers."""

from dataclasses import replace
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.core.drill import Cue, Drill, Enters, FootLayer, Hits
from ripresa.core.drill.accents import Walk
from ripresa.core.drill.hands import ByOrder, ByPlace
from ripresa.core.drill.material import Cells, Count, OneNote
from ripresa.core.exact import Fraction as F
from ripresa.formats.drill_file import plain
from tests.strategies import legs
from tests.web.unpacked import unpacked

DRILL = Drill(material=OneNote(beats=8), legs=legs(2), hands=ByPlace())


def asked(client: FlaskClient, path: str, drill: Drill, **more: Any) -> dict[str, Any]:
    answer = client.post(f"/api/{path}", json={"drill": plain(drill), **more})
    assert answer.status_code == 200, answer.json
    found: dict[str, Any] = answer.get_json()
    return found


def test_a_tool_says_what_is_another_thing_now_and_which_strokes_turned(client: FlaskClient) -> None:
    found = asked(client, "tool", DRILL, tool="double")
    assert found["drill"]["legs"] == [{"division": "4", "following": []}]
    assert "The stroke turns round on &: down instead of up." in found["told"]
    rows = asked(client, "reading", replace(DRILL, legs=legs(4)))["rows"]
    events = [event for row in rows for event in unpacked(row["events"])]
    assert {events[number]["count"] for number in found["turned"]} == {"&"}


def test_a_press_tells_which_strokes_it_turned_and_no_more(client: FlaskClient) -> None:
    drill = replace(DRILL, material=Count("1/4 & 2 & 3 &"), hands=ByPlace(), legs=legs(1))
    found = asked(client, "tool", replace(drill, material=Count("1 & 2 3 &")), tool="grid", count=4)
    assert found["told"] == ["The stroke turns round on &: down instead of up."]
    assert asked(client, "tool", drill, tool="press", event=1)["told"] == []


def test_a_press_is_not_told(client: FlaskClient) -> None:
    found = asked(client, "tool", replace(DRILL, hits=Hits("1")), tool="hit", event=2)
    assert (found["told"], found["turned"]) == ([], [])
    assert found["drill"]["hits"]["text"] == "1 2"


def test_what_a_drill_is_compared_with_comes_with_its_difference(client: FlaskClient) -> None:
    found = asked(client, "compare", DRILL, bpm="92")["others"]
    by_name = {one["name"]: one for one in found}
    assert by_name["without accents"]["told"] == ["Accents on nothing instead of the beat."]
    assert by_name["with the other lead"]["drill"]["hands"]["lead"] == "up"
    one = asked(client, "compare", DRILL, other=plain(replace(DRILL, register=0, bpm=F(99))))["others"]
    assert one == [{"name": "", "drill": plain(replace(DRILL, bpm=F(99))), "told": ["Both sound the same."]}]


@pytest.mark.parametrize(("at", "right"), [(0.05, True), (2.0, False)])
def test_a_guess_says_how_far_off_it_was(client: FlaskClient, at: float, right: bool) -> None:
    found = asked(client, "guess", DRILL, bpm="60", at=at)
    assert found["is_right"] is right
    assert found["told"].endswith(".")


def test_a_guess_counts_from_where_the_part_begins(client: FlaskClient) -> None:
    # Bar 2 alone goes round: its first moment is a beat 1.
    found = asked(client, "guess", DRILL, bpm="60", at=0, part={"bars": {"first": 2, "last": 2}})
    assert found["told"] == "On beat 1: to the moment."
    refused = client.post("/api/guess", json={"drill": plain(DRILL), "at": "soon"})
    assert refused.status_code == 422


def test_a_circuit_is_gone_through_one_after_the_other(client: FlaskClient) -> None:
    drill = replace(DRILL, hands=ByOrder(("R", "L")))
    found = asked(client, "circuit", drill, turned="hand_letters_feet", bpm="60")
    assert [one["name"] for one in found["stations"]][:2] == ["left foot", "right foot"]
    assert found["seconds"] == "32"
    heard = asked(client, "performance", drill, over=found["stations"][0]["over"])
    assert [line["name"] for line in heard["reading"]["rows"][0]["lines"]] == ["foot"]
    refused = client.post("/api/circuit", json={"drill": plain(DRILL), "turned": "keys"})
    assert refused.status_code == 422
    assert refused.get_json()["field"] == "turned"


def test_layers_come_in_the_order_in_which_they_enter(client: FlaskClient) -> None:
    drill = replace(DRILL, foot=FootLayer("right"), enters=Enters(hands=2))
    found = asked(client, "performance", drill, part={"layers": 1})
    assert found["layers"] == [
        {"name": "the foot", "bar": 1, "is_there": True},
        {"name": "the hands", "bar": 2, "is_there": False},
    ]
    assert found["performance"]["tones"] == {"rows": 0}
    assert (found["is_practice"], found["is_measured"]) == (True, False)
    assert asked(client, "performance", DRILL)["layers"] == []


def test_rows_carry_hits_foot_and_voice_and_the_walk_its_stations(client: FlaskClient) -> None:
    drill = replace(DRILL, hits=Hits("1 ~2"), foot=FootLayer("left"), voice="divisions", cues=(Cue("low", "leg", 1),))
    found = asked(client, "reading", drill)
    assert [line["name"] for line in found["rows"][0]["lines"]] == ["hits", "foot", "voice"]
    assert [mark["word"] for mark in found["rows"][0]["lines"][0]["marks"]] == ["■", "□"]
    assert found["cues"] == ["low (in leg 1)"]
    walk = replace(DRILL, material=OneNote(beats=32), legs=legs(4), accents=Walk(width=2, bars=2))
    assert asked(client, "reading", walk)["stations"] == [1, 3, 5, 7]
    assert asked(client, "reading", replace(DRILL, material=Cells(), legs=legs(1)))["cells"] is True


def test_the_count_is_there_to_read_before_it_enters(client: FlaskClient) -> None:
    rows = asked(client, "reading", replace(DRILL, enters=Enters(count=2)))["rows"]
    assert [row["is_counted"] for row in rows] == [False, True]


def test_the_shelf_shows_a_beat_of_each_stage_or_the_bar_of_one(client: FlaskClient) -> None:
    drills = {one["key"]: one for one in client.get("/api/shelf").get_json()["drills"]}
    assert all(one["row"]["bar"] == 1 and one["row"]["events"] for one in drills.values())
    ladder = drills["up-and-down-the-ladder"]["row"]
    bays, events = unpacked(ladder["bays"], "BayTable"), unpacked(ladder["events"], "EventTable")
    # Quarters, eighths, triplets, sixteenths, fives and sixes: a beat each, side by side; then down again, to eight.
    assert [bay["x"] for bay in bays] == [0, 1, 2, 3, 4, 5, 6, 7]
    assert [sum(int(event["x"] + 1e-6) == beat for event in events) for beat in range(6)] == [1, 2, 3, 4, 5, 6]
    fives = drills["fives-on-the-pier"]["row"]
    assert len(unpacked(fives["bays"], "BayTable")) == 4


def test_a_language_is_a_code(client: FlaskClient) -> None:
    kept = client.get("/api/settings").get_json()["settings"]
    good = client.put("/api/settings", json={"settings": {**kept, "language": "de"}})
    assert good.get_json()["settings"]["language"] == "de"
    refused = client.put("/api/settings", json={"settings": {**kept, "language": "-v /etc/passwd"}})
    assert (refused.status_code, refused.get_json()["field"]) == (422, "language")
