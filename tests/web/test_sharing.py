"""Drills shared between colleagues: what is new, the same, or differs is told, and nothing is taken unasked."""

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.core.drill import Drill
from ripresa.core.exact import Fraction as F
from ripresa.formats.drill_file import plain, write_drill
from ripresa.formats.shared_file import FORMAT, Beside, SharedDrill, read_shared, write_shared
from ripresa.web.app import create_app
from tests.conftest import Studio

KEY = "press-0001"


def json_of(answer: Any, status: int = 200) -> Any:
    assert answer.status_code == status, answer.text
    return answer.json


def titles(client: FlaskClient) -> list[str]:
    return [one["title"] for one in json_of(client.get("/api/drills"))["drills"]]


def test_a_file_of_drills_is_read_as_it_was_written() -> None:
    shared = (
        SharedDrill(Drill(title="Лодка"), remedies=(Beside("slower", Drill(bpm=F(40))),)),
        SharedDrill(Drill(title="Quay"), variants=(Beside("in E♭", Drill()),)),
    )
    assert read_shared(write_shared(shared)) == shared
    # One drill by itself is a file of one.
    assert read_shared(write_drill(Drill())) == (SharedDrill(Drill()),)


def test_a_file_says_what_is_new_the_same_and_otherwise(client: FlaskClient, studio: Studio) -> None:
    mine = studio.drill.drill
    other = replace(mine, title=" slip  STEPS ", bpm=F(90), purpose="Evenness.")
    text = write_shared((SharedDrill(mine), SharedDrill(other), SharedDrill(Drill(title="Fog"))))
    looked = json_of(client.post("/api/shared/look", json={"text": text}))
    assert [one["state"] for one in looked["drills"]] == ["same", "differs", "new"]
    assert looked["sentence"] == ("3 drills: 1 new here, 1 the same as here, 1 of a title that is here and otherwise.")
    assert looked["drills"][1]["words"] == (
        "It differs in the tempo (84 here, 90 there), what it is for, how it is counted, fingered or said."
    )
    assert looked["drills"][2]["brief"].startswith("Play the scale of")
    assert titles(client) == ["Slip steps"]


def test_drills_are_taken_as_it_is_chosen_and_once(client: FlaskClient, studio: Studio) -> None:
    mine = studio.drill.drill
    text = write_shared(
        (
            SharedDrill(replace(mine, bpm=F(90))),
            SharedDrill(Drill(title="Fog"), variants=(Beside("in G", Drill(title="Fog")),)),
            SharedDrill(Drill(title="Left alone")),
        )
    )
    choices = [
        {"index": 0, "how": "version"},
        {"index": 1, "how": "new", "with_beside": True},
        {"index": 2, "how": "leave"},
    ]
    for _ in range(2):
        taken = json_of(client.post("/api/shared", json={"text": text, "choices": choices, "key": KEY}), 201)
        assert taken["sentence"] == "3 drills kept."
    assert sorted(titles(client)) == ["Fog", "Fog: in G", "Slip steps"]
    kept = json_of(client.get(f"/api/drills/{studio.drill.id}"))
    assert (kept["version"], kept["drill"]["bpm"]) == (2, "90")
    # The climb stays with the version that it was made from.
    assert json_of(client.get(f"/api/climbs/{studio.climb.id}"))["version"] == 1


def test_what_goes_to_a_colleague_has_variants_and_nobodys_name(
    client: FlaskClient, studio: Studio, tmp_path: Path
) -> None:
    climb = {
        "student_id": studio.student.id,
        "drill_id": studio.drill.id,
        "plan": {"start": "84", "target": {"kind": "bpm", "bpm": "100"}},
        "overrides": {"other_lead": True},
    }
    json_of(client.post("/api/climbs", json=climb), 201)
    answer = client.get(f"/api/shared/file.json?drill={studio.drill.id}")
    assert "slip-steps-shared.json" in answer.headers["Content-Disposition"]
    assert "Mira" not in answer.text
    (shared,) = read_shared(answer.text)
    assert shared.drill == studio.drill.drill
    assert len(shared.variants) == 1
    # In another studio all of it is new.
    elsewhere = create_app(tmp_path / "elsewhere.sqlite3").test_client()
    looked = json_of(elsewhere.post("/api/shared/look", json={"text": answer.text}))
    assert [one["state"] for one in looked["drills"]] == ["new"]
    assert looked["drills"][0]["beside"] == [shared.variants[0].name]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "not a file of drills"),
        ("[]", "not a file of drills"),
        ('{"format": "other"}', "not a file of drills"),
        (json.dumps({"format": FORMAT, "drills": []}), "1 to 500 drills, not 0"),
        (json.dumps({"format": FORMAT, "drills": [7]}), "Drill 1 of this file is none"),
        (json.dumps({"format": FORMAT, "drills": [{"drill": {**plain(Drill()), "bpm": "0"}}]}), "Drill 1: "),
        (
            json.dumps({"format": FORMAT, "drills": [{"drill": plain(Drill()), "variants": [{"drill": {"x": 1}}]}]}),
            "Drill 1, variant 1: ",
        ),
        ('{"a":' * 5000 + "1" + "}" * 5000, "not a file of drills"),
    ],
)
def test_what_is_no_file_of_drills_is_refused(client: FlaskClient, text: str, says: str) -> None:
    assert says in json_of(client.post("/api/shared/look", json={"text": text}), 422)["message"]


def test_a_version_of_what_is_not_here_is_refused(client: FlaskClient) -> None:
    body = {"text": write_shared((SharedDrill(Drill()),)), "choices": [{"index": 0, "how": "version"}], "key": KEY}
    assert "is not here" in json_of(client.post("/api/shared", json=body), 422)["message"]
