"""``ripresa judge`` and ``ripresa play``: how others check the measuring, a line of JSON for each take."""

import json
from pathlib import Path
from typing import Any

import jsonschema
import pytest

from ripresa.cli import main
from ripresa.core.drill import Drill
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import ScaleRun
from ripresa.core.drill.second import Parallel, SecondHand
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.formats.drill_file import write_drill
from tests.strategies import legs

DRILL = Drill(
    material=ScaleRun(octaves=2), legs=legs(2, 3, 4), hands=ByOrder(cycle=("R", "L")), bpm=F(84), title="Quay steps"
)
SCHEMAS = json.loads((Path(__file__).parents[2] / "docs" / "take.schema.json").read_text())


@pytest.fixture
def drill(tmp_path: Path) -> str:
    path = tmp_path / "drill.json"
    path.write_text(write_drill(DRILL))
    return str(path)


def judged(drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str], *lines: str) -> tuple[int, list[Any]]:
    takes = tmp_path / "takes.jsonl"
    takes.write_text("\n".join(lines) + "\n")
    status = main(["judge", drill, "--takes", str(takes)])
    return status, [json.loads(line) for line in capsys.readouterr().out.splitlines()]


def played(capsys: pytest.CaptureFixture[str], drill: str, *asked: str) -> str:
    assert main(["play", drill, *asked]) == 0
    line = capsys.readouterr().out
    jsonschema.validate(json.loads(line), SCHEMAS["take"])
    return line.strip()


