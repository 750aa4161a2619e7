"""Recordings and their files: together, through kills, sweeps, restores, full disks and guardians; closed to others."""

import errno
import os
import shutil
import sqlite3
import stat
from collections.abc import Callable
from contextlib import closing
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from threading import Thread

import pytest
from peewee import IntegrityError

from ripresa.core.errors import NotFound, Unkept
from ripresa.core.exact import Fraction as F
from ripresa.core.studio import Student, StudentDetails, Take
from ripresa.store import recordings, students, takes
from ripresa.store.files import backup, open_studio, restore
from ripresa.store.places import places_of
from ripresa.store.private import RECORDINGS, TEMP
from ripresa.store.recordings import delete_recordings, find_recording, keep_recording, sweep
from ripresa.store.scratch import Scratch
from ripresa.store.set_aside import only_there
from ripresa.store.tables import asking, database
from tests.conftest import NOW, Studio, opened

posix = pytest.mark.skipif(os.name != "posix", reason="modes are a thing of POSIX")


def add_take(studio: Studio, number: int) -> Take:
    kept, _ = takes.add_take(
        Take(
            id=f"take-{number:08}",
            student_id=studio.student.id,
            climb_id=None,
            rung=None,
            drill_id=studio.drill.id,
            version=studio.drill.version,
            bpm=F(84),
            click="every beat",
            source="by_ear",
            played_at=NOW + timedelta(seconds=number),
            start=0.0,
            end=4.0,
            latency=0.0,
            is_calibrated=False,
            notes=(),
            figures=None,
            mark="clean",
            reasons=("It was.",),
        )
    )
    return kept


def sound(file: Path) -> None:
    file.write_bytes(b"sound")


def keep(take: Take, write: Callable[[Path], None] = sound, days: int = 30) -> None:
    keep_recording(take.id, take.student_id, 0.5, 4.0, NOW, days, write)


def lying(store: Path) -> list[str]:
    folder = store.parent / RECORDINGS
    return sorted(file.name for file in folder.iterdir()) if folder.is_dir() else []


def kept_ids() -> list[str]:
    return sorted(one.take_id for one in recordings.recordings())


@pytest.fixture
def room(store: Path) -> Studio:
    assert store.is_file()
    return Studio()


def test_no_sweep_takes_a_sound_that_is_just_being_kept(store: Path, room: Studio) -> None:
    """Others delete takes and look at the list in each moment between the first byte and the committed row."""
    other, take = add_take(room, 1), add_take(room, 2)

    def meanwhile(file: Path) -> None:
        sound(file)
        sweep(NOW)
        takes.delete_take(other.id)

    keep(take, meanwhile)
    assert find_recording(take.id).file.read_bytes() == b"sound"
    assert lying(store) == [f"{take.id}.flac"]


def test_eighty_are_kept_while_others_sweep(store: Path, room: Studio) -> None:
    kept = [add_take(room, number) for number in range(40)]
    gone = [add_take(room, 100 + number) for number in range(20)]
    studio = database.studio
    failed: list[BaseException] = []

    def of_its_own(work: Callable[[], None]) -> None:
        try:
            with asking(studio), database.connection_context():
                work()
        except BaseException as error:
            failed.append(error)

    def keeps(part: list[Take]) -> None:
        for take in part:
            keep(take)

    def sweeps() -> None:
        for take in gone:
            takes.delete_take(take.id)
            sweep(NOW)

    work = (lambda: keeps(kept[::2]), lambda: keeps(kept[1::2]), sweeps)
    threads = [Thread(target=of_its_own, args=(one,)) for one in work]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert failed == []
    assert kept_ids() == [take.id for take in kept]
    assert lying(store) == [f"{take.id}.flac" for take in kept]


def test_a_take_that_goes_while_its_sound_is_written_leaves_nothing(store: Path, room: Studio) -> None:
    take = add_take(room, 1)

    def deletes(file: Path) -> None:
        sound(file)
        takes.delete_take(take.id)

    with pytest.raises(NotFound, match="This take does not exist"):
        keep(take, deletes)
    assert (lying(store), kept_ids()) == ([], [])


