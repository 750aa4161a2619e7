"""The database file: opened with the care that kept data needs, copied out and back in."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path
from typing import IO

from peewee import DatabaseError

from ripresa.core.errors import Conflict, NotFound, Unreadable
from ripresa.store.migrations import CURRENT, migrate
from ripresa.store.private import close_to_others, private_file
from ripresa.store.tables import StudioDatabase, database
from ripresa.store.trouble import cause, trouble

DATABASE_NAME = "ripresa.sqlite3"
#: What a damaged database ends in; SQLite’s own sentences about one may hold its damaged text.
FAILURES = (sqlite3.DatabaseError, UnicodeDecodeError)
#: How the name of a copy goes on that was set aside when a backup was put in its place.
SET_ASIDE = ".before-restore"
_COUNTED = ("student", "drill", "climb", "take")
_TABLES = {"student", "drill", "drill_version", "climb", "take", "move"}


def open_studio(path: Path, *, patience: float = 5.0) -> StudioDatabase:
    """Return the database at a path, made if there is none, and migrated; ``asking`` asks it.

    Write-ahead log, so that reading never waits; foreign keys on; full sync,
    so that a take that was answered for is on the disk.

    Args:
        patience: For how many seconds it waits where another program holds it.

    Raises:
        Unreadable: The file is not a database of Ripresa.
        Unkept: It is in use, may not be written, or the disk is full; the sentence says which.
        Conflict: It was kept by a newer version.
    """
    _make_folder(path.parent)
    try:
        private_file(path)
    except OSError as error:
        raise trouble(error, path) from error
    close_to_others(path)
    opened = StudioDatabase(
        str(path),
        pragmas={
            "busy_timeout": int(patience * 1000),
            "journal_mode": "wal",
            "foreign_keys": 1,
            "synchronous": "full",
        },
    )
    try:
        opened.connect()
        migrate(opened)
    except (DatabaseError, UnicodeDecodeError) as error:
        raise trouble(cause(error), path) from error
    finally:
        opened.close()
    return opened


@contextmanager
def in_use(path: Path, *, alone: bool = False) -> Iterator[None]:
    """Hold a database while it is served; ``alone`` is for who puts another one in its place.

    The lock is the operating system's: a server that is killed leaves none behind.

    Raises:
        Conflict: It is served, and was to be held alone; or it is just being replaced.
    """
    # Here and not above: whoever only reads a file need not load it.
    import portalocker

    flags = portalocker.LockFlags
    _make_folder(path.parent)
    beside = path.with_name(path.name + ".lock")
    try:
        held: IO[bytes] = private_file(beside).open("ab")
    except OSError as error:
        raise trouble(error, path) from error
    with held:
        try:
            portalocker.lock(held, flags.NON_BLOCKING | (flags.EXCLUSIVE if alone else flags.SHARED))
        except portalocker.AlreadyLocked as error:
            raise Conflict(
                f"Ripresa is running with the data in {path.parent}: what is kept while it is replaced would be lost. "
                "Stop it first (Ctrl+C where it was started), then try again."
                if alone
                else f"The data in {path.parent} is just being restored. Wait until that is done, then start again."
            ) from error
        yield


@dataclass(frozen=True, slots=True)
class Sizes:
    """How big a studio is: bytes on the disk, and how many of each it holds."""

    bytes: int
    students: int
    drills: int
    climbs: int
    takes: int


def sizes_of(path: Path) -> Sizes:
    """Return how big the open studio at a path is."""
    counts = (database.execute_sql(f"SELECT count(*) FROM {name}").fetchone()[0] for name in _COUNTED)
    lying = (path.with_name(path.name + suffix) for suffix in ("", "-wal"))
    return Sizes(sum(one.stat().st_size for one in lying if one.exists()), *counts)


def backup(source: Path, target: Path) -> None:
    """Write a copy of the database in one file, even while it is in use.

    Raises:
        NotFound: There is no database yet, or no such folder for the copy.
        Unreadable: The database is damaged.
        Unkept: The copy cannot be written: the sentence says why.
    """
    if not source.is_file():
        raise NotFound(f"There is nothing to back up yet: {source} does not exist.")
    if not target.parent.is_dir():
        raise NotFound(f"The folder {target.parent} does not exist. Make it first, or choose another.")
    if target.is_dir():
        raise NotFound(f"{target} is a folder. Name the file that the copy is to be.")
    # Renamed when whole, and closed to others: an interrupted backup never replaces a good one.
    _replace(target, _copied(source, target))


def restore(source: Path, target: Path) -> Path | None:
    """Put a backup in place of the database; return where the old one was moved to, if there was one.

    Raises:
        NotFound: The backup does not exist.
        Unreadable: It is not a backup of Ripresa.
        Conflict: It was kept by a newer version, or the data is being served.
        Unkept: It cannot be written: the sentence says why.
    """
    if not source.is_file():
        raise NotFound(f"{source} does not exist. Choose the file that “ripresa backup” wrote.")
    with in_use(target, alone=True):
        try:
            fresh = _copied(source, target)
        except Unreadable as error:
            raise Unreadable(f"{source} is not a backup of Ripresa.") from error
        try:
            _check_is_ours(fresh, source)
            kept = _set_aside(target) if target.exists() else None
            for suffix in ("-wal", "-shm"):
                target.with_name(target.name + suffix).unlink(missing_ok=True)
        except BaseException:
            fresh.unlink(missing_ok=True)
            raise
        _replace(target, fresh)
        return kept


def _copied(source: Path, target: Path) -> Path:
    """Return a whole copy of a database beside where it is to be, in a file that needs no other beside it.

    Raises:
        Unreadable: The source is damaged, or no database.
        Unkept: The copy cannot be written.
    """
    beside = target.with_name(target.name + ".part")
    try:
        beside.unlink(missing_ok=True)
        with closing(reading(source)) as opened:
            # Writing is asked for first, so that its troubles are not taken for those of the source.
            private_file(beside)
            with closing(sqlite3.connect(beside)) as writing:
                opened.backup(writing)
                writing.execute("PRAGMA journal_mode = delete")
        _sync(beside)
    except (*FAILURES, OSError) as error:
        with suppress(OSError):
            beside.unlink(missing_ok=True)
        broken = isinstance(error, FAILURES) and not isinstance(error, sqlite3.OperationalError)
        raise trouble(error, source if broken else beside.with_name(target.name), copying=True) from error
    return beside


def reading(path: Path) -> sqlite3.Connection:
    """Return a connection that only reads; what lies on a disk that cannot be written is read as it lies there."""
    address = path.resolve().as_uri()
    opened = sqlite3.connect(f"{address}?mode=ro", uri=True)
    try:
        opened.execute("SELECT count(*) FROM sqlite_master").fetchone()
    except sqlite3.OperationalError:
        opened.close()
        opened = sqlite3.connect(f"{address}?mode=ro&immutable=1", uri=True)
    return opened


def _set_aside(path: Path) -> Path:
    """Return where a database was copied to before it is replaced; a damaged one is moved as it is."""
    kept = _free_name(path.with_name(path.name + SET_ASIDE))
    try:
        backup(path, kept)
    except Unreadable:
        for suffix in ("-wal", ""):
            lying = path.with_name(path.name + suffix)
            if lying.exists():
                os.replace(lying, kept.with_name(kept.name + suffix))
    return kept


def _replace(target: Path, fresh: Path) -> None:
    try:
        os.replace(fresh, target)
    except OSError as error:
        raise trouble(error, target) from error


def _sync(path: Path) -> None:
    with path.open("rb+") as written:
        os.fsync(written.fileno())


def _make_folder(folder: Path) -> None:
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    except FileExistsError as error:
        raise NotFound(f"{folder} is a file. Name the folder that holds the data.") from error
    except NotADirectoryError as error:
        raise NotFound(f"{folder} lies inside a file. Name the folder that holds the data.") from error
    except OSError as error:
        raise trouble(error, folder) from error


def _free_name(wanted: Path) -> Path:
    name, number = wanted, 2
    while name.exists():
        name, number = wanted.with_name(f"{wanted.name}-{number}"), number + 1
    return name


def _check_is_ours(path: Path, named: Path) -> None:
    try:
        with closing(reading(path)) as opened:
            names = {row[0] for row in opened.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            version = opened.execute("PRAGMA user_version").fetchone()[0]
            sound = opened.execute("PRAGMA quick_check").fetchone()[0]
    except FAILURES as error:
        raise Unreadable(f"{named} is not a backup of Ripresa.") from error
    if not names >= _TABLES or sound != "ok":
        raise Unreadable(f"{named} is not a whole backup of Ripresa.")
    if version > CURRENT:
        raise Unreadable(f"{named} was kept by a newer Ripresa. Restore it there.")
