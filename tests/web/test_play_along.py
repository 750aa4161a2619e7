"""Play-along files of several rungs: begun, asked for, fetched; refused before anything is made."""

import io
import os
import signal
from functools import partial
from pathlib import Path
from threading import Event
from typing import Any

import pytest
import soundfile
from flask.testing import FlaskClient
from werkzeug.http import parse_options_header

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.formats.play_along_file import PlayAlong, make_file
from ripresa.store.files import DATABASE_NAME
from ripresa.web.app import create_app
from ripresa.web.jobs import MOST_KEPT, Job, Jobs, Tell, Work, apart
from tests.conftest import Clock, Studio


class Later:
    """Does work here, and not before it is told to; counts what was asked for."""

    def __init__(self) -> None:
        self.asked = 0
        self._may = Event()

    def __call__(self, work: Work, target: Path, tell: Tell) -> None:
        self.asked += 1
        self._may.wait()
        work(target, tell)

    def work(self) -> None:
        self._may.set()


def done(client: FlaskClient, key: str) -> Any:
    """Return what is said of a file once it is ready, or cannot be made."""
    while True:
        told = client.get(f"/api/play-along/{key}").get_json()
        if told["ready"] or told["failed"]:
            return told


@pytest.fixture
def later() -> Later:
    return Later()


@pytest.fixture
def client(tmp_path: Path, clock: Clock, later: Later) -> FlaskClient:
    return create_app(tmp_path / DATABASE_NAME, clock=clock, static=tmp_path / "static", run=later).test_client()


@pytest.fixture
def asked(client: FlaskClient, studio: Studio) -> dict[str, Any]:
    assert client is not None
    rungs = [{"bpm": "90"}, {"bpm": "180", "click": {"kind": "named", "plan": "two_and_four"}}]
    return {"drill_id": studio.drill.id, "rungs": rungs, "sound": "flac", "passes": 1}


def test_a_file_of_two_rungs_is_begun_asked_for_and_fetched(
    client: FlaskClient, asked: dict[str, Any], later: Later
) -> None:
    begun = client.post("/api/play-along", json=asked)
    assert begun.status_code == 202
    key = begun.get_json()["key"]
    assert begun.get_json() | {"key": ""} == {
        "key": "",
        "done": 0,
        "steps": 3,
        "sentence": "Tempo 1 of 2.",
        "ready": False,
        "failed": False,
    }
    early = client.get(f"/api/play-along/{key}/file")
    assert (early.status_code, early.get_json()["message"]) == (
        409,
        "This file is not ready yet. Ask again when all its steps are done.",
    )
    later.work()
    ready = done(client, key)
    assert ready["ready"]
    assert ready["sentence"].startswith("Ready: 2 tempi, ")
    file = client.get(f"/api/play-along/{key}/file")
    assert file.mimetype == "audio/flac"
    assert "slip-steps-90-to-180.flac" in file.headers["Content-Disposition"]
    sound, rate = soundfile.read(io.BytesIO(file.data))
    file.close()
    # Each a bar of counting and four bars of drill; three seconds between them, one at the end.
    assert len(sound) / rate == pytest.approx(5 * 4 * 60 / 90 + 3 + 5 * 4 * 60 / 180 + 1, abs=0.001)


def test_a_file_is_named_by_title_and_tempo_in_any_script(client: FlaskClient, later: Later) -> None:
    kept = client.post("/api/drills", json={"drill": {"title": "Ćwiczenie 五"}}).get_json()
    asked = {"drill_id": kept["id"], "rungs": [{"bpm": "224/3"}], "sound": "ogg", "passes": 1}
    key = client.post("/api/play-along", json=asked).get_json()["key"]
    later.work()
    assert done(client, key)["ready"]
    with client.get(f"/api/play-along/{key}/file") as file:
        assert file.status_code == 200
        name = parse_options_header(file.headers["Content-Disposition"])[1]["filename"]
    assert name == "ćwiczenie-五-74⅔.ogg"


def test_more_than_a_file_holds_is_refused_at_once(client: FlaskClient, asked: dict[str, Any], later: Later) -> None:
    answer = client.post("/api/play-along", json={**asked, "rungs": [{"bpm": "20"}] * 30, "passes": 4})
    assert answer.status_code == 422
    assert answer.get_json()["message"].endswith("and a file holds 20. Take fewer rungs or passes.")
    none = client.post("/api/play-along", json={**asked, "rungs": []})
    assert none.get_json()["message"] == "A file holds 1 to 40 rungs, not 0."
    assert later.asked == 0


def die(_target: Path, _tell: Tell) -> None:
    os.kill(os.getpid(), signal.SIGSEGV)


def refuse(_target: Path, _tell: Tell) -> None:
    raise OutOfRange("That is too long.")


@pytest.mark.parametrize(
    ("work", "says"),
    [
        pytest.param(die, "It could not be made. Try fewer rungs or passes", id="the library ends its process"),
        pytest.param(refuse, "That is too long.", id="what was asked for is refused"),
    ],
)
def test_what_goes_wrong_while_a_file_is_made_is_told_and_ends_nothing_else(
    work: Work, says: str, tmp_path: Path
) -> None:
    jobs = Jobs(tmp_path)
    key = jobs.begin(Job(2, "a.mp3", "audio/mpeg"), work)
    while not jobs.find(key).failed:
        pass
    assert jobs.find(key).failed.startswith(says)


def test_a_file_is_made_in_a_process_of_its_own(asked: dict[str, Any], tmp_path: Path, studio: Studio) -> None:
    assert asked
    target, told = tmp_path / "file", list[int]()
    apart(partial(make_file, PlayAlong(studio.drill.drill, ((F(240), None),), "ogg", passes=1)), target, told.append)
    assert told == [1]
    assert soundfile.info(target).format == "OGG"


def test_only_the_last_files_are_kept(client: FlaskClient, asked: dict[str, Any]) -> None:
    keys = [client.post("/api/play-along", json=asked).get_json()["key"] for _ in range(MOST_KEPT + 1)]
    gone = client.get(f"/api/play-along/{keys[0]}")
    assert (gone.status_code, gone.get_json()["message"]) == (404, "This file is no longer kept. Ask for it again.")
    assert client.get(f"/api/play-along/{keys[-1]}").status_code == 200


def test_the_words_that_ship_are_handed_over_with_their_places(client: FlaskClient) -> None:
    voice = client.get("/api/choices").get_json()["voice"]
    file = client.get("/api/words/all.flac")
    sound, rate = soundfile.read(io.BytesIO(file.data))
    assert max(place["start"] + place["seconds"] for place in voice["words"].values()) == pytest.approx(
        len(sound) / rate
    )
    refused = client.get("/api/words/own.flac?word=a%20b")
    assert (refused.status_code, refused.get_json()["field"]) == (422, "word")
