"""The one file to install: in a fresh environment, without Node and this project, it starts and shows itself."""

import json
import socket
import subprocess
import sys
import time
import urllib.request
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import pytest

from tools.dist import LARGEST, build, locked


@pytest.fixture(scope="module")
def wheel(tmp_path_factory: pytest.TempPathFactory) -> Path:
    return build(tmp_path_factory.mktemp("dist"))


def environment(python: str, wheel: Path, folder: Path) -> Path:
    """Make a fresh environment with nothing in it but the wheel and what it asks for; its folder of commands."""
    # By the installer of this environment: one of its own would only take its time to be installed.
    subprocess.run([python, "-m", "venv", "--without-pip", folder], check=True)
    own = str(folder / "bin" / "python")
    pip = [sys.executable, "-m", "pip", "--quiet", "--disable-pip-version-check", "--python", own]
    subprocess.run([*pip, "install", "--no-compile", str(wheel)], check=True, cwd=folder)
    return folder / "bin"


@pytest.fixture(scope="module")
def installed(wheel: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    return environment(sys.executable, wheel, tmp_path_factory.mktemp("fresh"))


def is_there(python: str) -> bool:
    """Return whether another Python answers by its name."""
    try:
        return subprocess.run([python, "--version"], capture_output=True, check=False).returncode == 0
    except FileNotFoundError:
        return False


@pytest.mark.parametrize("python", ["python3.12", "python3.13"])
def test_it_starts_on_the_pythons_that_are_there(python: str, wheel: Path, tmp_path: Path) -> None:
    if not is_there(python):
        pytest.skip(f"there is no {python}")
    commands = environment(python, wheel, tmp_path / "fresh")
    with started(commands, tmp_path, "--no-browser") as address:
        assert fetched(f"{address}/api/choices")["is_demo"] is False
        sums = subprocess.run([commands / "ripresa", "sums", "--help"], capture_output=True, text=True, check=True)
        assert "sums" in sums.stdout


def test_it_holds_all_that_is_shown_and_heard_and_nothing_of_the_workshop(wheel: Path) -> None:
    names = zipfile.ZipFile(wheel).namelist()
    for ending in ("static/index.html", "practice/practice.html", "words.flac", "Bold.ttf", "page.typ", "NOTICE"):
        assert any(name.endswith(ending) for name in names), ending
    assert any(name.endswith(".woff2") for name in names)
    assert not [name for name in names if name.startswith(("tests/", "tools/", "frontend/"))]
    assert wheel.stat().st_size < LARGEST


def test_it_asks_for_the_versions_that_were_tested(wheel: Path) -> None:
    with zipfile.ZipFile(wheel) as opened:
        (told,) = (name for name in opened.namelist() if name.endswith("METADATA"))
        lines = opened.read(told).decode().splitlines()
    asked = [line.removeprefix("Requires-Dist: ") for line in lines if line.startswith("Requires-Dist: ")]
    here = [one for one in asked if ";" not in one]
    assert here == locked()
    assert all("==" in one for one in here)
    # What only Windows needs is not in the lock of this system.
    assert [one.partition(">")[0] for one in asked if one not in here] == ["pywin32"]


@contextmanager
def started(commands: Path, home: Path, *arguments: str) -> Iterator[str]:
    """Start it as a person would, far from this project; give its address."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    address = f"http://localhost:{port}"
    # A browser that writes down what it was asked to open. No other command can be found: no Node either.
    browser = home / "browser"
    browser.write_text(f'#!/bin/sh\necho "$1" > {home}/opened\n')
    browser.chmod(0o755)
    surroundings = {"PATH": str(commands), "HOME": str(home), "BROWSER": str(browser), "LANG": "C.UTF-8"}
    command = [str(commands / "ripresa"), "--port", str(port), *arguments]
    with subprocess.Popen(command, cwd=home, env=surroundings, stdout=subprocess.DEVNULL) as process:
        try:
            answered(f"{address}/api/choices", process)
            yield address
        finally:
            process.terminate()


def answered(address: str, process: "subprocess.Popen[bytes]") -> None:
    ends = time.monotonic() + 90
    while time.monotonic() < ends and process.poll() is None:
        try:
            urllib.request.urlopen(address, timeout=5).close()
        except OSError:
            time.sleep(0.1)
        else:
            return
    raise TimeoutError(address)


def fetched(address: str) -> Any:
    with urllib.request.urlopen(address, timeout=20) as found:
        return json.loads(found.read())


def test_it_starts_with_own_data_and_opens_the_browser(installed: Path, tmp_path: Path) -> None:
    with started(installed, tmp_path) as address:
        assert fetched(f"{address}/api/choices")["is_demo"] is False
        page = urllib.request.urlopen(address).read().decode()
        script = page.split('src="/assets/')[1].split('"')[0]
        assert len(urllib.request.urlopen(f"{address}/assets/{script}").read()) > 100_000
        assert fetched(f"{address}/api/students")["students"] == []
        opened = tmp_path / "opened"
        ends = time.monotonic() + 20
        while not opened.exists() and time.monotonic() < ends:
            time.sleep(0.05)
        assert opened.read_text().strip() == address
    assert (tmp_path / ".local" / "share" / "ripresa" / "ripresa.sqlite3").is_file()


def test_it_shows_the_demo_and_keeps_nothing_of_it(installed: Path, tmp_path: Path) -> None:
    studios = []
    for _ in range(2):
        with started(installed, tmp_path, "--demo", "--no-browser") as address:
            assert fetched(f"{address}/api/choices")["is_demo"] is True
            assert len(fetched(f"{address}/api/students")["students"]) > 3
            studios.append(urllib.request.urlopen(address).read().decode().split('data-studio="')[1].split('"')[0])
    # The second is made of the first, and is another studio all the same.
    assert studios[0] != studios[1]
    assert not (tmp_path / ".local" / "share" / "ripresa").exists()
    assert not (tmp_path / "opened").exists()


def test_it_draws_hears_and_prints_without_this_project(installed: Path, tmp_path: Path) -> None:
    (tmp_path / "drill.json").write_text('{"format": "ripresa.drill/1", "title": "Slip steps"}')
    surroundings = {"PATH": str(installed), "HOME": str(tmp_path), "LANG": "C.UTF-8"}
    for name, begins in (("drill.wav", b"RIFF"), ("drill.musicxml", b"<?xml"), ("drill.mid", b"MThd")):
        command = [str(installed / "ripresa"), "export", "drill.json", "--to", name]
        subprocess.run(command, check=True, cwd=tmp_path, env=surroundings)
        assert (tmp_path / name).read_bytes().startswith(begins)
    command = [str(installed / "ripresa"), "sheet", "drill.json", "--to", "sheet.pdf"]
    subprocess.run(command, check=True, cwd=tmp_path, env=surroundings)
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
