import csv
from dataclasses import replace

import pytest

from ripresa.core.drill import Drill
from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.studio import TakeLine
from ripresa.formats.log_csv import COLUMNS, write_log
from ripresa.formats.log_csv_in import ReadLog, read_log
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
    marked, *lines = write_log([take], lambda _: name, lambda *_: Drill(title=title))
    return list(csv.DictReader([marked.removeprefix("\ufeff"), *lines]))


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


def logged(text: str, encoding: str = "utf-8") -> ReadLog:
    return read_log(text.encode(encoding))


LINES = "played_at,bpm,mark,note\n2026-05-06T15:00:00+00:00,84,clean,größer\n"


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16"])
@pytest.mark.parametrize("between", [",", ";", "\t"])
def test_a_log_is_read_in_the_writing_and_with_the_columns_of_any_spreadsheet(encoding: str, between: str) -> None:
    (row,) = logged(LINES.replace(",", between), encoding).rows
    assert (row.bpm, row.note, row.rung, row.source, row.is_measured) == (84, "größer", None, "", False)


def test_our_own_log_comes_back_with_its_step_and_what_heard_it() -> None:
    own = replace(TAKE, source="midi", rung=3, due=16, matched=15, missed=1, extra=0)
    (row,) = logged("".join(write_log([own], lambda _: "Mira", lambda *_: Drill(title="Stairs")))).rows
    assert (row.played_at, row.bpm, row.seconds) == (TAKE.played_at, F(169, 2), 12.5)
    assert (row.rung, row.source, row.is_measured) == (3, "MIDI", True)


@pytest.mark.parametrize(
    ("line", "why"),
    [
        ("9999-12-31T23:59:59-14:00,84,clean,,", "not in the year 9999"),
        ("2026-05-06T15:00:00Z,84,clean,,1e20", "“1e20”"),
        ("2026-05-06T15:00:00Z,84,clean,,86401", "A take lasts from 0 to 86400 seconds, not 86401."),
        ("2026-05-06T15:00:00Z,84,clean,,-50", "-50"),
    ],
)
def test_a_row_out_of_reach_is_listed_and_the_others_are_read(line: str, why: str) -> None:
    found = logged(f"played_at,bpm,mark,note,seconds\n{line}\n2026-05-06T15:00:00Z,84,clean,,12\n")
    assert [row.seconds for row in found.rows] == [12.0]
    assert [row.line for row in found.unread] == [2]
    assert why in found.unread[0].why


def test_a_first_line_that_is_no_csv_is_told() -> None:
    with pytest.raises(Unreadable, match="The first line of this log is no CSV: field larger than field limit"):
        logged("1" * 200_000)
