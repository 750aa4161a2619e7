"""Starting without a command: what is served, where, and the demo studio that is filled once a day."""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest

import ripresa.web.server
from ripresa.cli import main
from ripresa.cli.start import filled_demo, keep_filled
from ripresa.store.files import open_studio


@pytest.fixture
def served(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> list[dict[str, Any]]:
    """What would have been served; a studio is opened as the server would, and nobody listens."""
    found: list[dict[str, Any]] = []

    def serve(path: Path, port: int, **asked: Any) -> None:
        open_studio(path)
        with closing(sqlite3.connect(path)) as opened:
            (studio,) = opened.execute("SELECT id FROM studio").fetchone()
        if asked.get("fill"):
            asked["filled"]()
        found.append({"path": path, "port": port, "studio": studio, **asked})

    monkeypatch.setattr(ripresa.web.server, "serve", serve)
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "cache"))
    return found


def test_without_a_command_it_starts_with_own_data_and_opens_the_browser(
    served: list[dict[str, Any]], tmp_path: Path
) -> None:
    assert main([]) == 0
    assert main(["--port", "9000", "--no-browser", "--data", str(tmp_path / "own")]) == 0
    first, second = served
    assert (first["path"], first["port"], first["opens"]) == (tmp_path / "data/ripresa/ripresa.sqlite3", 8765, True)
    assert (second["path"].parent, second["port"], second["opens"]) == (tmp_path / "own", 9000, False)


def test_serving_opens_nothing(served: list[dict[str, Any]]) -> None:
    assert main(["serve", "--port", "9001"]) == 0
    assert (served[0]["port"], served[0]["opens"]) == (9001, False)


def test_what_is_said_before_a_command_holds_for_it(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    open_studio(tmp_path / "ripresa.sqlite3")
    assert main(["--data", str(tmp_path), "backup", str(tmp_path / "copy")]) == 0
    assert (tmp_path / "copy").is_file()
    assert capsys.readouterr().out


def test_the_demo_is_filled_once_and_is_another_studio_each_time(served: list[dict[str, Any]], tmp_path: Path) -> None:
    for _ in range(2):
        assert main(["--demo", "--no-browser"]) == 0
    first, second = served
    assert first["fill"] is not None
    assert second["fill"] is None
    assert first["is_demo"]
    assert second["is_demo"]
    assert first["studio"] != second["studio"]
    assert not first["path"].exists()
    assert not (tmp_path / "data").exists()


def test_a_filled_demo_that_is_damaged_is_filled_anew(served: list[dict[str, Any]]) -> None:
    filled = filled_demo(datetime.now().astimezone())
    filled.parent.mkdir(parents=True)
    filled.write_bytes(b"SQLite format 3\0 and then nothing of it")
    assert main(["--demo"]) == 0
    assert served[0]["fill"] is not None


def test_each_day_has_its_own_and_old_ones_go(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path))
    today = datetime(2026, 5, 6, 15, tzinfo=UTC)
    old, new = filled_demo(today - timedelta(days=1)), filled_demo(today)
    assert old != new
    assert filled_demo(today + timedelta(hours=2)) == new
    open_studio(tmp_path / "studio.sqlite3")
    keep_filled(tmp_path / "studio.sqlite3", old)
    keep_filled(tmp_path / "studio.sqlite3", new)
    assert (old.exists(), new.exists()) == (False, True)


def test_a_place_that_cannot_be_written_holds_nothing_up(tmp_path: Path) -> None:
    open_studio(tmp_path / "studio.sqlite3")
    (tmp_path / "file").write_text("")
    keep_filled(tmp_path / "studio.sqlite3", tmp_path / "file" / "demo.sqlite3")
