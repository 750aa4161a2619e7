"""Recordings through the API: pieces, listening, latency, files that become takes, playing back, keeping."""

import errno
import io
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import soundfile
from flask.testing import FlaskClient

from ripresa.core.errors import NotFound, Unkept
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.studio import Guardian
from ripresa.core.takes import STAND_INS, HeardNote, due_notes, play
from ripresa.formats.midi_take import write_midi_take
from ripresa.formats.recording import BEFORE, played, wav, write_flac
from ripresa.formats.sounds import RATE, click
from ripresa.store import students
from ripresa.store.recordings import recordings
from ripresa.web.blueprint import Api
from ripresa.web.incoming import Incoming
from tests.conftest import NOW, Clock, Studio
from tests.web.test_takes import take

KEY = "recording-0001"


def notes_of(studio: Studio, player: str = "steady", bpm: int = 84, turns: int = 2) -> tuple[HeardNote, ...]:
    reading = read(studio.drill.drill)
    due = due_notes(reading, F(bpm), 0.0, turns * float(reading.loop_beats * 60 / bpm))
    return play(STAND_INS[player][1], due).notes


def pcm(sound: np.ndarray[Any, np.dtype[np.float64]]) -> bytes:
    return bytes(np.round(np.clip(sound, -1, 1) * 32_000).astype("<i2").tobytes())


def send_pieces(client: FlaskClient, body: bytes, key: str = KEY, size: int = 100_000) -> None:
    for number, first in enumerate(range(0, len(body), size)):
        sent = client.post(f"/api/recordings/{key}/pieces/{number}", data=body[first : first + size])
        assert sent.status_code == 200, sent.text


def microphone(studio: Studio, late: float = 0.0, player: str = "steady") -> np.ndarray[Any, np.dtype[np.float64]]:
    notes = notes_of(studio, player)
    return 0.5 * played(notes, "pluck", BEFORE + notes[-1].at + 1.0, -BEFORE - late)


def listened(client: FlaskClient, studio: Studio, **asked: Any) -> dict[str, Any]:
    body = {"rate": RATE, "drill": drill_json(client, studio), "bpm": "84", **asked}
    found = client.post(f"/api/recordings/{KEY}/listen", json=body)
    assert found.status_code == 200, found.text
    heard: dict[str, Any] = found.get_json()
    return heard


def drill_json(client: FlaskClient, studio: Studio) -> Any:
    return client.get(f"/api/drills/{studio.drill.id}").get_json()["drill"]


def test_a_take_by_microphone_is_sent_in_pieces_listened_to_and_judged(client: FlaskClient, studio: Studio) -> None:
    send_pieces(client, pcm(microphone(studio, late=0.05)))
    heard = listened(client, studio)
    assert heard["quality"]["is_good"]
    notes = [{"at": one["at"] - BEFORE, "level": one["level"]} for one in heard["onsets"]]
    sent = take(studio, source="microphone", onsets=[], notes=notes, end=turns_end(studio), latency_ms=50)
    recorded = {"key": KEY, "rate": RATE, "zero": BEFORE}
    judged = client.post("/api/takes", json={**sent, "is_calibrated": True, "recording": recorded}).get_json()
    figures = judged["take"]["figures"]
    assert judged["take"]["mark"] == "clean"
    assert figures["matched"] >= figures["due"] - 1
    assert abs(float(figures["bias"]["label"].split()[0].replace("−", "-"))) <= 3
    back = client.get(f"/api/takes/{sent['id']}/back").get_json()
    assert (back["kind"], back["until"]) == ("recorded", "")
    sound = client.get(f"/api/takes/{sent['id']}/sound.wav?click=false")
    samples, rate = soundfile.read(io.BytesIO(sound.data))
    assert len(samples) / rate == pytest.approx(sent["end"] + 0.5, abs=0.01)
    # What is played back is what was played, moved to where it was meant: the first note lies at its beat.
    first = int(np.argmax(np.abs(samples) > 0.1 * np.abs(samples).max())) / rate
    assert abs(first - notes_of(studio)[0].at) < 0.01
    sound.close()
    part = client.get(f"/api/takes/{sent['id']}/sound.wav?click=false", headers={"Range": "bytes=1000-1999"})
    assert (part.status_code, len(part.data)) == (206, 1000)
    part.close()


def turns_end(studio: Studio) -> float:
    return float(2 * read(studio.drill.drill).loop_beats * 60 / 84)


