import errno
import io
import json
import sys
from dataclasses import replace
from pathlib import Path

import mido
import pytest

from ripresa.cli import main
from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.formats.drill_file import read_drill, write_drill
from tests.strategies import legs


@pytest.fixture
def drill_file(tmp_path: Path) -> Path:
    path = tmp_path / "stairs.json"
    path.write_text(write_drill(Drill(material=ScaleRun(tonic="D", octaves="match"), legs=legs(2, 3, 4))))
    return path


def test_read_prints_the_whole_reading(drill_file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["read", str(drill_file), "--bpm", "96"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert (found["beats"], found["bars"], found["seconds"], found["peak_nps"]) == (48, 12, 30, 6.4)
    assert {"notes", "average_nps", "legs", "events"} <= set(found)
    assert set(found["legs"][0]) >= {"division", "notes", "beats", "seconds", "nps", "gap_ms"}
    third = found["events"][29 + 2 + 1]
    assert set(third) >= {"onset", "length", "leg", "bar", "beat", "slot", "count", "pitch", "stroke", "accent", "kind"}
    assert (third["onset"], third["bar"], third["beat"], third["slot"]) == ("49/3", 5, 1, 1)


def test_read_gives_finger_string_and_fret_as_numbers(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "scale.json"
    path.write_text(write_drill(Drill(material=ScaleRun(octaves=1), instrument="guitar", fingering="usual")))
    assert main(["read", str(path)]) == 0
    (first, *_) = json.loads(capsys.readouterr().out)["events"]
    assert (first["touch"], first["finger"], first["string"], first["fret"]) == (
        "string 5 fret 3 finger 3",
        3,
        5,
        3,
    )
    path.write_text(write_drill(Drill(material=OneNote(beats=1))))
    assert main(["read", str(path)]) == 0
    (first, *_) = json.loads(capsys.readouterr().out)["events"]
    assert [first[name] for name in ("touch", "finger", "string", "fret")] == [None] * 4


def test_read_takes_a_pipe(
    drill_file: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(drill_file.read_bytes())))
    assert main(["read", "-"]) == 0
    assert json.loads(capsys.readouterr().out)["bpm"] == 72


@pytest.mark.parametrize(
    ("name", "start"), [("d.musicxml", b"<?xml"), ("d.mxl", b"PK"), ("d.wav", b"RIFF"), ("d.flac", b"fLaC")]
)
def test_export_writes_what_the_name_asks_for(drill_file: Path, tmp_path: Path, name: str, start: bytes) -> None:
    assert main(["export", str(drill_file), "--to", str(tmp_path / name)]) == 0
    assert (tmp_path / name).read_bytes().startswith(start)


def test_export_writes_staves_and_plays_repeats_out_as_it_is_asked(tmp_path: Path) -> None:
    guitar = tmp_path / "guitar.json"
    drill = Drill(material=OneNote(beats=4), legs=legs(2, 2), instrument="guitar")
    guitar.write_text(write_drill(drill))
    target = tmp_path / "out.musicxml"
    assert main(["export", str(guitar), "--to", str(target)]) == 0
    assert target.read_text().count("<measure") == 1
    assert main(["export", str(guitar), "--to", str(target), "--played-out"]) == 0
    assert target.read_text().count("<measure") == 2
    run = tmp_path / "run.json"
    run.write_text(write_drill(Drill(material=ScaleRun(octaves=1), instrument="guitar")))
    assert main(["export", str(run), "--to", str(target), "--staves", "tab"]) == 0
    assert "<sign>TAB</sign>" in target.read_text()


def test_sheet_writes_the_hand_out_as_pdf_and_as_text(drill_file: Path, tmp_path: Path) -> None:
    for name, start in (("out.pdf", b"%PDF"), ("out.txt", b"New drill")):
        asked = ["sheet", str(drill_file), "--to", str(tmp_path / name), "--target", "80", "--note", "Loose."]
        assert main(asked) == 0
        assert (tmp_path / name).read_bytes().startswith(start)
    text = (tmp_path / "out.txt").read_text("utf-8")
    assert "♩ = 72: metronome 72, 4.8 notes a second" in text
    assert "♩ = 80: metronome 80" in text
    assert "From your teacher\nLoose." in text


def test_sheet_refuses_what_it_cannot_write(
    drill_file: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["sheet", str(drill_file), "--to", str(tmp_path / "out.doc")]) != 0
    assert "does not end in .pdf or .txt" in capsys.readouterr().err
    assert main(["sheet", str(drill_file), "--to", str(tmp_path / "no" / "out.txt")]) != 0
    assert "cannot be written" in capsys.readouterr().err
    assert main(["sheet", str(drill_file), "--to", str(tmp_path / "out.txt"), "--target", "60"]) != 0
    assert "has to be above the start" in capsys.readouterr().err


def test_export_writes_midi(drill_file: Path, tmp_path: Path) -> None:
    target = tmp_path / "out.mid"
    assert main(["export", str(drill_file), "--bpm", "96", "--to", str(target)]) == 0
    assert [track.name for track in mido.MidiFile(target).tracks][1:] == ["notes", "click"]


def test_climb_prints_the_rungs(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["climb", "--from", "84", "--to", "120", "--rule", "percent", "--step", "4"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert [rung["bpm"] for rung in found] == [84, 87, 91, 94, 98, 102, 106, 111, 115, 120]
    assert found[-1]["nps"] == 8


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["read", "nowhere.json"], "nowhere.json does not exist"),
        (["read", "{drill}", "--bpm", "0"], "cannot be played"),
        (["export", "{drill}", "--to", "out.aac"], "does not end in one of .json, .mid, .musicxml, .mxl, .mp3, .wav"),
        (["export", "{drill}", "--to", "/no/such/folder/out.mid"], "cannot be written"),
        (["climb", "--from", "120", "--to", "84"], "has to be above the start"),
        (["climb", "--from", "84", "--to", "120", "--division", "0"], "above 0"),
        (["serve", "--port", "0"], "is not a port"),
        (["backup", "copy", "--data", "{folder}"], "nothing to back up"),
        (["restore", "{folder}/none", "--data", "{folder}"], "does not exist"),
        (["backup", "copy", "--data", "{drill}"], "stairs.json is a file. Name the folder that holds the data."),
        (["serve", "--data", "{drill}"], "stairs.json is a file. Name the folder that holds the data."),
    ],
    ids=lambda value: " ".join(value[:1]) if isinstance(value, list) else "",
)
def test_what_cannot_be_done_is_a_sentence_and_not_a_trace(
    arguments: list[str], says: str, drill_file: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    filled = [one.format(drill=drill_file, folder=tmp_path) for one in arguments]
    assert main(filled) == 1
    said = capsys.readouterr().err
    assert said.startswith("ripresa: ")
    assert says in said
    assert "Traceback" not in said


def test_a_number_that_is_none_is_refused(drill_file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit):
        main(["read", str(drill_file), "--bpm", "fast"])
    assert "Write 84, 84.5 or 84½" in capsys.readouterr().err


@pytest.mark.parametrize("command", ["backup", "restore"])
def test_a_folder_that_may_not_be_looked_into_is_a_sentence(
    command: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    closed = tmp_path / "closed" / "ripresa.sqlite3"

    def is_file(path: Path) -> bool:
        raise PermissionError(errno.EACCES, "Permission denied", str(path))

    monkeypatch.setattr(Path, "is_file", is_file)
    assert main([command, str(closed), "--data", str(closed.parent)]) == 1
    said = capsys.readouterr().err
    assert said.startswith(f"ripresa: {closed} cannot be opened for writing. Check that you may write to the file")


def test_backup_and_restore_say_where_things_are(
    store: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    copy = tmp_path / "copy.sqlite3"
    assert main(["backup", str(copy), "--data", str(store.parent)]) == 0
    assert main(["restore", str(copy), "--data", str(store.parent)]) == 0
    said = capsys.readouterr().out
    assert f"All data is in {copy}." in said
    assert "What was there before is in" in said


def test_say_prints_the_drill_that_a_line_means(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["say", "D", "dorian triplets 84 banana"]) == 0
    printed = capsys.readouterr()
    drill = read_drill(printed.out)
    assert (drill.bpm, [leg.division for leg in drill.legs]) == (84, [3])
    assert printed.err == "ripresa: “banana” is not understood, and is left out.\n"
    assert main(["say", "xyzzy"]) == 1
    assert "Nothing of it is understood. Say a key" in capsys.readouterr().err


def test_say_changes_the_drill_that_is_given(drill_file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    before = read_drill(drill_file.read_text())
    assert main(["say", "slower by 10", "--drill", str(drill_file)]) == 0
    assert read_drill(capsys.readouterr().out) == replace(before, bpm=before.bpm - 10)
