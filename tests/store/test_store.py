import sqlite3
from contextlib import closing
from dataclasses import replace
from datetime import timedelta
from pathlib import Path

import pytest

from ripresa.core.climbs import BpmTarget, ClimbPlan, EvenSteps
from ripresa.core.drill import Drill
from ripresa.core.errors import Conflict, NotFound, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.studio import StudentDetails
from ripresa.formats.drill_file import write_drill
from ripresa.store import climbs, drills, students, takes
from ripresa.store.files import backup, open_studio, restore
from ripresa.store.migrations import _STEPS, CURRENT, version_of
from ripresa.store.tables import TakeRow, database
from tests.conftest import NOW, TAKE, Studio, opened
from tests.strategies import legs

STAIRS = Drill(title="Stairs", legs=legs("1/2", 3), bpm=F(169, 2))
PLAN = ClimbPlan(start=F(60), target=BpmTarget(F(80)), rule=EvenSteps(F(5)))


@pytest.mark.usefixtures("store")
def test_a_drill_is_found_as_it_was_saved() -> None:
    kept = drills.add_drill(STAIRS, NOW)
    assert drills.find_drill(kept.id).drill == STAIRS
    assert drills.find_drill(kept.id).saved_at == NOW


@pytest.mark.usefixtures("store")
def test_a_change_is_a_new_version_and_the_old_one_stays() -> None:
    kept = drills.add_drill(STAIRS, NOW)
    second = drills.save_drill(kept.id, Drill(title="Steps"), 1, NOW)
    assert second.version == 2
    assert drills.find_drill(kept.id, 1).drill == STAIRS
    assert [one.version for one in drills.versions_of(kept.id)] == [2, 1]
    assert [one.drill.title for one in drills.all_drills()] == ["Steps"]


@pytest.mark.usefixtures("store")
def test_a_change_that_changes_nothing_makes_no_version() -> None:
    kept = drills.add_drill(STAIRS, NOW)
    assert drills.save_drill(kept.id, STAIRS, 1, NOW).version == 1


@pytest.mark.usefixtures("store")
def test_a_change_on_top_of_an_old_version_is_refused_and_nothing_is_lost() -> None:
    kept = drills.add_drill(STAIRS, NOW)
    drills.save_drill(kept.id, Drill(title="Theirs"), 1, NOW)
    with pytest.raises(Conflict, match="at version 2, yours was made from 1") as refused:
        drills.save_drill(kept.id, Drill(title="Mine"), 1, NOW)
    assert refused.value.field == "based_on"
    assert drills.find_drill(kept.id).drill.title == "Theirs"


@pytest.mark.usefixtures("store")
def test_a_drill_is_put_away_and_taken_back_and_its_climb_keeps_it() -> None:
    studio = Studio()
    drills.archive_drill(studio.drill.id, NOW)
    assert drills.all_drills() == []
    assert [one.id for one in drills.all_drills(archived=True)] == [studio.drill.id]
    assert climbs.find_climb(studio.climb.id).drill.drill == studio.drill.drill
    drills.archive_drill(studio.drill.id, None)
    assert [one.id for one in drills.all_drills()] == [studio.drill.id]


def test_data_of_the_first_shape_is_brought_along(tmp_path: Path) -> None:
    path = tmp_path / "first.sqlite3"
    with closing(sqlite3.connect(path)) as first:
        for statement in _STEPS[0]:
            first.execute(statement)
        first.execute("INSERT INTO drill VALUES (1, '2026-05-06T15:00:00+00:00')")
        first.execute(
            "INSERT INTO drill_version VALUES (1, 1, 1, ?, '2026-05-06T15:00:00+00:00')", (write_drill(STAIRS),)
        )
        first.execute("PRAGMA user_version = 1")
        first.commit()
    with opened(path):
        assert version_of(database.studio) == CURRENT
        assert [one.drill for one in drills.all_drills()] == [STAIRS]


@pytest.mark.usefixtures("store")
def test_what_does_not_exist_is_not_found() -> None:
    for look in (
        lambda: drills.find_drill(9),
        lambda: drills.versions_of(9),
        lambda: drills.archive_drill(9, NOW),
        lambda: students.find_student(9),
        lambda: students.change_student(9, StudentDetails("X"), 1),
        lambda: climbs.find_climb(9),
        lambda: climbs.add_climb(9, 9, None, PLAN, NOW),
        lambda: takes.find_take("none"),
        lambda: takes.write_note("none", ""),
    ):
        with pytest.raises(NotFound, match="does not exist"):
            look()


