"""Play-along files of several rungs: begun, asked for, fetched; refused before anything is made."""

import io
from collections.abc import Callable
from concurrent.futures import Executor, Future
from pathlib import Path
from typing import Any

import pytest
import soundfile
from flask.testing import FlaskClient

from ripresa.store.files import DATABASE_NAME
from ripresa.web.app import create_app
from ripresa.web.jobs import MOST_KEPT, Job, Jobs
from tests.conftest import Clock, Studio


class Later(Executor):
    """Keeps work until it is told to do it."""

    def __init__(self) -> None:
        self.waiting: list[Callable[[], object]] = []

    def submit(self, fn: Any, /, *args: Any, **kwargs: Any) -> Future[Any]:
        self.waiting.append(lambda: fn(*args, **kwargs))
        return Future()

    def work(self) -> None:
        for one in self.waiting:
            one()
        self.waiting.clear()


@pytest.fixture
def later() -> Later:
    return Later()


@pytest.fixture
def client(tmp_path: Path, clock: Clock, later: Later) -> FlaskClient:
    return create_app(tmp_path / DATABASE_NAME, clock=clock, static=tmp_path / "static", jobs=Jobs(later)).test_client()


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
    ready = client.get(f"/api/play-along/{key}").get_json()
    assert ready["ready"]
    assert ready["sentence"].startswith("Ready: 2 tempi, ")
    file = client.get(f"/api/play-along/{key}/file")
    assert file.mimetype == "audio/flac"
    assert "slip-steps-90-to-180.flac" in file.headers["Content-Disposition"]
    sound, rate = soundfile.read(io.BytesIO(file.data))
    # Each a bar of counting and four bars of drill; three seconds between them, one at the end.
    assert len(sound) / rate == pytest.approx(5 * 4 * 60 / 90 + 3 + 5 * 4 * 60 / 180 + 1, abs=0.001)


def test_more_than_a_file_holds_is_refused_at_once(client: FlaskClient, asked: dict[str, Any], later: Later) -> None:
    answer = client.post("/api/play-along", json={**asked, "rungs": [{"bpm": "20"}] * 30, "passes": 4})
    assert answer.status_code == 422
    assert answer.get_json()["message"].endswith("and a file holds 20. Take fewer rungs or passes.")
    none = client.post("/api/play-along", json={**asked, "rungs": []})
    assert none.get_json()["message"] == "A file holds 1 to 40 rungs, not 0."
    assert later.waiting == []


def test_a_file_that_cannot_be_made_says_so(asked: dict[str, Any]) -> None:
    assert asked
    later = Later()
    jobs = Jobs(later)

    def fail(_tell: object) -> bytes:
        raise MemoryError

    key = jobs.begin(Job(2, "a.mp3", "audio/mpeg"), fail)
    later.work()
    assert jobs.find(key).failed


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