def test_pieces_come_in_order_and_once(client: FlaskClient, studio: Studio) -> None:
    assert client.post(f"/api/recordings/{KEY}/pieces/1", data=b"ab").status_code == 409
    assert client.post(f"/api/recordings/{KEY}/pieces/0", data=b"abcd").get_json()["bytes"] == 4
    assert client.post(f"/api/recordings/{KEY}/pieces/0", data=b"abcd").get_json()["bytes"] == 4
    missing = client.post(f"/api/recordings/{KEY}/pieces/2", data=b"ab")
    assert missing.status_code == 409
    assert missing.get_json()["message"] == "Piece 1 of this recording has not come yet. Send it first."
    assert client.post("/api/recordings/another-key/listen", json={}).status_code == 422
    gone = client.post(
        "/api/recordings/another-key/listen", json={"rate": RATE, "drill": drill_json(client, studio), "bpm": "84"}
    )
    assert gone.get_json()["message"] == "This recording is not here any more. Record it again."


def test_silence_is_told(client: FlaskClient, studio: Studio) -> None:
    send_pieces(client, pcm(np.zeros(3 * RATE)))
    quality = listened(client, studio)["quality"]
    assert quality["troubles"] == ["silent"]
    assert "muted" in quality["sentences"][0]


def test_what_the_devices_add_is_measured_out_and_back(client: FlaskClient) -> None:
    at = [0.5 + 0.6 * number for number in range(16)]
    sound = np.zeros(12 * RATE)
    for moment in at:
        first = round((moment + 0.0433) * RATE)
        sound[first : first + len(click("plain"))] += 0.3 * click("plain")
    send_pieces(client, pcm(sound))
    found = client.post(f"/api/recordings/{KEY}/latency", json={"rate": RATE, "clicks": at}).get_json()
    assert found["latency_ms"] == pytest.approx(43.3, abs=2.0)
    assert found["half_width_ms"] <= 2


def test_a_microphone_that_hears_no_click_says_so(client: FlaskClient) -> None:
    send_pieces(client, pcm(np.zeros(3 * RATE)))
    found = client.post(f"/api/recordings/{KEY}/latency", json={"rate": RATE, "clicks": [0.5, 1.0]})
    assert found.status_code == 422
    assert "does not hear the click" in found.get_json()["message"]


def from_file(client: FlaskClient, studio: Studio, body: bytes, name: str, **asked: Any) -> Any:
    send_pieces(client, body, key=f"file-{name}"[:20].replace(".", "-"))
    return client.post(
        "/api/takes/from-file",
        json={
            "key": f"file-{name}"[:20].replace(".", "-"),
            "name": name,
            "id": "take-file-0001",
            "student_id": studio.student.id,
            "climb_id": studio.climb.id,
            "rung": 1,
            "drill_id": studio.drill.id,
            "version": 1,
            "bpm": "84",
            "played_at": NOW.isoformat(),
            **asked,
        },
    )


def test_a_midi_file_becomes_a_take(client: FlaskClient, studio: Studio) -> None:
    late = [replace(note, at=note.at + 3, until=None) for note in notes_of(studio)]
    answer = from_file(client, studio, write_midi_take(late), "lesson.mid")
    assert answer.status_code == 201, answer.text
    found = answer.get_json()
    assert (found["take"]["source"], found["take"]["mark"]) == ("midi", "clean")
    assert found["at"] == pytest.approx(3, abs=0.05)
    assert found["take"]["note"] == "From lesson.mid."


def test_a_recording_becomes_a_take_and_another_tempo_is_refused(client: FlaskClient, studio: Studio) -> None:
    body = wav(microphone(studio))
    answer = from_file(client, studio, body, "lesson.wav")
    assert answer.status_code == 201, answer.text
    assert (answer.get_json()["take"]["source"], answer.get_json()["take"]["mark"]) == ("file", "clean")
    refused = from_file(client, studio, body, "faster.wav", bpm="110", id="take-file-0002")
    assert refused.status_code == 422
    assert refused.get_json()["message"].startswith("This was played at about 8")
    assert client.get(f"/api/takes?climb_id={studio.climb.id}").get_json()["takes"][-1]["id"] == "take-file-0001"


@pytest.mark.parametrize(
    ("name", "body", "says"),
    [
        ("broken.wav", b"RIFF" + bytes(200), "no recording that can be read"),
        ("broken.mid", b"MThd" + bytes(40), ""),
        ("silence.wav", wav(np.zeros(2 * RATE)), "Nothing was recorded"),
        ("speech.txt", b"Once upon a tide", "no recording that can be read"),
    ],
)
def test_what_is_no_take_says_why(client: FlaskClient, studio: Studio, name: str, body: bytes, says: str) -> None:
    answer = from_file(client, studio, body, name)
    assert answer.status_code == 422
    assert says in answer.get_json()["message"]