def test_what_the_player_plays_is_judged_line_by_line(
    drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    clean = played(capsys, drill, "--player", "steady", "--seed", "7", "--passes", "3")
    stumbling = played(capsys, drill, "--faults", "stumble_ms=90,spread_ms=6", "--passes", "3")
    status, found = judged(drill, tmp_path, capsys, clean, stumbling)
    assert status == 0
    for line in found:
        jsonschema.validate(line, SCHEMAS["judged"])
    assert [line["mark"] for line in found] == ["clean", "shaky"]
    assert {fault["kind"] for fault in found[1]["faults"]} == {"seam"}
    assert found[1]["remedy"] == {"kind": "seam_loop", "name": "Loop the change at 56", "bpm": "56"}


def test_events_are_counted_among_the_sounded_notes_of_all_passes(
    drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    notes = len(read(DRILL).notes)
    _, (found,) = judged(drill, tmp_path, capsys, played(capsys, drill, "--passes", "2"))
    assert found["matched"] == [[index, index] for index in range(2 * notes)]
    assert found["figures"]["due"] == 2 * notes


def test_figures_are_in_milliseconds_and_per_cent(
    drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    asked = ["--passes", "6", "--bias", "30", "--faults", "drift_percent=1.5,habit_ms=24,habit_slot=0"]
    line = played(capsys, drill, *asked, "--latency", "41")
    _, (found,) = judged(drill, tmp_path, capsys, line)
    figures = found["figures"]
    assert figures["with_click"]["value"] == pytest.approx(30 + 24 * (1 / 2 + 1 / 3 + 1 / 4) / 3, abs=6)
    assert figures["tempo"]["value"] == pytest.approx(1.5, abs=0.05)
    assert figures["habit"]["4"]["0"]["value"] == pytest.approx(24 * 3 / 4, abs=4)
    assert figures["spread"]["value"] == pytest.approx(6, abs=1)
    assert set(figures["spread"]["by_division"]) == {"2", "3", "4"}
    assert found["faults"][0]["unit"] in {"ms", "%"}


def test_a_latency_that_is_not_known_tells_no_bias(
    drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    line = played(capsys, drill, "--latency", "60", "--unknown-latency", "--passes", "3")
    _, (found,) = judged(drill, tmp_path, capsys, line)
    assert found["figures"]["with_click"] is None
    assert found["figures"]["start"]["value"] == pytest.approx(60, abs=8)
    assert found["mark"] == "clean"


def test_the_school_of_a_take_is_its_own_and_one_figure_may_have_another(
    drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    take = json.loads(played(capsys, drill, "--passes", "3", "--faults", "stumble_ms=55,spread_ms=6"))
    easier = {**take, "but": [{"figure": "seam", "evenness": "easy"}]}
    _, found = judged(drill, tmp_path, capsys, json.dumps(take), json.dumps(easier))
    assert [line["mark"] for line in found] == ["shaky", "near"] or [line["mark"] for line in found] == [
        "shaky",
        "clean",
    ]


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("{", "not JSON"),
        ("[1]", "no take"),
        ('{"format": "ripresa.take/2"}', "another format"),
        ('{"format": "ripresa.take/1", "bpm": "84"}', "notes"),
        ('{"format": "ripresa.take/1", "bpm": "84", "notes": [{"at": NaN}]}', "finite"),
        ('{"format": "ripresa.take/1", "bpm": "84", "notes": [{"at": 1e12}]}', "within two hours"),
        ('{"format": "ripresa.take/1", "bpm": "84", "notes": [{"at": 0, "pitch": 900}]}', "127"),
        ('{"format": "ripresa.take/1", "bpm": "0", "notes": []}', "cannot be played"),
        ('{"format": "ripresa.take/1", "bpm": "1e9999", "notes": []}', "exact number"),
        ('{"format": "ripresa.take/1", "bpm": "84", "passes": 100000, "notes": []}', "1000"),
        ('{"format": "ripresa.take/1", "bpm": "84", "source": "telepathy", "notes": []}', "source"),
        ('{"format": "ripresa.take/1", "bpm": "84", "notes": [], "extra": 1}', "extra"),
    ],
)
def test_a_line_that_is_no_take_says_so_and_the_others_are_judged(
    drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str], line: str, says: str
) -> None:
    status, found = judged(drill, tmp_path, capsys, line, "", played(capsys, drill, "--passes", "3"))
    assert status == 1
    assert says in found[0]["error"]
    assert found[0]["line"] == 1
    assert found[1]["mark"] == "clean"


def test_a_take_that_is_too_long_is_not_measured_and_says_so(
    drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    line = json.dumps({"format": "ripresa.take/1", "bpm": "84", "passes": 900, "notes": []})
    _, (found,) = judged(drill, tmp_path, capsys, line)
    jsonschema.validate(found, SCHEMAS["judged"])
    assert (found["mark"], found["refused"]) == ("none", "long")


def test_silence_is_an_answer_too(drill: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    line = json.dumps({"format": "ripresa.take/1", "bpm": "84", "notes": []})
    _, (found,) = judged(drill, tmp_path, capsys, line)
    jsonschema.validate(found, SCHEMAS["judged"])
    assert (found["mark"], found["refused"]) == ("none", "nothing")


@pytest.mark.parametrize(
    ("asked", "says"),
    [
        (["--faults", "stumble=60"], "has no “stumble”"),
        (["--passes", "0"], "1 to 1000 passes"),
        (["--bpm", "9999"], "cannot be played"),
    ],
)
def test_a_player_that_cannot_play_says_why(
    drill: str, capsys: pytest.CaptureFixture[str], asked: list[str], says: str
) -> None:
    assert main(["play", drill, *asked]) == 1
    assert says in capsys.readouterr().err


def test_a_file_of_takes_that_is_not_there(drill: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["judge", drill, "--takes", "nowhere.jsonl"]) == 1
    assert "nowhere.jsonl does not exist" in capsys.readouterr().err


def test_two_hands_are_judged_one_by_one_and_together(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    hands = Drill(
        material=ScaleRun(octaves=2),
        legs=legs(2, 3),
        second=SecondHand(Parallel(), balance="softer"),
        instrument="piano",
        bpm=F(60),
    )
    path = tmp_path / "hands.json"
    path.write_text(write_drill(hands))
    even = played(capsys, str(path), "--player", "steady", "--passes", "4")
    apart = played(capsys, str(path), "--passes", "4", "--faults", "apart_ms=45,spread_ms=6")
    _, found = judged(str(path), tmp_path, capsys, even, apart)
    for line in found:
        jsonschema.validate(line, SCHEMAS["judged"])
    assert [line["mark"] for line in found] == ["clean", "shaky"]
    assert found[0]["figures"]["together"]["louder"]["value"] == pytest.approx(6, abs=0.5)
    assert found[1]["figures"]["together"]["apart"]["value"] == pytest.approx(45, abs=3)
    assert found[1]["faults"][0]["kind"] == "together"
    assert set(found[0]["figures"]["hands"]) == {"R", "L"}
