"""The practice file and what comes back from it: all times are in the file, and each take counts once."""

import gzip
import json
import re
from base64 import b64decode, b64encode
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.core.errors import NotFound, Unreadable
from ripresa.core.rhythm import Counting
from ripresa.formats.practice_file import LARGEST
from ripresa.formats.results_file import read_results
from ripresa.store import climbs, drills
from ripresa.store.identity import studio_id
from ripresa.web.app import create_app
from ripresa.web.blueprint import Api
from tests.conftest import NOW, Studio
from tests.web.test_click_ladder import BEAT, NONE, change

PAGE = '<title>Ripresa</title><script id="practice"><!--practice--></script><script id="words"><!--words--></script>'
TAKE = "taketake-0001"


@pytest.fixture
def page(app: Api, tmp_path: Path) -> Api:
    """The app with a page of its own to put practice files into."""
    (tmp_path / "practice.html").write_text(PAGE, "utf-8")
    app.config["PRACTICE"] = tmp_path
    return app


def json_of(answer: Any, status: int = 200) -> Any:
    assert answer.status_code == status, answer.text
    return answer.json


def results(client: FlaskClient, studio: Studio, **changed: object) -> dict[str, Any]:
    """Return results of one take on the first rung: eight eighths, each a hundredth late."""
    with client.application.at_studio():  # type: ignore[attr-defined]
        ours = studio_id()
    beat = 60 / 84
    take = {
        "id": TAKE,
        "climb_id": studio.climb.id,
        "drill_id": studio.drill.id,
        "version": 1,
        "rung": 1,
        "bpm": "84",
        "click": {"kind": "named", "plan": "every_beat"},
        "played_at": "2026-11-20T17:00:00.000Z",
        "start": 0,
        "end": 4 * beat,
        "notes": [{"at": number * beat / 2 + 0.01, "key": None} for number in range(8)],
        "mark": None,
    }
    return {
        "format": "ripresa.results/1",
        "studio": ours,
        "student_id": studio.student.id,
        "student": "Mira",
        "takes": [{**take, **changed}],
        "question": "Is the & late?",
    }


def send(client: FlaskClient, values: object, **more: object) -> Any:
    text = values if isinstance(values, str) else json.dumps(values)
    return client.post("/api/results", json={"text": text, **more})


def test_all_times_are_in_the_file(client: FlaskClient, studio: Studio) -> None:
    found = json_of(client.get(f"/api/practice-file.json?climb={studio.climb.id}"))
    (climb,) = found["climbs"]
    assert [rung["bpm_label"] for rung in climb["rungs"]] == ["84", "88", "92", "96", "100"]
    for rung in climb["rungs"]:
        drill = json_of(client.get(f"/api/drills/{studio.drill.id}"))["drill"]
        body = {"drill": drill, "bpm": rung["bpm"], "before": {"count_bars": 1, "aloud": True}}
        assert rung["performance"] == json_of(client.post("/api/performance", json=body))["performance"]
    # Rungs under the same click share a rail.
    assert {rung["reading"] for rung in climb["rungs"]} == {0}
    assert [rung["number"] for rung in climb["rungs"] if rung["is_now"]] == [1]


def test_the_sentence_is_the_drill_whatever_click_its_last_rung_has(client: FlaskClient, studio: Studio) -> None:
    change(client, studio, [BEAT, NONE])
    (climb,) = json_of(client.get(f"/api/practice-file.json?climb={studio.climb.id}"))["climbs"]
    assert climb["rungs"][-1]["click_words"] != "every beat"
    assert "Click every beat at" in "".join(run["text"] for run in climb["brief"])


