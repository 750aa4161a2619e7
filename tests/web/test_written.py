"""Drills written out: engraved in processes of their own, with every note findable, and where the notes lie."""

import os
import re
import signal
import subprocess
import sys
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from threading import Event
from typing import Any

from flask.testing import FlaskClient

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.material import Count, Line, ScaleRun
from ripresa.core.drill.second import Parallel, SecondHand
from ripresa.core.reading import read
from ripresa.formats.drill_file import plain
from ripresa.formats.engraver import Engraver
from ripresa.formats.notation import write_score
from ripresa.work.written import in_words, lies, write_out
from tests.strategies import legs


def test_every_note_is_drawn_under_the_number_of_its_event(engraver: Engraver) -> None:
    reading = read(Drill(material=ScaleRun(octaves=1), legs=legs(2, 3)))
    found = write_out(engraver, reading, "notes", 900)
    drawn = {int(number) for number in re.findall(r'id="e(\d+)-', found.picture)}
    sounding = {number for number, event in enumerate(reading.every) if event.kind == "note"}
    assert drawn == sounding
    assert not found.drawn_as


def test_what_is_folded_says_which_note_is_drawn_for_it(engraver: Engraver) -> None:
    reading = read(Drill(material=Count("1 & 2 & 3 & 4 &"), legs=legs(1, 1)))
    found = write_out(engraver, reading, "notes", 900)
    drawn = {int(number) for number in re.findall(r'id="e(\d+)-', found.picture)}
    assert drawn == set(range(8))
    assert found.drawn_as == {number + 8: number for number in range(8)}


def test_a_worker_that_dies_is_replaced(engraver: Engraver) -> None:
    score = write_score(read(Drill()), Drill().bpm, for_drawing=True).body
    engraver.draw(score, 500)
    pool = engraver._pool
    assert isinstance(pool, ProcessPoolExecutor)
    for pid in list(pool._processes):
        os.kill(pid, signal.SIGKILL)
    assert engraver.draw(score, 501).startswith("<svg")


#: A process that draws, says who draws for it, and is killed.
_KILLED = """
import os, signal
from ripresa.core.drill import Drill
from ripresa.core.reading import read
from ripresa.formats.engraver import Engraver
from ripresa.formats.notation import write_score

if __name__ == "__main__":
    found = Engraver()
    found.draw(write_score(read(Drill()), Drill().bpm, for_drawing=True).body, 500)
    print(*found._pool._processes, flush=True)
    os.kill(os.getpid(), signal.SIGKILL)
"""


def test_workers_end_with_whoever_asked_also_when_that_is_killed(tmp_path: Path) -> None:
    (tmp_path / "asks.py").write_text(_KILLED, "utf-8")
    asked = subprocess.run([sys.executable, tmp_path / "asks.py"], capture_output=True, text=True, check=False)
    worker = int(asked.stdout)
    for _ in range(600):
        # A process that has ended and that nobody waits for is still listed, as defunct.
        state = Path(f"/proc/{worker}/stat")
        if not state.exists() or state.read_text().split()[2] == "Z":
            return
        Event().wait(0.1)
    raise AssertionError("the worker went on without anyone to draw for")


def test_a_picture_is_drawn_once(engraver: Engraver) -> None:
    score = write_score(read(Drill()), Drill().bpm, for_drawing=True).body
    first = engraver.draw(score, 700)
    engraver.close()
    assert engraver.draw(score, 700) is first
    assert engraver._pool is None


def test_the_words_say_each_bar() -> None:
    reading = read(Drill(material=Line("C4*1 >D4*1 E4*2", rhythm="own"), legs=legs(1), accents=NoAccents()))
    assert in_words(reading) == "bar 1: 1 C4, 2 D4 accent, 3 E4."


def test_the_neck_shows_each_position_and_tells_the_tonic() -> None:
    found = lies(read(Drill(material=ScaleRun(tonic="G", octaves=2), instrument="guitar", fingering="position")))
    assert found.forms == ("notes", "tab", "both")
    (neck,) = found.necks
    assert {dot.name for dot in neck.dots if dot.is_home} == {"G"}
    assert (neck.name, neck.first, neck.last) == ("position II", 2, 5)
    assert neck.words.startswith("position II: string 6 fret 3 finger 2 G, string 6 fret 5 finger 4 A, string 5 fret 2")
    shifting = read(Drill(material=ScaleRun(tonic="Bb", octaves=2), instrument="guitar", fingering="three_a_string"))
    assert [(neck.name, neck.first) for neck in lies(shifting).necks] == [
        ("position VI", 6),
        ("position VII", 7),
        ("position VIII", 8),
    ]
    assert found.keys is None
    assert found.names == ()


def test_strings_without_a_fingering_take_the_usual_one() -> None:
    assert lies(read(Drill(instrument="guitar"))).necks


def test_keys_tell_the_fingers_of_both_hands() -> None:
    drill = Drill(
        material=ScaleRun(tonic="D", octaves=1),
        legs=legs(2),
        instrument="piano",
        fingering="usual",
        second=SecondHand(Parallel(interval="octave")),
    )
    keys = lies(read(drill)).keys
    assert keys is not None
    assert keys.lowest % 12 not in {1, 3, 6, 8, 10}
    right = {dot.name: dot.right for dot in keys.dots if dot.right}
    # D major, right hand: 1 2 3 1 2 3 4 5.
    assert right["F♯"] == (3,)
    assert right["G"] == (1,)
    assert any(dot.left for dot in keys.dots)


def test_a_wind_tells_what_sounds() -> None:
    found = lies(read(Drill(material=ScaleRun(tonic="D", octaves=1), instrument="trumpet")))
    assert found.names[0] == ("D4", "C4")
    assert found.forms == ("notes",)


def test_the_api_draws_a_part_and_refuses_what_is_too_much(client: FlaskClient) -> None:
    drill: Any = plain(Drill(material=ScaleRun(octaves=2), instrument="guitar"))
    answer = client.post("/api/written", json={"drill": drill, "form": "both", "width": 700})
    assert answer.status_code == 200
    assert answer.json
    assert 'id="e0-1-0-0"' in answer.json["picture"]
    assert answer.json["words"].startswith("bar 1: 1 ")
    flute: Any = plain(Drill(instrument="flute"))
    refused = client.post("/api/written", json={"drill": flute, "form": "tab", "width": 700})
    assert refused.status_code == 422
    assert refused.json
    assert refused.json["field"] == "form"
    long: Any = plain(Drill(material=ScaleRun(octaves=3), legs=legs(*[8] * 80)))
    much = client.post("/api/written", json={"drill": long, "form": "notes", "width": 700})
    assert much.status_code == 422
    assert much.json
    assert "Up to 3,000" in much.json["message"]
    lying = client.post("/api/written/lies", json={"drill": drill}).json
    assert lying
    assert lying["forms"] == ["notes", "tab", "both"]
    assert lying["necks"]
