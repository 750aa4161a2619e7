"""What the commands of climbs and plans print, by their schemas and by hand."""

import json
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import jsonschema
import numpy as np
import pytest

from ripresa.cli import main
from ripresa.formats.log_csv import COLUMNS
from tests.learners import LEARNERS

SCHEMAS = json.loads((Path(__file__).parents[2] / "docs" / "plan.schema.json").read_text())
PLAN = {
    "format": "ripresa.plan/1",
    "start": "2026-10-07",
    "weeks": 12,
    "days_a_week": 5,
    "minutes": 12,
    "most_a_day": 18,
    "off": ["sunday", "2026-12-22/2027-01-02"],
    "lessons": ["wednesday"],
    "done": [{"date": "2026-10-08", "minutes": 12}, {"date": "2026-10-09", "minutes": 10.5}],
    "today": "2026-11-24",
}


def printed(capsys: pytest.CaptureFixture[str], *arguments: str) -> Any:
    assert main(arguments) == 0
    return json.loads(capsys.readouterr().out)


def climb(capsys: pytest.CaptureFixture[str], *more: str) -> list[dict[str, Any]]:
    found = printed(capsys, "climb", "--from", "84", "--to", "120", *more)
    jsonschema.validate(found, SCHEMAS["climb"])
    assert isinstance(found, list)
    return found


def test_a_zigzag_of_fifteen_steps(capsys: pytest.CaptureFixture[str]) -> None:
    found = climb(capsys, "--rule", "zigzag", "--step", "8", "--back", "4")
    assert [rung["bpm"] for rung in found].index(120) == 15 == len(found) - 1


def test_checkpoints_of_one_ratio(capsys: pytest.CaptureFixture[str]) -> None:
    assert [rung["bpm"] for rung in climb(capsys, "--rule", "checkpoints", "--count", "5")] == [84, 92, 100, 110, 120]


def test_divide_then_raise(capsys: pytest.CaptureFixture[str]) -> None:
    found = climb(capsys, "--rule", "divide", "--divisions", "2,3,4", "--step", "4")
    assert [(one["bpm"], one["division"], one["nps"]) for one in found[:4]] == [
        (84, 2, 2.8),
        (84, 3, 4.2),
        (84, 4, 5.6),
        (88, 4, pytest.approx(5.866667)),
    ]
    assert (found[-1]["bpm"], found[-1]["division"]) == (120, 4)
    speeds = [one["nps"] for one in found]
    assert speeds == sorted(speeds)


def test_a_number_of_another_rule_is_refused(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["climb", "--from", "84", "--to", "120", "--rule", "zigzag", "--count", "5"]) == 1
    assert "The rule zigzag has no --count." in capsys.readouterr().err
    with pytest.raises(SystemExit):
        main(["climb", "--from", "84", "--to", "120", "--rule", "divide", "--divisions", "2,x"])


def spread(capsys: pytest.CaptureFixture[str], folder: Path, **more: Any) -> dict[str, Any]:
    asked = {**PLAN, **more}
    jsonschema.validate(asked, SCHEMAS["plan"])
    (folder / "plan.json").write_text(json.dumps(asked))
    found = printed(capsys, "plan", str(folder / "plan.json"))
    jsonschema.validate(found, SCHEMAS["planned"])
    assert isinstance(found, dict)
    return found


