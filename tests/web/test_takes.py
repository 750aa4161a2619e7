import math
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.core.exact import Fraction as F
from ripresa.core.playing import expected_onsets
from ripresa.core.reading import read
from ripresa.formats.drill_file import from_plain
from tests.conftest import NOW, Clock, Studio


def onsets(studio: Studio, bpm: int = 84, late: float = 0.02) -> list[float]:
    due = expected_onsets(read(studio.drill.drill), F(bpm), 0.0, 30.0)
    # A hand that is steady but for a small wobble, which no slot has for itself.
    return [at + late + 0.004 * math.sqrt(2) * math.sin(2.4 * index) for index, (at, _) in enumerate(due)]


def take(studio: Studio, number: int = 1, **parts: Any) -> dict[str, Any]:
    return {
        "id": f"take-{number:08}",
        "student_id": studio.student.id,
        "climb_id": studio.climb.id,
        "rung": 1,
        "drill_id": studio.drill.id,
        "version": 1,
        "bpm": "84",
        "click": "every_beat",
        "source": "taps",
        "played_at": NOW.isoformat(),
        "end": 30.0,
        "onsets": onsets(studio),
        **parts,
    }


def send(client: FlaskClient, body: dict[str, Any]) -> dict[str, Any]:
    kept = client.post("/api/takes", json=body)
    assert kept.status_code in {200, 201}, kept.text
    judged: dict[str, Any] = kept.get_json()
    return judged


def test_taps_are_matched_measured_and_judged(client: FlaskClient, studio: Studio) -> None:
    judged = send(client, take(studio))
    figures = judged["take"]["figures"]
    assert (figures["matched"], figures["missed"], figures["extra"]) == (figures["due"], 0, 0)
    assert figures["bias"]["label"] == "+20 ms"
    assert figures["spread"]["label"] == "4 ms"
    assert judged["take"]["mark"] == "clean"
    assert judged["climb"]["word"]["sentence"] == "One clean take, 1 more to go up."


def test_a_measured_latency_is_taken_off(client: FlaskClient, studio: Studio) -> None:
    judged = send(client, take(studio, latency_ms=20, is_calibrated=True))
    assert judged["take"]["figures"]["bias"]["label"] == "0 ms"
    assert judged["take"]["figures"]["bias_note"] == "against the click"


def test_without_it_the_bias_is_called_what_it_is(client: FlaskClient, studio: Studio) -> None:
    assert "latency not measured" in send(client, take(studio))["take"]["figures"]["bias_note"]


