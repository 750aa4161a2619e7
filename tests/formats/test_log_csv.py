import csv
from dataclasses import replace

from ripresa.core.drill import Drill
from ripresa.core.exact import Fraction as F
from ripresa.core.studio import TakeLine
from ripresa.formats.log_csv import COLUMNS, write_log
from tests.conftest import NOW

TAKE = TakeLine(
    id="take-0001",
    student_id=1,
    climb_id=None,
    rung=None,
    drill_id=1,
    version=1,
    bpm=F(169, 2),
    click="every_beat",
    source="by_ear",
    played_at=NOW,
    seconds=12.5,
    mark="clean",
    reasons=("Marked clean by ear, by the teacher.",),
    note="",
)


def rows(take: TakeLine, title: str = "Stairs", name: str = "Mira") -> list[dict[str, str]]:
    return list(csv.DictReader(write_log([take], lambda _: name, lambda *_: Drill(title=title))))


def test_a_take_is_one_line_with_every_column() -> None:
    (row,) = rows(TAKE)
    assert tuple(row) == COLUMNS
    assert (row["bpm"], row["notes_a_second"], row["seconds"], row["mark"]) == ("84.50", "5.63", "12.50", "clean")
    assert row["played_at"] == "2026-05-06T15:00:00+00:00"
    assert row["spread_ms"] == ""
    (measured,) = rows(replace(TAKE, spread=0.0123, drift_bpm=-0.5))
    assert (measured["spread_ms"], measured["drift_bpm_a_minute"]) == ("12.30", "-0.500")


def test_commas_quotes_and_line_breaks_come_back() -> None:
    (row,) = rows(replace(TAKE, note='easy, "almost"\ntoo easy'))
    assert row["note"] == 'easy, "almost"\ntoo easy'


def test_nothing_is_run_as_a_formula() -> None:
    (row,) = rows(replace(TAKE, note="=1+1"), title="+44", name="@x")
    assert (row["note"], row["drill"], row["student"]) == ("'=1+1", "'+44", "'@x")
