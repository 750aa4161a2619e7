"""Recordings of takes that are kept because somebody asked for it: until when, and where the sound lies.

Each is a file beside the database. What has run out, and what belongs to no take any more, is deleted. Row and file
come and go while the database is held: a file is put in its place before its row is committed, and goes before its row
does, so that whatever is killed on the way leaves a file without a row, or a row without a file, for the next sweep.
"""

from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from uuid import uuid4

from peewee import DatabaseError, Expression, IntegrityError

from ripresa.core.errors import NotFound
from ripresa.core.studio import MOST_KEEP_DAYS
from ripresa.store.identity import studio_id
from ripresa.store.private import RECORDINGS, private_file, private_folder
from ripresa.store.set_aside import named_in_copies
from ripresa.store.tables import RecordingRow, Row, database, moment
from ripresa.store.trouble import cause, trouble
from ripresa.store.unread import readable

SUFFIX = ".flac"
#: Files that are just being written in this process: no sweep takes them.
_writing: set[Path] = set()


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
) -> None:
    """Keep a recording of a take for so many days; of a take that has one it takes its place.

    Args:
        write: Writes the sound to a file.

    Raises:
        Unkept: It cannot be written.
        NotFound: The take was deleted meanwhile.
    """
    file = _folder() / _name(take_id)
    try:
        private_folder(file.parent)
        with _beside(file) as beside:
            write(private_file(beside))
            row = {
                "take": take_id,
                "student": student_id,
                "zero": zero,
                "seconds": seconds,
                "bytes": beside.stat().st_size,
                "made_at": now,
                "until": now + timedelta(days=days),
            }
            with database.atomic("IMMEDIATE"):
                RecordingRow.insert(**row).on_conflict_replace().execute()
                beside.replace(file)
    except IntegrityError as error:
        raise NotFound("This take does not exist.") from error
    except OSError as error:
        raise trouble(error, file) from error


@contextmanager
def _beside(file: Path) -> Iterator[Path]:
    """Give the name of a file to write first; nothing of it is left."""
    beside = file.with_name(f"{file.stem}.{uuid4().hex}.part")
    _writing.add(beside)
    try:
        yield beside
    finally:
        _writing.discard(beside)
        with suppress(OSError):
            beside.unlink(missing_ok=True)


def find_recording(take_id: str) -> Recording:
    """Return the recording of a take.

    Raises:
        NotFound: None is kept.
    """
    found = _kept(take_id)
    if found is None:
        raise NotFound("No recording of this take is kept.")
    return found


def _kept(take_id: str) -> Recording | None:
    row = RecordingRow.get_or_none(RecordingRow.take == take_id)
    found = next(readable("recording", [row], _recording), None) if row else None
    return found if found and found.file.is_file() else None


def is_kept(take_id: str) -> bool:
    """Return whether a take has a recording that is kept."""
    return _kept(take_id) is not None


def recordings(student_id: int | None = None) -> list[Recording]:
    """Return the recordings that are kept, of one student or of all, the newest first."""
    rows = RecordingRow.select().order_by(RecordingRow.made_at.desc())
    if student_id is not None:
        rows = rows.where(RecordingRow.student == student_id)
    return list(readable("recording", rows, _recording))


def delete_recordings(take_id: str | None = None, student_id: int | None = None) -> int:
    """Delete the recording of a take, those of a student, or all; return how many there were.

    Raises:
        Unkept: A file cannot be deleted, or the row of one that was.
    """
    with database.atomic("IMMEDIATE"):
        asked: Expression | bool = True
        if take_id is not None:
            asked = RecordingRow.take == take_id
        elif student_id is not None:
            asked = RecordingRow.student == student_id
        count = _erase(asked)
        if take_id is None:
            for one in named_in_copies(_database()) or ():
                if student_id is None or (one.student_id, one.studio) == (student_id, studio_id()):
                    _delete(one.take_id)
    sweep(None)
    return count


def _erase(asked: Expression | bool) -> int:
    """Delete recordings by a condition on their rows while the database is held, and return how many there were."""
    rows: Iterable[Row] = RecordingRow.select(RecordingRow.take).where(asked)
    gone = [str(row.take_id) for row in rows]
    # The sound first: what somebody wants gone is gone, and there is room again on a full disk for what follows.
    for take_id in gone:
        _delete(take_id)
    RecordingRow.delete().where(asked).execute()
    return len(gone)


def _delete(take_id: str) -> None:
    file = _folder() / _name(take_id)
    try:
        file.unlink(missing_ok=True)
    except OSError as error:
        raise trouble(error, file) from error


def sweep(now: datetime | None) -> None:
    """Delete what has run out by a moment, every file that belongs to no take, and every row that has no file.

    What a copy names that was set aside when a backup was restored stays as long as it was to be kept: who goes back
    to that copy finds it.

    Raises:
        Unkept: The data cannot be written; the sentence says why.
    """
    try:
        with database.atomic("IMMEDIATE"):
            _sweep(now)
    except DatabaseError as error:
        raise trouble(cause(error), _database()) from error


def _sweep(now: datetime | None) -> None:
    folder = _folder()
    if now is not None:
        _erase(RecordingRow.until <= now)
    lying = set(folder.iterdir()) if folder.is_dir() else set()
    rows: Iterable[Row] = RecordingRow.select(RecordingRow.take)
    kept = [str(row.take_id) for row in rows]
    lost = [take_id for take_id in kept if folder / _name(take_id) not in lying]
    if lost:
        RecordingRow.delete().where(RecordingRow.take.in_(lost)).execute()
    left = lying - {folder / _name(take_id) for take_id in kept} - _writing
    for file in left - _set_aside(left, now) if left else ():
        with suppress(OSError):
            file.unlink()


def _set_aside(files: set[Path], now: datetime | None) -> set[Path]:
    """Return those of some files that a copy names which was set aside, and that have not run out there."""
    named = named_in_copies(_database())
    if named is None:
        # Which they are cannot be read: any of them stays for as long as one may be kept.
        long_ago = (now - timedelta(days=MOST_KEEP_DAYS)).timestamp() if now else 0.0
        return {one for one in files if one.suffix == SUFFIX and one.stat().st_mtime > long_ago}
    return files & {_folder() / _name(one.take_id) for one in named if now is None or one.until > now}


def _database() -> Path:
    return Path(database.studio.database)


def _folder() -> Path:
    return _database().parent / RECORDINGS


def _name(take_id: str) -> str:
    return f"{take_id}{SUFFIX}"


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