def test_the_file_is_one_page_with_its_words_and_its_contents(page: Api, studio: Studio) -> None:
    answer = page.test_client().get(f"/api/practice-file.html?climb={studio.climb.id}")
    assert answer.status_code == 200
    assert len(answer.data) < LARGEST
    assert "slip-steps-mira-sund.html" in answer.headers["Content-Disposition"]
    text = answer.text
    packed = re.search(r'id="practice">([A-Za-z0-9+/=]+)<', text)
    assert packed
    inside = json.loads(gzip.decompress(b64decode(packed[1])))
    assert inside["student"] == "Mira Sund"
    assert "<title>Mira Sund: Slip steps</title>" in text
    assert 'id="words">data:audio/flac;base64,' in text
    # The same climb is the same file.
    assert page.test_client().get(f"/api/practice-file.html?climb={studio.climb.id}").data == answer.data


def test_a_file_is_for_one_student(client: FlaskClient, studio: Studio) -> None:
    other = json_of(
        client.post(
            "/api/climbs",
            json={
                "student_id": studio.other.id,
                "drill_id": studio.drill.id,
                "plan": {"start": "84", "target": {"kind": "bpm", "bpm": "100"}},
            },
        ),
        201,
    )
    refused = client.get(f"/api/practice-file.json?climb={studio.climb.id}&climb={other['id']}")
    assert json_of(refused, 422)["message"].startswith("A practice file is for one student")


def test_without_a_built_page_there_is_a_sentence(tmp_path: Path) -> None:
    app = create_app(tmp_path / "studio.sqlite3", practice=tmp_path)
    with app.at_studio():
        studio = Studio()
    answer = app.test_client().get(f"/api/practice-file.html?climb={studio.climb.id}")
    assert "make build" in json_of(answer, 404)["message"]


def test_takes_that_come_back_are_judged_as_any_take(client: FlaskClient, studio: Studio) -> None:
    found = json_of(send(client, results(client, studio)))
    assert found["sentence"] == "1 take of Mira Sund came back and is judged."
    assert found["question"] == "Is the & late?"
    log = json_of(client.get(f"/api/log?student_id={studio.student.id}"))
    (entry,) = [one for one in log["entries"] if one["take_id"] == TAKE]
    assert entry["note"] == "Is the & late?"
    take = json_of(client.get(f"/api/takes/{TAKE}"))
    assert take["figures"]["matched"] == 8
    assert take["source"] == "taps"


def test_what_comes_twice_counts_once(client: FlaskClient, studio: Studio) -> None:
    send(client, results(client, studio))
    again = json_of(send(client, f"Hello, here they are:\n{json.dumps(results(client, studio))}\nSee you!"))
    assert (again["kept"], again["again"]) == (0, 1)
    assert again["sentence"].endswith("1 take had come before, and counts once.")
    assert json_of(client.get(f"/api/log?student_id={studio.student.id}"))["takes"] == 1


def test_what_was_only_heard_needs_the_students_word(client: FlaskClient, studio: Studio) -> None:
    found = json_of(send(client, results(client, studio, notes=[], mark="clean")))
    assert found["kept"] == 1
    take = json_of(client.get(f"/api/takes/{TAKE}"))
    assert (take["source"], take["mark"]) == ("by_ear", "clean")
    silent = json_of(send(client, results(client, studio, id="taketake-0002", notes=[])))
    assert "needs a mark" in silent["left_out"][0]["why"]


@pytest.mark.parametrize(
    ("changed", "why"),
    [
        ({"version": 99}, "version"),
        ({"climb_id": 999}, "This climb does not exist."),
        ({"drill_id": 7}, "another drill"),
        ({"end": 50_000.0}, "two hours"),
    ],
)
def test_a_take_that_is_not_ours_is_told_and_the_others_are_kept(
    client: FlaskClient, studio: Studio, changed: dict[str, Any], why: str
) -> None:
    values = results(client, studio)
    values["takes"].append({**values["takes"][0], "id": "taketake-0002", **changed})
    found = json_of(send(client, values))
    assert found["kept"] == 1
    (left,) = found["left_out"]
    assert why in left["why"]
    assert left["what"] == "20 Nov, 17:00, at 84"


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "not the results"),
        ("{", "not the results"),
        ("[]", "not the results"),
        ('{"format": "else/3"}', "of the kind “else/3”"),
        ('{"format": "ripresa.results/1"}', "“studio” is missing"),
        ('{"a":' * 5000 + "1" + "}" * 5000, "not the results"),
    ],
)
def test_what_are_no_results_is_refused(client: FlaskClient, studio: Studio, text: str, says: str) -> None:
    assert studio.climb
    assert says in json_of(send(client, text), 422)["message"]