def test_two_clean_takes_lead_up_and_one_press_follows(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    send(client, take(studio, 1))
    judged = send(client, take(studio, 2))
    assert judged["climb"]["word"]["heading"] == "Up to 88"
    assert judged["climb"]["waiting"]["decision"] == "up"
    clock.forward(minutes=1)
    address = f"/api/climbs/{studio.climb.id}/moves"
    moved = client.post(address, json={"decision": "up", "from_rung": 1, "take_id": "take-00000002"})
    assert moved.json is not None
    assert (moved.json["rung"], moved.json["waiting"]) == (2, None)
    assert [tread["state"] for tread in moved.json["treads"]] == ["done", "now", "ahead", "ahead", "target"]
    again = client.post(address, json={"decision": "up", "from_rung": 1})
    assert again.status_code == 409


def test_an_overruled_word_is_kept_with_its_reason(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    send(client, take(studio, 1))
    clock.forward(minutes=1)
    client.post(
        f"/api/climbs/{studio.climb.id}/moves",
        json={"decision": "up", "from_rung": 1, "reason": "It sits; I heard enough."},
    )
    entry = client.get(f"/api/log?student_id={studio.student.id}").json["entries"][0]  # type: ignore[index]
    assert entry["sentence"] == "It sits; I heard enough. The rule said stay."
    assert entry["heading"] == "up one rung: rung 1 → 2"


@pytest.mark.parametrize(("decision", "edge"), [("back", "first")])
def test_there_is_no_rung_below_the_first(client: FlaskClient, studio: Studio, decision: str, edge: str) -> None:
    refused = client.post(f"/api/climbs/{studio.climb.id}/moves", json={"decision": decision, "from_rung": 1})
    assert refused.status_code == 422
    assert refused.json is not None
    assert edge in refused.json["message"]


def test_a_take_on_another_rung_does_not_move_the_climb(client: FlaskClient, studio: Studio) -> None:
    for number in (1, 2):
        judged = send(client, take(studio, number, rung=2, bpm="88", onsets=onsets(studio, 88)))
    assert judged["climb"]["word"]["decision"] == "stay"


def test_the_same_take_sent_twice_counts_once(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio, 1))
    judged = send(client, take(studio, 1))
    assert judged["climb"]["word"]["sentence"] == "One clean take, 1 more to go up."


def test_an_ear_needs_no_onsets_and_no_climb(client: FlaskClient, studio: Studio) -> None:
    by_ear = take(studio, source="by_ear", ear="shaky", onsets=[], climb_id=None, rung=None)
    judged = send(client, by_ear)
    assert judged["climb"] is None
    assert judged["take"]["figures"] is None
    assert judged["take"]["reasons"] == ["Marked shaky by ear, by the teacher."]


def test_a_take_that_began_at_a_bar_line_is_measured_from_there(client: FlaskClient, studio: Studio) -> None:
    start = 4 * 60 / 84
    later = [at for at in onsets(studio) if at > start - 0.1]
    figures = send(client, take(studio, start=start, onsets=later))["take"]["figures"]
    assert (figures["missed"], figures["extra"]) == (0, 0)


@pytest.mark.parametrize(
    ("part", "status", "says"),
    [
        ({"end": 0.0}, 422, "greater than 0"),
        ({"start": 40.0}, 422, "ends after it starts"),
        ({"end": 9000.0}, 422, "two hours"),
        ({"bpm": "0"}, 422, "cannot be played"),
        ({"click": "tick tock"}, 422, "not a click plan"),
        ({"onsets": ["soon"]}, 422, "should be a number"),
        ({"source": "by_ear"}, 422, "needs a mark"),
        ({"source": "telepathy"}, 422, "Use 'taps'"),
        ({"id": "no spaces, please"}, 422, "id"),
        ({"student_id": 99}, 422, "another student’s"),
        ({"student_id": 99, "climb_id": None}, 404, "student does not exist"),
        ({"climb_id": 99}, 404, "climb does not exist"),
        ({"version": 7}, 404, "no version 7"),
    ],
    ids=lambda value: " ".join(value) if isinstance(value, dict) else "",
)
def test_a_take_that_cannot_be_is_refused(
    client: FlaskClient, studio: Studio, part: dict[str, Any], status: int, says: str
) -> None:
    refused = client.post("/api/takes", json=take(studio, **part))
    assert refused.status_code == status
    assert refused.json is not None
    assert says in refused.json["message"]
    assert client.get("/api/takes").json == {"takes": []}


def test_a_number_that_is_none_is_refused(client: FlaskClient, studio: Studio) -> None:
    import json

    text = json.dumps(take(studio, onsets=[0.5, float("nan")]))
    assert client.post("/api/takes", data=text, content_type="application/json").status_code == 422


def test_a_stand_in_plays_what_is_due(client: FlaskClient, studio: Studio) -> None:
    drill = client.get(f"/api/drills/{studio.drill.id}").json["drill"]  # type: ignore[index]
    player = {"spread_ms": 0.0, "miss_percent": 0.0}
    found = client.post("/api/stand-in", json={"drill": drill, "bpm": "60", "end": 4.0, "player": player}).get_json()
    assert [note["at"] for note in found["notes"]] == pytest.approx([0.5 * number for number in range(8)], abs=1e-4)
    assert found["end"] == 4.0


def test_latency_is_measured(client: FlaskClient) -> None:
    due = [float(number) for number in range(16)]
    taps = [at + 0.03 + 0.002 * (-1) ** number for number, at in enumerate(due)]
    found = client.post("/api/latency", json={"due": due, "played": taps}).json
    assert found is not None
    assert found["latency_ms"] == pytest.approx(30, abs=2.1)
    assert found["label"].endswith("from 14 taps")


def test_too_few_taps_measure_no_latency(client: FlaskClient) -> None:
    refused = client.post("/api/latency", json={"due": [0.0, 1.0], "played": [0.0]})
    assert refused.status_code == 422
    assert refused.json is not None
    assert "Tap once with each click" in refused.json["message"]


def test_a_note_is_written_on_a_take(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio))
    client.put("/api/takes/take-00000001/note", json={"note": " loose wrist "})
    assert client.get("/api/takes").json["takes"][0]["note"] == "loose wrist"  # type: ignore[index]
    assert client.put("/api/takes/none-of-these/note", json={"note": ""}).status_code == 404


