"""One speed, wherever it is told: the bench, the climb, its target, the log, the CSV, the stand."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.conftest import Studio

PLAN = {"start": "92", "target": {"kind": "bpm", "bpm": "120"}}
THIRTEEN = {
    "title": "Thirteen",
    "material": {"kind": "one_note", "beats": 6},
    "legs": [{"division": "4", "following": ["4", "5"]}],
    "meter": "3/4 +1/16",
    "bpm": "92",
}
SPARSE = {"title": "Sparse", "material": {"kind": "count", "text": "1 (e) (&) a (2) (e) & (a) 3 4"}, "bpm": "92"}
ACROSS = {
    "title": "Across",
    "material": {"kind": "strum", "chords": "C", "pattern": "1 (&) (2) (3) & (4)"},
    "bpm": "92",
}


def asked(client: FlaskClient, method: str, address: str, **json: Any) -> Any:
    answer = client.open(f"/api{address}", method=method, json=json or None)
    assert answer.status_code in {200, 201}, answer.json
    return answer.json if answer.is_json else answer.text


@pytest.mark.parametrize(("drill", "nps"), [(THIRTEEN, "6.13"), (SPARSE, "3.07"), (ACROSS, "1.02")])
def test_a_speed_is_the_same_everywhere(client: FlaskClient, studio: Studio, drill: dict[str, Any], nps: str) -> None:
    kept = asked(client, "POST", "/drills", drill=drill)
    assert asked(client, "POST", "/reading", drill=drill)["peak_nps"] == nps
    assert asked(client, "POST", "/performance", drill=drill)["reading"]["peak_nps"] == nps
    ladder = asked(client, "POST", "/climbs/ladder", drill_id=kept["id"], plan=PLAN)
    assert ladder["treads"][0]["nps"] == nps
    climb = asked(client, "POST", "/climbs", student_id=studio.student.id, drill_id=kept["id"], plan=PLAN)
    assert (climb["nps"], climb["treads"][0]["nps"]) == (nps, nps)
    take = {
        "id": f"take-{nps.replace('.', '-')}-000",
        "student_id": studio.student.id,
        "climb_id": climb["id"],
        "rung": 1,
        "drill_id": kept["id"],
        "version": 1,
        "bpm": "92",
        "click": {"kind": "named", "plan": "every_beat"},
        "source": "by_ear",
        "ear": "clean",
        "played_at": "2026-01-05T10:00:00+00:00",
        "end": 10,
    }
    asked(client, "POST", "/takes", **take)
    log = asked(client, "GET", f"/log?student_id={studio.student.id}")
    assert log["last_clean"] == f"{nps} n/s at 92 bpm"
    assert f",92.00,{nps}," in asked(client, "GET", f"/log.csv?student_id={studio.student.id}")


def test_a_target_speed_is_that_of_the_drill(client: FlaskClient) -> None:
    kept = asked(client, "POST", "/drills", drill=THIRTEEN)
    plan = {**PLAN, "target": {"kind": "speed", "nps": "8", "division": "5"}}
    last = asked(client, "POST", "/climbs/ladder", drill_id=kept["id"], plan=plan)["treads"][-1]
    # 60 · 8 / 4: four sixteenths a beat, whatever the long beat is divided into.
    assert (last["bpm"], last["nps"]) == ("120", "8")


def test_the_hits_alone_show_one_speed(client: FlaskClient) -> None:
    drill = {"material": {"kind": "one_note", "beats": 4}, "legs": [{"division": "2"}, {"division": "3"}], "bpm": "60"}
    alone = asked(client, "POST", "/performance", drill=drill, part={"step": "hits"})["reading"]
    assert {leg["nps"] for leg in alone["legs"]} == {"1"} == {alone["peak_nps"]}
    assert alone["closest"] == "1000 ms apart"
