"""Whether a change of the code changed an answer: all that is told of some six hundred drills, before and after.

``python -m tools.same keep FOLDER`` draws the drills and keeps them with a digest of each answer;
``python -m tools.same hold FOLDER`` works all of it out again and names the first that differ.
"""

import hashlib
import json
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import msgspec
from hypothesis import HealthCheck, Phase, given, seed, settings

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import Count, Line, ScaleRun
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import Pulse, Spoken, perform
from ripresa.core.reading import Reading, read
from ripresa.core.shelf import SHELF
from ripresa.core.takes import STAND_INS, Limits, due_notes, judge, play
from ripresa.formats.drill_file import read_drill, write_drill
from ripresa.formats.midi import write_midi
from ripresa.formats.notation import write_musicxml
from ripresa.formats.reading_json import reading_values
from ripresa.formats.sums_json import sums_values
from ripresa.web.shapes.reading import reading_shape
from ripresa.web.shapes.sent import Sent
from ripresa.web.shapes.table import Table
from tests.strategies import made_for_two_hands, made_with, materials

Answer = Callable[[Drill, Reading], object]
DRAWN = 450


def drawn() -> Iterator[Drill]:
    """Yield the drills of the shelf, some long ones, and such as the tests draw, the same at each call."""
    yield from (one.drill for one in SHELF)
    for count in (10, 60):
        legs = tuple(Leg(F(2 + index % 5)) for index in range(count))
        yield Drill(material=ScaleRun(octaves=2), legs=legs, bpm=F(84))
    yield Drill(material=Line(text="1 b3 5' x r 4 >2 ~7 " * 60), legs=(Leg(F(4)), Leg(F(3))))
    yield Drill(material=Count(text="1 e & a 2 trip let (3) & 4/5 .2 .3 | " * 12 + "1"))
    for strategy, share in ((made_with(materials), 0.8), (made_for_two_hands(), 0.2)):
        found: list[Drill] = []
        run = settings(
            max_examples=int(DRAWN * share),
            database=None,
            phases=[Phase.generate],
            deadline=None,
            suppress_health_check=list(HealthCheck),
        )
        run(seed(20)(given(strategy)(_into(found))))()
        yield from found


def _into(found: list[Drill]) -> Callable[[Drill], None]:
    def collect(drill: Drill) -> None:
        found.append(drill)

    return collect


def answers() -> dict[str, Answer]:
    """Return what is asked of each drill."""

    def judged(_drill: Drill, reading: Reading) -> object:
        if len(reading.notes) > 400:
            return None
        due = due_notes(reading, F(90), 0.0, float(reading.loop_beats * 60 / 90) * 2)
        notes = play(STAND_INS["learner"][1], due).notes
        return repr(judge(due, notes, Limits(), "midi", (0.0, 0.002)))

    return {
        "reading": lambda drill, reading: reading_values(reading, drill.bpm),
        "sums": lambda drill, reading: sums_values(reading, drill.bpm + 7),
        "shown": lambda drill, reading: values(reading_shape(reading, drill.bpm)),
        "played": lambda _, reading: values(perform(reading, F(77, 2))),
        "accompanied": lambda drill, reading: values(
            perform(
                reading,
                drill.bpm,
                pulse=Pulse(),
                back=("chords", "bass", "groove", "hits", "foot", "arm"),
                spoken=Spoken("slots"),
                turns=1,
            )
        ),
        "midi": lambda drill, reading: write_midi(reading, drill.bpm),
        "musicxml": lambda drill, reading: write_musicxml(reading, drill.bpm),
        "written out": lambda drill, reading: write_musicxml(reading, drill.bpm, folded=False),
        "judged": judged,
    }


def values(found: object) -> object:
    """Return what is sent of a shape or of a value of the core."""
    if isinstance(found, Sent):
        plain = json.loads(
            msgspec.json.encode(found, enc_hook=lambda one: list(one) if isinstance(one, Table) else str(one))
        )
        for row in plain["rows"]:
            row["words"] = _words(row)
        return plain
    return msgspec.to_builtins(found, enc_hook=str)


def _words(row: dict[str, Any]) -> str:
    """Return a row as the browser says it."""
    said, left = (", ".join(event["words"] for event in row[hand]) for hand in ("events", "other"))
    return f"right hand: {said}; left hand: {left}" if left else said


def digests(drill: Drill, asked: dict[str, Answer]) -> dict[str, str]:
    """Return a digest of each answer about a drill; a refusal is one too."""
    found = {}
    for name, answer in asked.items():
        try:
            told = answer(drill, read(drill))
        except RipresaError as error:
            told = f"{type(error).__name__}: {error.message}"
        body = told if isinstance(told, bytes) else json.dumps(told, sort_keys=True, default=str).encode()
        found[name] = hashlib.sha256(body).hexdigest()[:16]
    return found


def keep(folder: Path) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    asked = answers()
    rows = [{"drill": write_drill(drill), "told": digests(drill, asked)} for drill in drawn()]
    (folder / "same.json").write_text(json.dumps(rows))
    print(f"{len(rows)} drills, {len(asked)} answers each.")


def hold(folder: Path) -> int:
    rows = json.loads((folder / "same.json").read_text())
    asked = answers()
    wrong = 0
    for number, row in enumerate(rows):
        told = digests(read_drill(row["drill"]), asked)
        other = [name for name in told if told[name] != row["told"].get(name)]
        if other:
            wrong += 1
            if wrong <= 10:
                print(f"{number}: {', '.join(other)}\n{' '.join(row['drill'].split())[:600]}")
    print(f"{len(rows)} drills, {len(asked)} answers each: {wrong} differ.")
    return 1 if wrong else 0


if __name__ == "__main__":
    command, where = sys.argv[1:3]
    if command == "keep":
        keep(Path(where))
    else:
        sys.exit(hold(Path(where)))