def test_a_take_too_long_to_be_measured_is_kept_as_it_was_played(client: FlaskClient, studio: Studio) -> None:
    long = take(studio, end=7200.0, bpm="240", climb_id=None, rung=None, onsets=[0.5 * n for n in range(5000)])
    judged = send(client, long)
    assert (judged["take"]["mark"], judged["take"]["figures"]) == ("none", None)
    assert "up to 20,000 are measured at once. It is kept as it was played." in judged["take"]["reasons"][0]
    drill = client.get(f"/api/drills/{studio.drill.id}").get_json()["drill"]
    refused = client.post("/api/stand-in", json={"drill": drill, "bpm": "240", "end": 7200.0, "player": {}})
    assert (refused.status_code, refused.get_json()["field"]) == (422, "end")


def drilled(client: FlaskClient, studio: Studio, number: int = 1, **player: float) -> dict[str, Any]:
    """Send a take of three passes that the stand-in plays on the climb; return what came back."""
    turn = float(read(studio.drill.drill).loop_beats * 60 / 84)
    drill = client.get(f"/api/drills/{studio.drill.id}").get_json()["drill"]
    asked = {"drill": drill, "bpm": "84", "end": 6 * turn, "player": {"spread_ms": 6, "seed": number, **player}}
    notes = client.post("/api/stand-in", json=asked).get_json()["notes"]
    whole = take(studio, number, source="stand_in", end=6 * turn, onsets=[], notes=notes, is_calibrated=True)
    return send(client, whole)


def test_notes_come_with_what_their_source_knows_and_old_takes_with_moments_alone(
    client: FlaskClient, studio: Studio
) -> None:
    new = drilled(client, studio, 1)
    assert new["take"]["figures"]["accents"].startswith("accents ")
    assert {hand["symbol"] for hand in new["take"]["figures"]["hands"]} == {"D", "U"}
    old = send(client, take(studio, 2))
    assert old["take"]["figures"]["accents"] == ""


def test_every_dot_knows_its_note(client: FlaskClient, studio: Studio) -> None:
    figures = drilled(client, studio)["take"]["figures"]
    reading = read(studio.drill.drill)
    dots = [dot for leg in figures["legs"] for slot in leg["slots"] for dot in slot["dots"]]
    assert all(reading.events[dot["event"]].kind == "note" for dot in dots)
    assert all(reading.events[point["event"]].kind == "note" for point in figures["line"])


def test_a_place_that_is_late_each_time_is_drawn_where_it_fell(client: FlaskClient, studio: Studio) -> None:
    reading = read(studio.drill.drill)
    number = next(index for index, event in enumerate(reading.events) if event.kind == "note" and event.onset >= 2)
    due = expected_onsets(reading, F(84), 0.0, 46.0)
    beat = 60 / 84
    late = [
        at + (beat / 8 if event == number else 0.0) + 0.002 * (-1) ** index for index, (at, event) in enumerate(due)
    ]
    judged = send(client, take(studio, onsets=late, end=46.0))["take"]
    (found,) = [one for one in judged["figures"]["places"] if one["outside"]]
    assert found["event"] == number
    assert found["beats"] == pytest.approx(1 / 8, abs=0.01)
    assert found["short"] == f"{round(found['beats'] * beat * 1000)} late"


