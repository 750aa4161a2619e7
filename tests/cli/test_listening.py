"""``ripresa listen``, and takes of recordings and MIDI files: what others check the hearing by."""

import json
from pathlib import Path
from typing import Any

import jsonschema
import numpy as np
import pytest

from ripresa.cli import main
from ripresa.formats.recording import wav
from tests.cli.test_takes import SCHEMAS, drill  # noqa: F401 - the drill of those tests


def printed(capsys: pytest.CaptureFixture[str], *asked: str) -> Any:
    assert main(list(asked)) == 0
    return json.loads(capsys.readouterr().out)


@pytest.fixture
def played(drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> dict[str, Any]:  # noqa: F811
    sound, midi = tmp_path / "take.wav", tmp_path / "take.mid"
    line = printed(capsys, "play", drill, "--passes", "3", "--recording", str(sound), "--midi", str(midi))
    return {"drill": drill, "sound": str(sound), "midi": str(midi), "notes": line["notes"]}


def test_listen_prints_the_onsets_of_a_recording(played: dict[str, Any], capsys: pytest.CaptureFixture[str]) -> None:
    heard = printed(capsys, "listen", played["sound"], "--as", "struck", "--gap", "0.17")
    jsonschema.validate(heard, SCHEMAS["listened"])
    assert heard["quality"]["is_good"]
    assert len(heard["onsets"]) == pytest.approx(len(played["notes"]), abs=3)
    # The recording begins half a second before the first beat.
    assert heard["onsets"][0]["at"] == pytest.approx(0.5 + played["notes"][0]["at"], abs=0.01)


@pytest.mark.parametrize("kind", ["--midi", "--recording"])
def test_a_file_is_judged(played: dict[str, Any], kind: str, capsys: pytest.CaptureFixture[str]) -> None:
    file = played["midi" if kind == "--midi" else "sound"]
    found = printed(capsys, "judge", played["drill"], kind, file)
    jsonschema.validate(found, SCHEMAS["judged"])
    assert found["mark"] == "clean"
    assert len(found["matched"]) >= 0.98 * len(played["notes"])


def test_another_tempo_is_refused(played: dict[str, Any], capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["judge", played["drill"], "--midi", played["midi"], "--bpm", "120"]) == 1
    assert capsys.readouterr().err == (
        "ripresa: This was played at about 84, not at 120. Choose the rung of that tempo.\n"
    )


@pytest.mark.parametrize(
    ("name", "body", "says"),
    [
        ("none.wav", None, "does not exist"),
        ("words.wav", b"Once upon a tide", "no recording that can be read"),
        ("silence.wav", wav(np.zeros(88_200)), "Nothing was recorded"),
    ],
)
def test_what_is_no_take_says_why(
    played: dict[str, Any], tmp_path: Path, name: str, body: bytes | None, says: str, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / name
    if body is not None:
        file.write_bytes(body)
    assert main(["judge", played["drill"], "--recording", str(file)]) == 1
    assert says in capsys.readouterr().err


def test_half_an_hour_is_refused_before_it_is_read(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "long.wav"
    file.write_bytes(wav(np.zeros(30 * 60 * 8_000), 8_000))
    assert main(["listen", str(file)]) == 1
    assert "lasts 30 minutes, and one is listened to for up to 20" in capsys.readouterr().err