def test_what_a_kill_left_goes_at_the_next_sweep(store: Path, room: Studio) -> None:
    whole, lost = add_take(room, 1), add_take(room, 2)
    keep(whole)
    keep(lost)
    # Killed before the row was committed, while it was written, and after a file went and before its row did.
    (store.parent / RECORDINGS / "take-00000009.flac").write_bytes(b"sound")
    (store.parent / RECORDINGS / "take-00000008.0f.part").write_bytes(b"sou")
    (store.parent / RECORDINGS / f"{lost.id}.flac").unlink()
    sweep(None)
    assert lying(store) == [f"{whole.id}.flac"]
    assert kept_ids() == [whole.id]


def test_a_restored_backup_leaves_what_is_newer_for_the_copy_that_names_it(
    tmp_path: Path, store: Path, room: Studio
) -> None:
    older, newer, short = (add_take(room, number) for number in (1, 2, 3))
    keep(older)
    backup(store, tmp_path / "backup.sqlite3")
    keep(newer)
    keep(short, days=3)
    database.close()
    aside = restore(tmp_path / "backup.sqlite3", store)
    assert aside is not None
    assert only_there(aside, store) == 2
    with opened(store):
        sweep(NOW)
        assert kept_ids() == [older.id]
        assert lying(store) == [f"{one.id}.flac" for one in (older, newer, short)]
        # “Kept until” holds there too.
        sweep(NOW + timedelta(days=4))
        assert lying(store) == [f"{one.id}.flac" for one in (older, newer)]
    restore(aside, store)
    with opened(store):
        sweep(NOW + timedelta(days=4))
        assert find_recording(newer.id).file.is_file()
        # Who wants them gone gets that, whatever copy names them.
        delete_recordings(student_id=newer.student_id)
        assert lying(store) == []


def test_a_copy_that_cannot_be_read_keeps_all_that_may_be_its_own(store: Path, room: Studio) -> None:
    take = add_take(room, 1)
    keep(take)
    store.with_name(f"{store.name}.before-restore").write_bytes(b"damaged" * 100)
    left = store.parent / RECORDINGS / "take-00000009.flac"
    left.write_bytes(b"sound")
    os.utime(left, (NOW.timestamp(), NOW.timestamp()))
    sweep(NOW + timedelta(days=360))
    assert left.is_file()
    sweep(NOW + timedelta(days=370))
    assert not left.exists()


def test_another_studios_copy_keeps_its_own(store: Path, room: Studio) -> None:
    take = add_take(room, 1)
    keep(take)
    copy = store.with_name(f"{store.name}.before-restore")
    backup(store, copy)
    with closing(sqlite3.connect(copy)) as opened_copy, opened_copy:
        opened_copy.execute("UPDATE studio SET id = 'another'")
        opened_copy.execute("UPDATE recording SET take_id = 'theirs-0001'")
    theirs = store.parent / RECORDINGS / "theirs-0001.flac"
    theirs.write_bytes(b"sound")
    delete_recordings(student_id=take.student_id)
    assert lying(store) == [theirs.name]
    delete_recordings()
    assert lying(store) == []


def test_a_full_disk_is_told_and_the_next_try_keeps_it(store: Path, room: Studio) -> None:
    take = add_take(room, 1)

    def is_full(_file: Path) -> None:
        raise OSError(errno.ENOSPC, "No space left on device")

    with pytest.raises(Unkept, match="The disk is full"):
        keep(take, is_full)
    assert (lying(store), kept_ids()) == ([], [])
    keep(take)
    assert kept_ids() == [take.id]


def test_a_sound_goes_before_its_row_which_needs_room(store: Path, room: Studio) -> None:
    take = add_take(room, 1)
    keep(take)
    database.execute_sql(
        "CREATE TRIGGER full BEFORE DELETE ON recording BEGIN SELECT raise(ABORT, 'database or disk is full'); END"
    )
    with pytest.raises(IntegrityError, match="full"):
        delete_recordings(take.id)
    assert lying(store) == []
    with pytest.raises(NotFound, match="No recording of this take is kept"):
        find_recording(take.id)