def test_an_ear_overrules_the_machine_which_stays_beside_it(client: FlaskClient, studio: Studio) -> None:
    shaky = drilled(client, studio, 1, spread_ms=40)
    assert shaky["take"]["mark"] == "shaky"
    ear = {"mark": "clean", "by": "student", "ease": 4, "talk": True, "faults": ["tempo"]}
    heard = client.put("/api/takes/take-00000001/ear", json={"ear": ear}).get_json()
    assert (heard["take"]["mark"], heard["take"]["machine"], heard["take"]["ear"]) == ("clean", "shaky", ear)
    assert heard["take"]["reasons"][0] == "Marked clean by ear, by the student."
    assert heard["climb"]["word"]["sentence"] == "One clean take, 1 more to go up."
    # What the ear ticked leads to its remedies.
    assert heard["take"]["remedies"][0]["key"] == "inner_pulse"
    refused = client.put("/api/takes/take-00000001/ear", json={"ear": {**ear, "ease": 9}})
    assert (refused.status_code, refused.get_json()["field"]) == (422, "ear.ease")


def test_a_take_too_near_to_call_counts_as_nothing_until_an_ear_decides(client: FlaskClient, studio: Studio) -> None:
    turn = float(read(studio.drill.drill).loop_beats * 60 / 84)
    played = [at for at in onsets(studio) if at < turn]
    near = send(client, take(studio, 1, end=turn, onsets=[*played[:9], *played[10:19], *played[20:]]))
    assert near["take"]["mark"] == "near"
    assert near["take"]["reasons"][:2] == [
        f"Too near to call: 2 missed of {len(played)} notes (limit 3 %, 1 here).",
        "A take of 2 passes would settle it.",
    ]
    assert [(one["label"], one["passes"]) for one in near["take"]["offers"]] == [
        ("Play 2 passes", 2),
        ("Mark it by ear", None),
    ]
    assert near["climb"]["word"]["sentence"] == "2 clean in a row at 84 go up."
    heard = client.put("/api/takes/take-00000001/ear", json={"ear": {"mark": "clean"}}).get_json()
    assert heard["climb"]["word"]["sentence"] == "One clean take, 1 more to go up."


def test_a_remedy_is_taken_in_one_press_waited_for_and_when_it_is_clean_the_rung_comes_back(
    client: FlaskClient, studio: Studio
) -> None:
    shaky = drilled(client, studio, 1, crowd_percent=60)
    first = shaky["take"]["remedies"][0]
    assert first["key"] == "division_alone"
    press = {"remedy": first["key"], "bpm": "50", "key": "one-press-of-many"}
    kept = [client.post("/api/takes/take-00000001/remedies", json=press).get_json() for _ in range(2)]
    assert kept[0] == kept[1]
    assert (kept[0]["bpm"], kept[0]["is_clean"], kept[0]["climb_id"]) == ("50", False, studio.climb.id)
    waiting = client.get(f"/api/climbs/{studio.climb.id}").get_json()
    assert waiting["remedy"]["id"] == kept[0]["id"]
    assert waiting["next_sentence"] == f"waits for: {first['name']}"

    asked = {"drill": kept[0]["drill"], "part": kept[0]["part"], "bpm": "50", "player": {"spread_ms": 6}}
    turn = client.post("/api/stand-in", json=asked).get_json()["end"]
    notes = client.post("/api/stand-in", json={**asked, "end": 12 * turn}).get_json()["notes"]
    tried = take(studio, 2, bpm="50", end=12 * turn, notes=notes, onsets=[], source="stand_in", is_calibrated=True)
    clean = send(client, {**tried, "remedy_id": kept[0]["id"], "rung": None})
    assert clean["take"]["mark"] == "clean", clean["take"]["reasons"]
    assert clean["take"]["rung"] is None
    assert clean["climb"]["remedy"] is None
    # It is practice on the climb, with a line of its own and its own last clean tempo.
    log = client.get(f"/api/log?student_id={studio.student.id}").get_json()
    assert [(part["takes"], part["last_clean"]) for part in log["parts"]] == [(1, "50 bpm")]
    assert log["parts"][0]["name"] in log["entries"][0]["heading"]
    listed = client.get(f"/api/remedies?climb_id={studio.climb.id}").get_json()["remedies"]
    assert [one["is_clean"] for one in listed] == [True]
    assert client.get("/api/remedies/99").status_code == 404