def allowed(app: Api, studio: Studio, days: int, guardian: bool) -> None:
    with app.at_studio():
        found = students.find_student(studio.student.id)
        details = replace(found.details, keep_days=days, guardian=Guardian(recordings=guardian))
        students.change_student(studio.student.id, details, found.revision)


def kept_file(app: Api) -> Path:
    with app.at_studio():
        return recordings()[0].file


def record(client: FlaskClient, studio: Studio) -> str:
    send_pieces(client, pcm(microphone(studio)))
    heard = listened(client, studio)
    notes = [{"at": one["at"] - BEFORE, "level": one["level"]} for one in heard["onsets"]]
    sent = take(studio, source="microphone", onsets=[], notes=notes, end=turns_end(studio))
    kept = client.post("/api/takes", json={**sent, "recording": {"key": KEY, "rate": RATE, "zero": BEFORE}})
    assert kept.status_code == 201, kept.text
    return str(sent["id"])


def test_recordings_are_kept_only_where_asked_and_never_against_a_guardian(
    app: Api, client: FlaskClient, studio: Studio
) -> None:
    for days, guardian in ((0, True), (30, False)):
        allowed(app, studio, days, guardian)
        record(client, studio)
        assert client.get("/api/recordings").get_json()["recordings"] == []
        client.delete("/api/takes/take-00000001")


def test_a_kept_recording_is_played_back_runs_out_and_can_be_deleted(
    app: Api, client: FlaskClient, studio: Studio, clock: Clock
) -> None:
    allowed(app, studio, 30, guardian=True)
    take_id = record(client, studio)
    found = client.get("/api/recordings").get_json()
    assert [one["take_id"] for one in found["recordings"]] == [take_id]
    assert found["sentence"].startswith("1 recording, ")
    file = kept_file(app)
    assert file.is_file()
    assert client.get(f"/api/takes/{take_id}/back").get_json()["until"] == (NOW + timedelta(days=30)).isoformat()
    # Gone from where it came in: what is kept is played back.
    client.application.config["INCOMING"]._takes.clear()
    sound = client.get(f"/api/takes/{take_id}/sound.wav")
    assert sound.status_code == 200
    sound.close()
    clock.forward(days=31)
    assert client.get("/api/recordings").get_json()["recordings"] == []
    assert not file.exists()


@pytest.mark.parametrize("way", ["take", "all", "student"])
def test_a_kept_recording_goes_with_its_take_and_by_one_press(
    app: Api, client: FlaskClient, studio: Studio, way: str
) -> None:
    allowed(app, studio, 30, guardian=True)
    take_id = record(client, studio)
    file = kept_file(app)
    match way:
        case "take":
            assert client.delete(f"/api/takes/{take_id}").status_code == 200
        case "all":
            assert client.delete("/api/recordings").get_json()["recordings"] == []
        case "student":
            assert client.delete(f"/api/students/{studio.student.id}").status_code == 200
    assert not file.exists()
    # Nothing of it is left among what came in, either.
    incoming: Incoming = client.application.config["INCOMING"]
    assert list(incoming.folder.iterdir()) == []


def test_the_stand_in_plays_into_the_microphone(client: FlaskClient, studio: Studio) -> None:
    body = {"drill": drill_json(client, studio), "bpm": "84", "player": {"spread_ms": 6}}
    sound = client.post("/api/stand-in/recording", json=body)
    assert sound.mimetype == "audio/wav"
    assert soundfile.info(io.BytesIO(sound.data)).duration > 3


def test_a_set_up_is_measured_kept_and_told_with_its_age(client: FlaskClient, clock: Clock) -> None:
    asked = {"source": "microphone", "device": "Room microphone", "place": "Linux"}
    assert client.get("/api/setups/known", query_string=asked).get_json()["ms"] is None
    client.put("/api/setups", json={**asked, "way": "device", "ms": 43.2, "half": 1.4})
    kept = client.put("/api/setups", json={**asked, "way": "hand", "ms": 31.0, "half": 4.0}).get_json()
    assert (kept["way"], kept["ms"], kept["label"]) == ("device", 43.2, "43 ± 1 ms, measured today")
    assert kept["sentences"][1] == "The hand comes 12 ± 4 ms before the click: that is its own habit."
    clock.forward(days=100)
    known = client.get("/api/setups/known", query_string=asked).get_json()
    assert (known["is_old"], known["label"]) == (True, "43 ± 1 ms, 100 days old")
    other = client.get("/api/setups/known", query_string={**asked, "device": "Another"}).get_json()
    assert other["ms"] is None
    pads = client.put("/api/setups", json={"source": "midi", "device": "Pads", "pads": {"36": "R", "c64": "start"}})
    assert pads.get_json()["pads"] == {"36": "R", "c64": "start"}
    assert client.put("/api/setups", json={"source": "midi", "pads": {"200": "R"}}).status_code == 422
    listed = client.get("/api/setups").get_json()["setups"]
    assert [one["device"] for one in listed] == ["Pads", "Room microphone"]
    assert len(client.delete(f"/api/setups/{listed[0]['id']}").get_json()["setups"]) == 1


