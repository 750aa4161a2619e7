"""Full disks, locked files, damaged data, sticks that cannot be written: each is told for what it is."""

import errno
import sqlite3
from contextlib import closing
from pathlib import Path
from types import SimpleNamespace

import pytest

from ripresa.core.drill import Drill
from ripresa.core.errors import Conflict, NotFound, RipresaError, Unkept, Unreadable
from ripresa.store import drills
from ripresa.store.files import backup, in_use, open_studio, restore
from ripresa.store.tables import database
from ripresa.store.trouble import trouble
from tests.conftest import NOW, opened


def failed(code: int) -> sqlite3.OperationalError:
    error = sqlite3.OperationalError("it failed")
    error.sqlite_errorcode = code
    return error


@pytest.mark.parametrize(
    ("error", "kind", "says"),
    [
        (failed(sqlite3.SQLITE_FULL), Unkept, "The disk is full: "),
        (OSError(errno.ENOSPC, "No space left on device"), Unkept, "The disk is full: "),
        (failed(sqlite3.SQLITE_BUSY_SNAPSHOT), Unkept, "Another program holds"),
        (failed(sqlite3.SQLITE_READONLY), Unkept, "may write to the file and to its folder"),
        (failed(sqlite3.SQLITE_CANTOPEN), Unkept, "cannot be opened for writing"),
        (OSError(errno.EROFS, "Read-only file system"), Unkept, "cannot be opened for writing"),
        (failed(sqlite3.SQLITE_CORRUPT_INDEX), Unreadable, "is damaged. Restore a backup"),
        (UnicodeDecodeError("utf-8", b"\xff", 0, 1, "as in the text of a damaged table"), Unreadable, "is damaged"),
        (failed(sqlite3.SQLITE_NOTADB), Unreadable, "is not a database of Ripresa"),
        (failed(sqlite3.SQLITE_IOERR_WRITE), Unkept, "The disk failed while"),
    ],
)
def test_each_trouble_has_its_own_sentence(error: Exception, kind: type[RipresaError], says: str) -> None:
    told = trouble(error, Path("/music/room.sqlite3"))
    assert type(told) is kind
    assert says in told.message
    assert "/music/room.sqlite3" in told.message


def test_a_locked_database_is_not_called_something_else(store: Path) -> None:
    database.close()
    with closing(sqlite3.connect(store, isolation_level=None)) as other:
        other.execute("PRAGMA user_version = 0")
        other.execute("PRAGMA locking_mode = exclusive")
        other.execute("BEGIN EXCLUSIVE")
        with pytest.raises(Unkept, match="Another program holds"):
            open_studio(store, patience=0.1)


@pytest.mark.parametrize("name", ["data", "data/deeper"])
def test_a_folder_that_is_a_file_is_told_as_such(tmp_path: Path, name: str) -> None:
    (tmp_path / "data").write_text("a file")
    with pytest.raises(NotFound, match="file"):
        open_studio(tmp_path / name / "ripresa.sqlite3")


def test_where_nothing_may_be_written_it_says_so(tmp_path: Path, store: Path) -> None:
    nowhere = Path("/proc/self/fdinfo/copy.sqlite3")
    with pytest.raises(Unkept, match=r"cannot be opened for writing|The disk failed"):
        backup(store, nowhere)
    with pytest.raises(NotFound, match="is a folder"):
        backup(store, tmp_path)


def test_a_full_disk_while_it_is_copied_leaves_the_last_good_copy(
    store: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    copy = tmp_path / "copy.sqlite3"
    backup(store, copy)
    good = copy.read_bytes()
    for number in range(40):
        drills.add_drill(Drill(title=f"Drill {number}"), NOW)
    connect = sqlite3.connect

    def small(path: object, **more: object) -> sqlite3.Connection:
        opened = connect(path, **more)  # type: ignore[call-overload]
        opened.execute("PRAGMA max_page_count = 5")
        return opened  # type: ignore[no-any-return]

    # What else in this process keeps something has room.
    monkeypatch.setattr("ripresa.store.files.sqlite3", SimpleNamespace(**{**vars(sqlite3), "connect": small}))
    with pytest.raises(Unkept, match="The disk is full"):
        backup(store, copy)
    assert copy.read_bytes() == good
    assert not copy.with_name("copy.sqlite3.part").exists()


def test_a_damaged_database_is_told_and_can_be_replaced_by_a_backup(store: Path, tmp_path: Path) -> None:
    drills.add_drill(Drill(title="Kept"), NOW)
    copy = tmp_path / "copy.sqlite3"
    backup(store, copy)
    database.close()
    for suffix in ("-wal", "-shm"):
        store.with_name(store.name + suffix).unlink(missing_ok=True)
    damaged = store.read_bytes()[:100] + b"\x55" * 60_000
    store.write_bytes(damaged)
    with pytest.raises(Unreadable, match="damaged"):
        backup(store, tmp_path / "other.sqlite3")
    kept = restore(copy, store)
    assert kept is not None
    assert kept.read_bytes() == damaged
    with opened(store):
        assert [one.drill.title for one in drills.all_drills()] == ["Kept"]


@pytest.mark.parametrize("name", ["#1", "50 %", "what?", "ż 音"])
def test_a_backup_of_any_name_comes_back(store: Path, tmp_path: Path, name: str) -> None:
    drills.add_drill(Drill(title="Kept"), NOW)
    copy = tmp_path / name
    backup(store, copy)
    database.close()
    restore(copy, store)
    with opened(store):
        assert [one.drill.title for one in drills.all_drills()] == ["Kept"]


def test_a_backup_needs_no_other_file_beside_it(store: Path, tmp_path: Path) -> None:
    backup(store, tmp_path / "copy")
    # Bytes 18 and 19 of a database: 1 without a write-ahead log, 2 with one (SQLite, Database File Format).
    assert (tmp_path / "copy").read_bytes()[18:20] == b"\x01\x01"
    assert [one.name for one in tmp_path.iterdir() if one.name.startswith("copy")] == ["copy"]


def test_a_copy_with_a_log_is_read_where_nothing_can_be_written_beside_it(store: Path, tmp_path: Path) -> None:
    drills.add_drill(Drill(title="Kept"), NOW)
    database.execute_sql("PRAGMA wal_checkpoint(truncate)")
    database.close()
    stick = tmp_path / "stick"
    stick.write_bytes(store.read_bytes())
    # As on a stick that is write-protected: what SQLite would put beside it cannot be made.
    stick.with_name("stick-shm").mkdir()
    restore(stick, store)
    with opened(store):
        assert [one.drill.title for one in drills.all_drills()] == ["Kept"]


def test_nothing_is_restored_while_the_data_is_served(store: Path, tmp_path: Path) -> None:
    copy = tmp_path / "copy"
    backup(store, copy)
    with in_use(store), in_use(store):
        with pytest.raises(Conflict, match="Stop it first"):
            restore(copy, store)
        backup(store, copy)
    restore(copy, store)
