"""Copies of the data that were set aside when a backup was restored, and the recordings that they name."""

import sqlite3
from contextlib import closing
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from ripresa.store.files import FAILURES, SET_ASIDE, reading
from ripresa.store.tables import moment

#: SQLite’s word for a table that an older version did not have.
_NO_TABLE = "no such table"


@dataclass(frozen=True, slots=True)
class Named:
    """A recording that a copy names: of which take and student of which studio, and until when it is kept."""

    take_id: str
    student_id: int
    studio: str
    until: datetime


def named_in_copies(path: Path) -> list[Named] | None:
    """Return the recordings that copies beside a database name; None where one cannot be read."""
    found: list[Named] = []
    for copy in path.parent.glob(f"{path.name}{SET_ASIDE}*"):
        if copy.name.endswith(("-wal", "-shm")):
            continue
        try:
            found += _named(copy)
        except sqlite3.OperationalError as error:
            if _NO_TABLE not in str(error):
                return None
        except (*FAILURES, ValueError, OSError):
            return None
    return found


def _named(copy: Path) -> list[Named]:
    with closing(reading(copy)) as opened:
        (studio,) = opened.execute("SELECT id FROM studio").fetchone()
        rows = opened.execute("SELECT take_id, student_id, until FROM recording").fetchall()
        return [Named(str(take_id), int(student), str(studio), moment(until)) for take_id, student, until in rows]


def only_there(copy: Path, path: Path) -> int:
    """Return how many recordings a copy names that a database does not; 0 where one of them cannot be read."""
    try:
        known = {one.take_id for one in _named(path)}
        return sum(one.take_id not in known for one in _named(copy))
    except (*FAILURES, ValueError, OSError):
        return 0