def test_a_full_disk_is_told_the_take_is_kept_and_the_retry_keeps_its_sound(
    app: Api, client: FlaskClient, studio: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    allowed(app, studio, 30, guardian=True)
    send_pieces(client, pcm(microphone(studio)))
    sent = take(studio, source="microphone", end=turns_end(studio))
    body = {**sent, "recording": {"key": KEY, "rate": RATE, "zero": BEFORE}}
    with monkeypatch.context() as full:
        full.setattr("ripresa.work.recordings.write_flac", lambda sound, _file: write_flac(sound, Path("/dev/full")))
        refused = client.post("/api/takes", json=body)
    assert refused.status_code == 503
    assert refused.get_json()["message"].startswith("The disk is full: ")
    assert client.get(f"/api/takes/{sent['id']}").status_code == 200
    assert client.get("/api/recordings").get_json()["recordings"] == []
    assert client.post("/api/takes", json=body).status_code == 200
    assert [one["take_id"] for one in client.get("/api/recordings").get_json()["recordings"]] == [sent["id"]]
    with client.get(f"/api/takes/{sent['id']}/sound.wav?click=false") as sound:
        assert sound.status_code == 200


def test_no_recording_whose_take_is_on_its_way_makes_room_for_others(tmp_path: Path) -> None:
    incoming = Incoming(tmp_path)
    keys = [f"recording-{number:02}" for number in range(50)]
    for key in keys[:20]:
        incoming.add(key, 0, b"abcd")
    # All wait for their take, more of them than lie here once it has come.
    assert [incoming.file(key).is_file() for key in keys[:20]] == [True] * 20
    for key in keys[:20]:
        incoming.seen_to(key)
    incoming.add(keys[20], 0, b"abcd")
    assert sorted(file.name for file in tmp_path.iterdir()) == keys[9:21]
    # So many that wait are nobody's any more: the oldest of them go.
    for key in keys[21:]:
        incoming.add(key, 0, b"abcd")
    incoming.add("recording-last-1", 0, b"abcd")
    for number in range(2, 20):
        incoming.add(f"recording-last-{number}", 0, b"abcd")
    assert len(list(tmp_path.iterdir())) == 48
    with pytest.raises(NotFound):
        incoming.file(keys[20])


def test_a_piece_that_found_no_room_is_sent_again_whole(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    incoming = Incoming(tmp_path)
    incoming.add(KEY, 0, b"abcd")
    real = Path.open

    def fills_up(path: Path, *args: Any) -> Any:
        with real(path, *args) as half:
            half.write(b"ef")
        raise OSError(errno.ENOSPC, "No space left on device")

    with monkeypatch.context() as full:
        full.setattr(Path, "open", fills_up)
        with pytest.raises(Unkept, match="The disk is full"):
            incoming.add(KEY, 1, b"efgh")
    assert incoming.add(KEY, 1, b"efgh") == 8
    assert incoming.file(KEY).read_bytes() == b"abcdefgh"


def test_where_a_guardian_takes_it_back_nothing_is_left(app: Api, client: FlaskClient, studio: Studio) -> None:
    allowed(app, studio, 30, guardian=True)
    take_id = record(client, studio)
    file = kept_file(app)
    shown = client.get(f"/api/students/{studio.student.id}").get_json()["student"]
    details = shown["details"] | {"guardian": shown["details"]["guardian"] | {"recordings": False}}
    body = {"details": details, "based_on": shown["revision"]}
    assert client.put(f"/api/students/{studio.student.id}", json=body).status_code == 200
    assert client.get("/api/recordings").get_json()["recordings"] == []
    assert client.get(f"/api/takes/{take_id}/back").get_json()["kind"] == "notes"
    assert not file.exists()
    incoming: Incoming = app.config["INCOMING"]
    assert list(incoming.folder.iterdir()) == []


def test_settings_say_where_everything_lies(app: Api, client: FlaskClient, studio: Studio) -> None:
    allowed(app, studio, 30, guardian=True)
    record(client, studio)
    places = {one["what"]: one for one in client.get("/api/settings").get_json()["data"]["places"]}
    assert [bool(one["size"]) for one in places.values()] == [True, False, True, True]
    assert places["Recordings that are kept"]["path"] == str(kept_file(app).parent)
