"""The database file: opened with the care that kept data needs, copied out and back in."""

import os
import sqlite3
from contextlib import closing
from pathlib import Path

from peewee import DatabaseError, SqliteDatabase

from ripresa.core.errors import NotFound, Unreadable
from ripresa.store.migrations import CURRENT, migrate
from ripresa.store.tables import database

DATABASE_NAME = "ripresa.sqlite3"
_TABLES = {"student", "drill", "drill_version", "climb", "take", "move"}


def open_studio(path: Path) -> SqliteDatabase:
    """Open (and if needed make) the database at a path, migrated, for the whole process.

    Write-ahead log, so that reading never waits; foreign keys on; full sync,
    so that a take that was answered for is on the disk.

    Raises:
        Unreadable: The file is not a database of Ripresa.
        Conflict: It was kept by a newer version.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    opened = SqliteDatabase(
        str(path), pragmas={"journal_mode": "wal", "foreign_keys": 1, "synchronous": "full", "busy_timeout": 5000}
    )
    try:
        opened.connect()
        migrate(opened)
    except DatabaseError as error:
        raise Unreadable(f"{path} is not a database of Ripresa. Move it away, or restore a backup.") from error
    finally:
        opened.close()
    database.initialize(opened)
    return opened


def backup(source: Path, target: Path) -> None:
    """Write a copy of the database in one file, even while it is in use.

    Raises:
        NotFound: There is no database yet, or no such folder for the copy.
    """
    if not source.exists():
        raise NotFound(f"There is nothing to back up yet: {source} does not exist.")
    if not target.parent.is_dir():
        raise NotFound(f"The folder {target.parent} does not exist. Make it first, or choose another.")
    beside = target.with_name(target.name + ".part")
    beside.unlink(missing_ok=True)
    with closing(sqlite3.connect(source)) as reading, closing(sqlite3.connect(beside)) as writing:
        reading.backup(writing)
    # Renamed when whole: an interrupted backup never replaces a good one.
    os.replace(beside, target)


def restore(source: Path, target: Path) -> Path | None:
    """Put a backup in place of the database; return where the old one was moved to, if there was one.

    Raises:
        NotFound: The backup does not exist.
        Unreadable: It is not a backup of Ripresa.
        Conflict: It was kept by a newer version.
    """
    if not source.exists():
        raise NotFound(f"{source} does not exist. Choose the file that “ripresa backup” wrote.")
    _check_is_ours(source)
    target.parent.mkdir(parents=True, exist_ok=True)
    fresh = target.with_name(target.name + ".part")
    fresh.unlink(missing_ok=True)
    with closing(sqlite3.connect(source)) as reading, closing(sqlite3.connect(fresh)) as writing:
        reading.backup(writing)
    kept = None
    if target.exists():
        kept = _free_name(target.with_name(target.name + ".before-restore"))
        backup(target, kept)
    for suffix in ("-wal", "-shm"):
        target.with_name(target.name + suffix).unlink(missing_ok=True)
    os.replace(fresh, target)
    return kept


def _free_name(wanted: Path) -> Path:
    name, number = wanted, 2
    while name.exists():
        name, number = wanted.with_name(f"{wanted.name}-{number}"), number + 1
    return name


def _check_is_ours(path: Path) -> None:
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as opened:
            names = {row[0] for row in opened.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            version = opened.execute("PRAGMA user_version").fetchone()[0]
            sound = opened.execute("PRAGMA quick_check").fetchone()[0]
    except sqlite3.DatabaseError as error:
        raise Unreadable(f"{path} is not a backup of Ripresa.") from error
    if not names >= _TABLES or sound != "ok":
        raise Unreadable(f"{path} is not a whole backup of Ripresa.")
    if version > CURRENT:
        raise Unreadable(f"{path} was kept by a newer Ripresa. Restore it there.")