def test_what_a_guardian_takes_back_is_deleted_then(store: Path, room: Studio) -> None:
    student = changed(room.student, keep_days=30)
    keep(add_take(room, 1))
    assert len(lying(store)) == 1
    guardian = replace(student.details.guardian, recordings=False)
    changed(student, guardian=guardian)
    assert (lying(store), kept_ids()) == ([], [])


def changed(student: Student, **details: object) -> Student:
    found: StudentDetails = replace(student.details, **details)  # type: ignore[arg-type]
    return students.change_student(student.id, found, students.find_student(student.id).revision)


def mode(path: Path) -> int:
    return stat.S_IMODE(path.stat().st_mode)


@posix
def test_all_that_is_kept_is_closed_to_others_also_what_an_older_version_made(
    tmp_path: Path, store: Path, room: Studio
) -> None:
    keep(add_take(room, 1))
    backup(store, tmp_path / "backup.sqlite3")
    aside = restore_closed(tmp_path / "backup.sqlite3", store)
    scratch = Scratch(store.parent)
    (scratch.inner("sound") / "recording-0001").write_bytes(b"sound")
    (tmp_path / "backup.sqlite3").rename(tmp_path.parent / "backup.sqlite3")
    for one in (store, aside, *store.parent.rglob("*")):
        one.chmod(0o755 if one.is_dir() else 0o644)
    store.parent.chmod(0o755)
    open_studio(store)
    files = [one for one in store.parent.rglob("*") if one.is_file()]
    assert {one.name: mode(one) for one in files} == {one.name: 0o600 for one in files}
    folders = [store.parent, *(one for one in store.parent.rglob("*") if one.is_dir())]
    assert {one: mode(one) for one in folders} == dict.fromkeys(folders, 448)
    assert mode(tmp_path.parent / "backup.sqlite3") == 0o600


def restore_closed(source: Path, store: Path) -> Path:
    database.close()
    aside = restore(source, store)
    assert aside is not None
    assert mode(aside) == 0o600
    return aside


@posix
def test_a_folder_in_which_other_things_lie_stays_as_its_owner_has_it(tmp_path: Path, empty: Path) -> None:
    shutil.copyfile(empty, tmp_path / empty.name)
    (tmp_path / "letters.txt").write_text("mine")
    for one in (tmp_path, tmp_path / "letters.txt"):
        one.chmod(0o755)
    open_studio(tmp_path / empty.name)
    assert [mode(one) for one in (tmp_path, tmp_path / "letters.txt", tmp_path / empty.name)] == [0o755, 0o755, 0o600]


def test_what_a_killed_run_left_goes_at_the_next_start_and_what_another_run_holds_stays(tmp_path: Path) -> None:
    mine = Scratch(tmp_path)
    (mine.inner("sound") / "recording-0001").write_bytes(b"sound")
    killed = tmp_path / TEMP / "run-killed"
    killed.mkdir()
    (killed / "held").touch()
    (killed / "recording-0002").write_bytes(b"sound")
    cut_off = tmp_path / TEMP / "run-without-a-lock"
    cut_off.mkdir()
    other = Scratch(tmp_path)
    assert sorted((tmp_path / TEMP).glob("run-*")) == sorted([mine.folder, other.folder])
    assert (mine.folder / "sound" / "recording-0001").is_file()
    mine.end()
    assert list((tmp_path / TEMP).glob("run-*")) == [other.folder]


def test_where_everything_lies_and_how_much_it_is(store: Path, room: Studio) -> None:
    keep(add_take(room, 1))
    backup(store, store.with_name(f"{store.name}.before-restore-2"))
    found = {one.path.name: (one.files, one.bytes) for one in places_of(store)}
    assert found[RECORDINGS] == (1, 5)
    assert found[TEMP] == (0, 0)
    assert found[f"{store.name}.before-restore"][0] == 1
    assert found[store.name][1] >= store.stat().st_size