@pytest.mark.parametrize(
    "text", ["{" * 3_000_000, '{"a":' * 600_000, "[{" * 1_000_000, "> {\n" * 600_000, '{"a": "' * 400_000]
)
def test_no_text_takes_longer_than_its_length(text: str) -> None:
    with pytest.raises(Unreadable, match="not the results"):
        read_results(text)


def test_results_are_found_in_what_a_mail_program_makes_of_them(client: FlaskClient, studio: Studio) -> None:
    values = results(client, studio, question="Is my thumb {too} high?")
    plain = json.dumps(values)
    wrapped = "\r\n".join(f"> {plain[at : at + 72]}" for at in range(0, len(plain), 72))
    expected = read_results(plain)
    for text in (f"{plain}\n{plain}", f"Hi :{{ there!\n\n{wrapped}\n\nBye {{}}", json.dumps(values, indent=2)):
        assert read_results(text) == expected


def test_another_students_and_another_studios_results_are_told(client: FlaskClient, studio: Studio) -> None:
    other = send(client, results(client, studio), student_id=studio.other.id)
    assert json_of(other, 422)["message"] == (
        "These results are Mira Sund’s, and this is the log of Oskar Vane. Drop them there."
    )
    assert "another studio" in json_of(send(client, {**results(client, studio), "studio": "elsewhere"}), 422)["message"]


@pytest.mark.parametrize("number", ["1e999", "-5", '"a"', "NaN"])
def test_hostile_numbers_are_refused(client: FlaskClient, studio: Studio, number: str) -> None:
    text = json.dumps(results(client, studio)).replace('"start": 0', f'"start": {number}')
    assert send(client, text).status_code == 422


@pytest.mark.parametrize(
    ("moment", "year"),
    [("9999-12-31T23:59:59-14:00", 9999), ("0001-01-01T00:00:00+14:00", 1), ("1969-12-31T12:00:00Z", 1969)],
)
def test_a_clock_that_is_centuries_out_is_told_and_the_others_are_kept(
    client: FlaskClient, studio: Studio, moment: str, year: int
) -> None:
    values = results(client, studio)
    values["takes"].append({**values["takes"][0], "id": "taketake-0002", "played_at": moment})
    found = json_of(send(client, values))
    assert found["kept"] == 1
    (left,) = found["left_out"]
    assert left["why"] == f"What is kept lies between 1970 and 2100, not in the year {year}. Is the clock right?"


def test_own_words_go_along_as_far_as_they_can_be_spoken(
    client: FlaskClient, studio: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    def spoken(word: str, _synthesiser: object) -> bytes:
        if word == "boing":
            raise NotFound("no synthesiser")
        return word.encode()

    monkeypatch.setattr("ripresa.web.routes.practice_file.own_flac", spoken)
    address = "/api/practice-file.json"
    assert json_of(client.get(f"{address}?climb={studio.climb.id}"))["own_words"] == {}
    drill = replace(studio.drill.drill, counting=Counting("own", "2: # hoppla; 4: # boing hej &"))
    with client.application.at_studio():  # type: ignore[attr-defined]
        own = drills.add_drill(drill, NOW)
        climb = climbs.add_climb(studio.student.id, own.id, None, studio.climb.plan, NOW)
    values = json_of(client.get(f"{address}?climb={climb.id}"))
    said = b64encode(b"hoppla").decode()
    assert values["own_words"]["hoppla"] == f"data:audio/flac;base64,{said}"
    assert "boing" not in values["own_words"]
    assert not values["own_words"].keys() & values["voice"]["words"].keys()
