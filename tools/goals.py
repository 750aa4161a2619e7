"""What a hand waits for, as ratios in one run: readings, lines, performances, takes, sound and files by their size."""

import json
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from flask import Flask
from flask.testing import FlaskClient

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Line, ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import worked_out
from ripresa.core.reports import sums
from ripresa.formats.drill_file import write_drill
from ripresa.formats.midi import write_midi
from ripresa.formats.notation import write_musicxml
from ripresa.web.app import create_app
from ripresa.web.server import spare_the_collector

#: Notes a leg of two octaves there and back.
_LEG = 29


def seconds(work: Callable[[], object], times: int = 5) -> float:
    """Return the shortest of a few runs, in seconds of the processor."""
    found = []
    for _ in range(times):
        began = time.process_time()
        work()
        found.append(time.process_time() - began)
    return min(found)


def scale(notes: int) -> Drill:
    """Return a drill of about so many notes: legs of all divisions, alternating strokes, groups of five."""
    legs = tuple(Leg(F(2 + number % 5)) for number in range(min(400, max(1, round(notes / _LEG)))))
    octaves = 2 if notes <= 400 * _LEG else 3
    return Drill(material=ScaleRun(octaves=octaves), legs=legs, hands=ByOrder(), accents=EveryNth(size=5))


def line(notes: int) -> Drill:
    return Drill(
        material=Line(text=" ".join(["1", "2", "3", "4", "5", "4", "3", "2"] * (notes // 8))), legs=(Leg(F(4)),)
    )


def readings() -> None:
    print("\nReading and sums, worked out anew; beside one of the first size")
    base = 0.0
    for notes in (113, 900, 5_000, 15_000):
        drill = scale(notes)
        made = worked_out(drill)
        took = seconds(lambda drill=drill: sums(worked_out(drill), F(84)), 3)  # type: ignore[misc]
        base = base or took / len(made.notes)
        told = f"{len(made.notes):>7} notes {1000 * took:8.1f} ms"
        print(f"{told}, a note × {took / len(made.notes) / base:.2f}")


def answers() -> None:
    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "bench.sqlite3").test_client()
        bare = _bare()
        empty = seconds(lambda: [bare.get("/nothing") for _ in range(200)], 3) / 200
        asked = seconds(lambda: [client.get("/api/amount?text=84½") for _ in range(200)], 3) / 200
        print(f"\nA request that needs no data: × {asked / empty:.1f} one that does nothing ({1000 * asked:.2f} ms)")
        print("\nAs it is sent, never asked for before; beside the reading and sums of the same drill")
        for name, path, drill in (
            ("line", "reading", line(900)),
            ("scale", "reading", scale(1_000)),
            ("scale", "performance", scale(1_000)),
            ("scale", "performance", scale(15_000)),
        ):
            _sent(client, name, path, drill)


def _sent(client: FlaskClient, name: str, path: str, drill: Drill) -> None:
    body = json.loads(write_drill(drill))
    body.pop("format")
    sizes, times = [], []
    for number in range(4):
        # Another breath is another drill, and the same reading.
        body["breath"] = str(number)
        began = time.process_time()
        sizes.append(len(client.post(f"/api/{path}", json={"drill": body}).data))
        times.append(time.process_time() - began)
    own = seconds(lambda: sums(worked_out(drill), F(84)), 2)
    notes = len(worked_out(drill).notes)
    took = f"{1000 * min(times):7.1f} ms, × {min(times) / own:.1f}"
    print(f"  {path:>11} of a {name}, {notes:>6} notes: {took}; {sizes[-1] / notes:.0f} bytes a note")


def _bare() -> FlaskClient:
    app = Flask("bare")
    app.add_url_rule("/nothing", view_func=lambda: "")
    return app.test_client()


def files() -> None:
    reading = worked_out(Drill(material=ScaleRun(octaves=2), legs=(Leg(F(4)),) * 104))
    own = seconds(lambda: worked_out(reading.drill), 2)
    print(f"\nFiles of {len(reading.notes)} notes, beside reading them ({1000 * own:.0f} ms)")
    writers: list[tuple[str, Callable[[], Any]]] = [
        ("MusicXML", lambda: write_musicxml(reading, F(90), folded=False)),
        ("MIDI", lambda: write_midi(reading, F(90))),
    ]
    for name, write in writers:
        took = seconds(write, 3)
        print(f"  {name:>8}: {1000 * took:6.0f} ms, × {took / own:.1f}")
    told = subprocess.run([sys.executable, "-c", _SOUND], check=True, capture_output=True, text=True).stdout.split()
    lasts, took, megabytes = (float(one) for one in told)
    print(f"  WAV of {lasts / 60:.0f} minutes: {lasts / took:.0f} × real time, {megabytes:.0f} MB at most, all told")


_SOUND = """
import tempfile, time
from pathlib import Path
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.formats.play_along_file import PlayAlong, make_file
from ripresa.formats.play_along import LONGEST_SECONDS
drill = Drill(material=ScaleRun(octaves=2), legs=(Leg(F(4)),) * 4)
with tempfile.TemporaryDirectory() as folder:
    target = Path(folder) / "long.wav"
    asked = PlayAlong(drill, tuple((F(60 + 2 * number), None) for number in range(16)), "wav", passes=2)
    began = time.perf_counter()
    make_file(asked, target, lambda _done: None)
    took = time.perf_counter() - began
    lasts = target.stat().st_size / 2 / 44_100
(peak,) = (row.split()[1] for row in Path('/proc/self/status').read_text().splitlines() if row.startswith('VmHWM'))
print(lasts, took, int(peak) / 1024)
"""


def starts() -> None:
    """How long a start of the demo takes, the first of a day and the next, beside that of the interpreter."""
    with tempfile.TemporaryDirectory() as folder:
        times = [_start(folder) for _ in range(3)]
    bare = statistics.median(_run([sys.executable, "-c", "import flask, pydantic, numpy"]) for _ in range(3))
    print(f"\nStarting the demo: {times[0]:.1f} s the first time of a day, then {min(times[1:]):.1f} s;")
    print(f"  × {min(times[1:]) / bare:.1f} of an interpreter that loads the libraries alone")


def _start(cache: str) -> float:
    """Start the demo up to where it would listen, and return how long that took, in seconds."""
    code = (
        "import sys, waitress; from unittest.mock import MagicMock; waitress.create_server = MagicMock();"
        "from ripresa.cli import main; sys.exit(main(['--demo', '--no-browser', '--port', '8793']))"
    )
    return _run(["env", f"XDG_CACHE_HOME={cache}", sys.executable, "-c", code])


def _run(command: list[str]) -> float:
    began = time.perf_counter()
    subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
    return time.perf_counter() - began


def main() -> None:
    spare_the_collector()
    for part in (readings, answers, files, starts):
        part()


if __name__ == "__main__":
    main()