def test_a_plan_file_is_spread(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    found = spread(capsys, tmp_path)
    assert (found["asked"], found["done"], found["ends"]) == (660, 22.5, "2026-12-29")
    assert found["done"] + found["planned"] + found["unplaced"] == found["asked"]
    assert found["fits"] == "2027-01-23"
    assert all(day["planned"] <= 18 for day in found["days"])
    longer = spread(capsys, tmp_path, until=found["fits"])
    assert (longer["unplaced"], longer["asked"], longer["ends"]) == (0, 660, "2027-01-23")


@pytest.mark.parametrize(
    ("changed", "says"),
    [
        ({"format": "other"}, "should be an object with the format"),
        ({"start": "soon"}, "is no day"),
        ({"weeks": 10**30}, "1 to 104 weeks"),
        ({"weeks": "²"}, "weeks"),
        ({"off": ["someday"]}, "is no day"),
        ({"done": [{"date": "2026-10-08", "minutes": 1e300}]}, "minutes"),
        ({"done": [{"date": "2026-12-20", "minutes": 5}]}, "lies after today"),
        ({"typo": 1}, "typo"),
        ({"done": [{"date": "2026-10-08", "minutes": 1000}, {"date": "2026-10-08", "minutes": 1000}]}, "0 to 1440"),
    ],
)
def test_a_plan_that_is_none_is_refused_in_a_sentence(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, changed: dict[str, Any], says: str
) -> None:
    (tmp_path / "plan.json").write_text(json.dumps({**PLAN, **changed}))
    assert main(["plan", str(tmp_path / "plan.json")]) == 1
    assert says in capsys.readouterr().err


def row(day: date, nps: float, mark: str, **more: str) -> str:
    cells = {
        "played_at": f"{day}T17:00:00+01:00",
        "student": "Ottavia Renn",
        "drill": "Harbour sixes",
        "bpm": f"{nps * 15:.2f}",
        "notes_a_second": f"{nps:.2f}",
        "click": "every beat",
        "mark": mark,
        **more,
    }
    return ",".join(cells.get(name, "") for name in COLUMNS)


def log(folder: Path, rows: list[str]) -> str:
    path = folder / "log.csv"
    path.write_text("\n".join([",".join(COLUMNS), *rows]) + "\n", encoding="utf-8")
    return str(path)


def learnt(today: date) -> list[str]:
    takes = LEARNERS["late starter"](np.random.default_rng(4), 42)
    return [row(today - timedelta(days=41 - day), nps, "clean" if clean else "shaky") for day, nps, clean in takes]


def test_a_forecast_from_our_own_export(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    today = date(2026, 11, 25)
    rows = [*learnt(today), row(today, 3.0, "clean", drill="Another"), row(today, 3.0, "splendid")]
    found = printed(capsys, "forecast", log(tmp_path, rows), "--at", "2026-11-25")
    jsonschema.validate(found, SCHEMAS["forecast"])
    assert [week["week"] for week in found["weeks"]] == [2, 3, 4, 5, 6]
    assert all(week["low"] < week["middle"] < week["high"] for week in found["weeks"])
    assert (found["silent"], found["drill"]) == (None, "Harbour sixes")
    assert [(one["drill"], one["silent"] is None) for one in found["series"]] == [
        ("Harbour sixes", True),
        ("Another", False),
    ]
    assert found["unread"] == [{"line": len(rows) + 1, "why": found["unread"][0]["why"]}]
    assert "splendid" in found["unread"][0]["why"]


def test_a_short_log_is_met_with_silence(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    found = printed(capsys, "forecast", log(tmp_path, [row(date(2026, 11, 20), 5.0, "clean")] * 9))
    assert found["weeks"] == []
    assert "9 clean takes on 1 day" in found["silent"]
    assert printed(capsys, "forecast", log(tmp_path, []))["silent"]


def test_a_log_of_several_asks_of_whom(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    rows = [row(date(2026, 11, 20), 5.0, "clean"), row(date(2026, 11, 20), 5.0, "clean", student="=Bram")]
    rows[1] = rows[1].replace("=Bram", "'=Bram")
    assert main(["forecast", log(tmp_path, rows)]) == 1
    assert "--student “Ottavia Renn”" in capsys.readouterr().err
    assert printed(capsys, "forecast", log(tmp_path, rows), "--student", "=Bram")["student"] == "=Bram"
    assert main(["forecast", log(tmp_path, rows), "--student", "Nobody"]) == 1
    assert "does not name “Nobody”" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "does not name the column"),
        (b"\xff\xfe\x00", "UTF-8"),
        (b"played_at,bpm\n", "the column mark"),
        (b"played_at,bpm,mark\n\0", "zero byte"),
    ],
)
def test_what_is_no_log_is_refused(capsys: pytest.CaptureFixture[str], tmp_path: Path, data: bytes, says: str) -> None:
    (tmp_path / "log.csv").write_bytes(data)
    assert main(["forecast", str(tmp_path / "log.csv")]) == 1
    assert says in capsys.readouterr().err


def test_rows_that_cannot_be_read_are_listed_and_none_is_guessed(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    lines = [
        "played_at;bpm;mark;notes_a_second",
        "2026-11-20T17:00;84;clean;5,6",
        "yesterday;84;clean;5,6",
        "2026-11-20T17:00;0;clean;5,6",
        "2026-11-20T17:00;84;clean;-5",
        "2026-11-20T17:00",
        "2026-11-20T17:00;1e9;clean;1e9",
    ]
    (tmp_path / "log.csv").write_text("\n".join(lines))
    found = printed(capsys, "forecast", str(tmp_path / "log.csv"))
    assert [one["line"] for one in found["unread"]] == [3, 4, 5, 6, 7]
    assert found["series"][0]["clean"] == 1