def test_a_remedy_that_a_take_does_not_lead_to_is_refused(client: FlaskClient, studio: Studio) -> None:
    drilled(client, studio, 1, crowd_percent=60)
    for body, status in (({"remedy": "magic"}, 422), ({"remedy": "division_alone", "bpm": "0"}, 422)):
        assert client.post("/api/takes/take-00000001/remedies", json=body).status_code == status


def test_threes_for_fours_offer_the_drill_in_threes(client: FlaskClient, studio: Studio) -> None:
    drill = {
        **client.get(f"/api/drills/{studio.drill.id}").get_json()["drill"],
        "legs": [{"division": "2"}, {"division": "4"}],
    }
    kept = client.post("/api/drills", json={"drill": drill}).get_json()
    reading = read(from_plain(kept["drill"]))
    ends = 8 * float(reading.loop_beats * 60 / 84)
    due = expected_onsets(reading, F(84), 0.0, ends)
    events = [reading.events[index] for _, index in due]
    beat = 60 / 84
    starts = {
        round(at - event.slot * beat / 4, 6) for (at, _), event in zip(due, events, strict=True) if event.division == 4
    }
    threes = [start + beat * slot / 3 for start in starts for slot in range(3)]
    rest = [at for (at, _), event in zip(due, events, strict=True) if event.division != 4]
    played = take(studio, 1, drill_id=kept["id"], climb_id=None, rung=None, end=ends, onsets=sorted([*threes, *rest]))
    refused = send(client, played)["take"]
    assert refused["reasons"] == ["This fits threes better than the fours of the drill."]
    other = refused["offers"][0]["drill"]
    assert [leg["division"] for leg in other["legs"]] == ["2", "3"]
    assert other["title"].endswith(", 3 a beat")


def test_a_remedy_of_another_student_is_refused(client: FlaskClient, studio: Studio) -> None:
    drilled(client, studio, 1, crowd_percent=60)
    kept = client.post("/api/takes/take-00000001/remedies", json={"remedy": "division_alone"}).get_json()
    details = {"name": "Runa Holt", "instrument": "guitar", "lesson_weekday": None, "lesson_time": ""}
    other = client.post("/api/students", json={"details": details}).get_json()
    body = take(studio, 2, student_id=other["id"], climb_id=None, rung=None, remedy_id=kept["id"])
    refused = client.post("/api/takes", json=body)
    assert (refused.status_code, refused.get_json()["field"]) == (422, "remedy_id")


def test_a_part_is_measured_and_moves_no_climb(client: FlaskClient, studio: Studio) -> None:
    drill = client.get(f"/api/drills/{studio.drill.id}").get_json()["drill"]
    part = {"seam": 0}
    asked = {"drill": drill, "bpm": "84", "end": 60.0, "part": part, "player": {"spread_ms": 5}}
    notes = client.post("/api/stand-in", json=asked).get_json()["notes"]
    tried = take(studio, 1, end=60.0, notes=notes, onsets=[], part=part, source="stand_in", is_calibrated=True)
    judged = send(client, tried)
    assert (judged["take"]["mark"], judged["take"]["rung"]) == ("clean", None)
    assert judged["take"]["part_name"].startswith("the change ")
    assert judged["climb"]["word"]["sentence"] == "2 clean in a row at 84 go up."
    assert client.post("/api/takes", json={**tried, "id": "another-take", "part": {"seam": 9}}).status_code == 422


def test_a_kept_take_is_judged_again_beside_what_was_said_then(client: FlaskClient, studio: Studio) -> None:
    drilled(client, studio, 1)
    again = client.get("/api/takes/take-00000001/again").get_json()
    assert (again["then"]["mark"], again["mark"], again["is_other"]) == ("clean", "clean", False)
    assert again["figures"] == again["then"]["figures"]
    # Held to something stricter from now on: what was said then stays.
    limits = {"evenness": "strict", "but": [{"figure": "slips", "evenness": "easy"}]}
    climb = client.put(f"/api/climbs/{studio.climb.id}/limits", json={"limits": limits, "based_on": 1}).get_json()
    assert climb["held_to"] == "evenness strict, but slips easy"
    again = client.get("/api/takes/take-00000001/again").get_json()
    assert again["then"]["mark"] == "clean"
    stale = client.put(f"/api/climbs/{studio.climb.id}/limits", json={"limits": {"but": []}, "based_on": 1})
    assert stale.status_code == 409


