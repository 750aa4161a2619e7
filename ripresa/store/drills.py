"""Finding and saving drills: each change is a new version, and versions never change."""

from datetime import datetime
from functools import lru_cache

from peewee import fn

from ripresa.core.drill import Drill
from ripresa.core.errors import Conflict, NotFound
from ripresa.core.studio import KeptDrill
from ripresa.formats.drill_file import read_drill, write_drill
from ripresa.store.once import once
from ripresa.store.settings import learn_instrument
from ripresa.store.tables import DrillRow, Row, VersionRow, database, moment
from ripresa.store.unread import one, readable

_LONGEST_REMEMBERED = 50_000


def all_drills(*, archived: bool = False) -> list[KeptDrill]:
    """Return the latest version of every drill in use, or of every one put away; the last changed first."""
    latest = VersionRow.select(VersionRow.drill, fn.MAX(VersionRow.number).alias("number")).group_by(VersionRow.drill)
    rows = (
        VersionRow.select()
        .join(latest, on=((VersionRow.drill == latest.c.drill_id) & (VersionRow.number == latest.c.number)))
        .switch(VersionRow)
        .join(DrillRow)
        .where(DrillRow.archived_at.is_null(not archived))
        .order_by(VersionRow.saved_at.desc(), VersionRow.id.desc())
    )
    return list(readable("drill version", rows, to_drill))


def find_drill(drill_id: int, version: int | None = None) -> KeptDrill:
    """Return a version of a drill, the latest if none is named.

    Raises:
        NotFound: There is none.
    """
    return one("drill version", version_row(drill_id, version), to_drill)


def versions_of(drill_id: int, most: int = 50) -> list[KeptDrill]:
    """Return the last versions of a drill, the latest first."""
    version_row(drill_id, None)
    rows = VersionRow.select().where(VersionRow.drill == drill_id).order_by(VersionRow.number.desc()).limit(most)
    return list(readable("drill version", rows, to_drill))


def add_drill(drill: Drill, now: datetime, key: str | None = None, writer: str = "") -> KeptDrill:
    """Keep a new drill as its version 1; the same key twice is the same drill."""

    def make() -> int:
        learn_instrument(drill.instrument)
        row = DrillRow.create(created_at=now)
        VersionRow.create(drill=row, number=1, body=write_drill(drill), saved_at=now, writer=writer)
        return int(row.id)

    return find_drill(once(key, "drill", make))


def save_drill(drill_id: int, drill: Drill, based_on: int, now: datetime, writer: str = "") -> KeptDrill:
    """Keep a change as the next version; one that changes nothing makes none.

    Args:
        based_on: Number of the version that was changed.
        writer: The open page that it comes from. What that page itself has kept since is no conflict: its
            answer was lost on the way.

    Raises:
        NotFound: There is no such drill.
        Conflict: It has changed since that version.
    """
    with database.atomic("IMMEDIATE"):
        latest = find_drill(drill_id)
        if latest.drill == drill:
            return latest
        if latest.version != based_on and not _all_by(drill_id, based_on, writer):
            raise Conflict(
                f"This drill was changed elsewhere: it is at version {latest.version}, yours was made from "
                f"{based_on}. Keep yours as the newest, or take theirs; both stay among the versions.",
                field="based_on",
            )
        learn_instrument(drill.instrument)
        row = VersionRow.create(
            drill=drill_id, number=latest.version + 1, body=write_drill(drill), saved_at=now, writer=writer
        )
        return to_drill(row)


def _all_by(drill_id: int, after: int, writer: str) -> bool:
    """Return whether one writer made all versions of a drill after one that it has."""
    since = VersionRow.select(VersionRow.writer).where((VersionRow.drill == drill_id) & (VersionRow.number > after))
    return bool(writer) and {row.writer for row in since} == {writer}


def archive_drill(drill_id: int, moment: datetime | None) -> None:
    """Put a drill away at a moment, or with None take it back into use; climbs and takes keep it either way.

    Raises:
        NotFound: There is no such drill.
    """
    version_row(drill_id, None)
    DrillRow.update(archived_at=moment).where(DrillRow.id == drill_id).execute()


@lru_cache(maxsize=512)
def _read(body: str) -> Drill:
    # A version never changes, and neither does what it says.
    return read_drill(body)


def _drill(body: str) -> Drill:
    """Return the drill of a text, at once where it was read before; a very long one is not kept in memory for that."""
    return _read(body) if len(body) <= _LONGEST_REMEMBERED else read_drill(body)


def to_drill(row: Row) -> KeptDrill:
    """Return the drill of a version's row."""
    return KeptDrill(row.drill_id, row.number, _drill(row.body), moment(row.saved_at))


def version_row(drill_id: int, version: int | None) -> Row:
    """Return the row of a version, the latest if none is named.

    Raises:
        NotFound: There is none.
    """
    rows = VersionRow.select().where(VersionRow.drill == drill_id).order_by(VersionRow.number.desc())
    row = rows.first() if version is None else rows.where(VersionRow.number == version).first()
    if row is None:
        raise NotFound("This drill does not exist." if version is None else f"This drill has no version {version}.")
    return row