@pytest.mark.usefixtures("store")
def test_a_climb_keeps_the_version_it_began_with() -> None:
    studio = Studio()
    drills.save_drill(studio.drill.id, Drill(title="Edited later"), 1, NOW)
    assert climbs.find_climb(studio.climb.id).drill.drill.title == "Slip steps"


@pytest.mark.usefixtures("store")
def test_a_move_that_arrives_twice_moves_once() -> None:
    studio = Studio()
    for expected in (None, Conflict):
        if expected:
            with pytest.raises(Conflict, match="already on rung 2"):
                _up(studio)
        else:
            _up(studio)
    assert climbs.find_climb(studio.climb.id).rung == 2
    assert len(climbs.moves_of([studio.climb.id], 9)) == 1


def _up(studio: Studio) -> None:
    climbs.add_move(
        studio.climb.id,
        take_id=None,
        from_rung=1,
        to_rung=2,
        offered="up",
        decision="up",
        reason="two clean",
        now=NOW,
    )


@pytest.mark.usefixtures("store")
def test_a_take_sent_twice_is_kept_once_as_it_was_first() -> None:
    Studio()
    assert takes.add_take(TAKE) == (TAKE, True)
    assert takes.add_take(replace(TAKE, note="said later")) == (TAKE, False)
    assert takes.find_take("take-0001") == TAKE
    assert TakeRow.select().count() == 1


@pytest.mark.usefixtures("store")
def test_takes_are_listed_newest_first_and_written_out_oldest_first() -> None:
    Studio()
    for number in range(4):
        takes.add_take(replace(TAKE, id=f"take-{number:04}", played_at=NOW + timedelta(minutes=number)))
    assert [take.id for take in takes.take_lines(most=2)] == ["take-0003", "take-0002"]
    assert [take.id for take in takes.every_take()] == [f"take-{number:04}" for number in range(4)]
    assert list(takes.every_take(99)) == []


@pytest.mark.usefixtures("store")
def test_a_take_of_nobody_is_refused_by_the_database() -> None:
    Studio()
    with pytest.raises(NotFound, match="student or the climb"):
        takes.add_take(replace(TAKE, student_id=99))


def test_the_database_is_kept_with_care(store: Path) -> None:
    assert store.exists()
    assert database.execute_sql("PRAGMA journal_mode").fetchone()[0] == "wal"
    assert database.execute_sql("PRAGMA foreign_keys").fetchone()[0] == 1
    assert version_of(database.studio) == CURRENT


def test_opening_again_changes_nothing(store: Path) -> None:
    drills.add_drill(STAIRS, NOW)
    database.close()
    with opened(store):
        assert drills.all_drills()[0].drill == STAIRS


def test_data_of_a_newer_ripresa_is_left_alone(store: Path) -> None:
    database.execute_sql(f"PRAGMA user_version = {CURRENT + 1}")
    database.close()
    with pytest.raises(Conflict, match="kept by a newer Ripresa"):
        open_studio(store)


def test_what_is_no_database_is_refused_and_left_alone(tmp_path: Path) -> None:
    path = tmp_path / "notes.sqlite3"
    path.write_text("my own notes, long before Ripresa came" * 100)
    with pytest.raises(Unreadable, match="Move it away"):
        open_studio(path)
    assert path.read_text().startswith("my own notes")


def test_a_backup_comes_back_and_what_was_there_is_kept(store: Path, tmp_path: Path) -> None:
    drills.add_drill(STAIRS, NOW)
    copy = tmp_path / "copy.sqlite3"
    backup(store, copy)
    drills.add_drill(Drill(title="After the copy"), NOW)
    database.close()
    before = restore(copy, store)
    assert before is not None
    with opened(store):
        assert [one.drill.title for one in drills.all_drills()] == ["Stairs"]
    with opened(before):
        assert len(drills.all_drills()) == 2


def test_a_backup_needs_something_to_copy_and_somewhere_to_put_it(tmp_path: Path, store: Path) -> None:
    with pytest.raises(NotFound, match="nothing to back up yet"):
        backup(tmp_path / "none.sqlite3", tmp_path / "copy")
    with pytest.raises(NotFound, match="Make it first"):
        backup(store, tmp_path / "no" / "folder" / "copy")


def test_only_a_backup_is_restored(tmp_path: Path, store: Path) -> None:
    wrong = tmp_path / "wrong.sqlite3"
    wrong.write_bytes(b"no database at all" * 64)
    with pytest.raises(Unreadable, match="not a backup of Ripresa"):
        restore(wrong, store)
    with pytest.raises(NotFound, match="does not exist"):
        restore(tmp_path / "none", store)
    assert drills.all_drills() == []