def test_a_refused_take_offers_the_tempo_that_was_played(client: FlaskClient, studio: Studio) -> None:
    refused = drilled(client, studio, 1, drift_percent=10)
    assert (refused["take"]["mark"], refused["climb"]["word"]["decision"]) == ("none", "stay")
    first = refused["take"]["offers"][0]
    # 10 % over 84 are 92.4.
    assert (first["kind"], first["label"]) == ("tempo", f"Go to {first['bpm']}")
    assert abs(int(first["bpm"]) - 92) <= 1


@pytest.mark.parametrize(
    ("parts", "field", "says"),
    [
        ({"played_at": "9999-12-31T23:59:59-14:00"}, "played_at", "not in the year 9999"),
        ({"played_at": "0001-01-01T00:00:00+14:00"}, "played_at", "not in the year 1"),
        ({"played_at": "2101-01-01T00:00:00Z"}, "played_at", "between 1970 and 2100"),
        ({"end": 1e20}, "end", "A take lasts from 0 to 86400 seconds, not 1e+20."),
        ({"end": 86_401}, "end", "not 86401."),
    ],
)
def test_a_moment_or_a_length_that_nobody_plays_is_refused_by_name(
    client: FlaskClient, studio: Studio, parts: dict[str, Any], field: str, says: str
) -> None:
    refused = client.post("/api/takes", json=take(studio, **parts))
    assert (refused.status_code, refused.get_json()["field"]) == (422, field)
    assert says in refused.get_json()["message"]
    assert client.get(f"/api/takes?climb_id={studio.climb.id}").get_json()["takes"] == []


@pytest.mark.parametrize(
    ("parts", "says"),
    [
        ({"id": "x"}, "“id” cannot be 'x'. Write 8 to 64 letters, digits and hyphens."),
        ({"bpm": "1e3"}, "“bpm”"),
    ],
)
def test_a_refusal_shows_no_pattern(client: FlaskClient, studio: Studio, parts: dict[str, Any], says: str) -> None:
    message = client.post("/api/takes", json=take(studio, **parts)).get_json()["message"]
    assert message.startswith(says)
    assert not set(message) & set("^$[]{}\\")


@pytest.mark.parametrize("moment", ["1970-01-01T00:00:00Z", "2100-12-31T23:59:59Z"])
def test_the_first_and_the_last_year_are_kept(client: FlaskClient, studio: Studio, moment: str) -> None:
    assert client.post("/api/takes", json=take(studio, played_at=moment)).status_code == 201
    assert client.get(f"/api/log?student_id={studio.student.id}").status_code == 200


def test_changes_inside_a_leg_are_told_and_no_mark_on_every_beat(client: FlaskClient, studio: Studio) -> None:
    legs = [{"division": "6", "following": ["5"]}]
    drill = {"material": {"kind": "one_note", "beats": 8}, "legs": legs, "title": "Turn about"}
    kept = client.post("/api/drills", json={"drill": drill}).get_json()
    asked = {"drill": kept["drill"], "bpm": "60", "end": 16.0, "player": {"spread_ms": 5}}
    notes = client.post("/api/stand-in", json=asked).get_json()["notes"]
    played = {"drill_id": kept["id"], "climb_id": None, "rung": None, "bpm": "60", "end": 16.0}
    heard = {"notes": notes, "onsets": [], "source": "stand_in", "is_calibrated": True}
    figures = send(client, take(studio, 1, **played, **heard))["take"]["figures"]
    assert [seam["name"] for seam in figures["seams"]] == ["6 → 5 inside", "5 → 6 inside", "5 → 6"]
    assert [mark["label"] for mark in figures["marks"]] == ["5 → 6"]
