"""Recordings of takes that are kept because somebody asked for it: until when, and where the sound lies.

Each is a file beside the database. What has run out, and what belongs to no take any more, is deleted.
"""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path

from ripresa.core.errors import NotFound
from ripresa.store.tables import RecordingRow, Row, database, moment
from ripresa.store.trouble import trouble
from ripresa.store.unread import readable

FOLDER_NAME = "recordings"


@dataclass(frozen=True, slots=True)
class Recording:
    """A kept recording.

    Args:
        zero: Where the first beat of the take lies in it, in seconds. seconds, bytes: How long and large it is.
        made_at, until: When it was made, and when it is deleted.
        file: Where it lies.
    """

    take_id: str
    student_id: int
    zero: float
    seconds: float
    bytes: int
    made_at: datetime
    until: datetime
    file: Path


def keep_recording(
    take_id: str, student_id: int, zero: float, seconds: float, now: datetime, days: int, write: Callable[[Path], None]
) -> Recording:
    """Keep a recording of a take for so many days; of a take that has one it takes its place.

    Args:
        write: Writes the sound to a file.

    Raises:
        Unkept: It cannot be written.
    """
    folder = _folder()
    file = folder / _name(take_id)
    try:
        folder.mkdir(parents=True, exist_ok=True)
        beside = file.with_suffix(".part")
        write(beside)
        beside.replace(file)
        size = file.stat().st_size
    except OSError as error:
        raise trouble(error, file) from error
    row = {
        "take": take_id,
        "student": student_id,
        "zero": zero,
        "seconds": seconds,
        "bytes": size,
        "made_at": now,
        "until": now + timedelta(days=days),
    }
    with database.atomic("IMMEDIATE"):
        RecordingRow.insert(**row).on_conflict_replace().execute()
    return find_recording(take_id)


def find_recording(take_id: str) -> Recording:
    """Return the recording of a take.

    Raises:
        NotFound: None is kept.
    """
    row = RecordingRow.get_or_none(RecordingRow.take == take_id)
    found = next(readable("recording", [row], _recording), None) if row else None
    if found is None or not found.file.is_file():
        raise NotFound("No recording of this take is kept.")
    return found


def recordings(student_id: int | None = None) -> list[Recording]:
    """Return the recordings that are kept, of one student or of all, the newest first."""
    rows = RecordingRow.select().order_by(RecordingRow.made_at.desc())
    if student_id is not None:
        rows = rows.where(RecordingRow.student == student_id)
    return list(readable("recording", rows, _recording))


def delete_recordings(take_id: str | None = None, student_id: int | None = None) -> int:
    """Delete the recording of a take, those of a student, or all; return how many there were."""
    asked = RecordingRow.delete()
    if take_id is not None:
        asked = asked.where(RecordingRow.take == take_id)
    if student_id is not None:
        asked = asked.where(RecordingRow.student == student_id)
    count = int(asked.execute())
    sweep(None)
    return count


def sweep(now: datetime | None) -> None:
    """Delete what has run out by a moment, and every file that belongs to no take."""
    if now is not None:
        RecordingRow.delete().where(RecordingRow.until <= now).execute()
    folder = _folder()
    if not folder.is_dir():
        return
    kept = {_name(take_id) for (take_id,) in database.execute_sql("SELECT take_id FROM recording").fetchall()}
    for file in folder.glob("*.flac"):
        if file.name not in kept:
            file.unlink(missing_ok=True)


def _folder() -> Path:
    return Path(database.studio.database).parent / FOLDER_NAME


def _name(take_id: str) -> str:
    return f"{take_id}.flac"


def _recording(row: Row) -> Recording:
    return Recording(
        row.take_id,
        row.student_id,
        row.zero,
        row.seconds,
        row.bytes,
        moment(row.made_at),
        moment(row.until),
        _folder() / _name(row.take_id),
    )
