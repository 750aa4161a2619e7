"""Remedies that were taken: kept beside the climb, the student and the drill that they were made for."""

from datetime import datetime

from peewee import fn
from pydantic import TypeAdapter

from ripresa.core.errors import NotFound
from ripresa.core.studio import KeptRemedy
from ripresa.core.takes import Remedy
from ripresa.formats.wire import adapter
from ripresa.store.drills import version_row
from ripresa.store.once import once
from ripresa.store.tables import RemedyRow, Row, VersionRow, moment
from ripresa.store.unread import one, readable

_REMEDY: TypeAdapter[Remedy] = adapter(Remedy)
#: Remedies that are listed: the last ones.
MOST_LISTED = 50


def add_remedy(
    remedy: Remedy,
    fault: str,
    *,
    climb_id: int | None,
    student_id: int,
    drill_id: int,
    version: int,
    now: datetime,
    key: str | None,
) -> KeptRemedy:
    """Keep a remedy; the same key twice is the same one.

    Raises:
        NotFound: There is no such drill version.
    """

    def make() -> int:
        row = RemedyRow.create(
            climb=climb_id,
            student=student_id,
            version=version_row(drill_id, version),
            body=_REMEDY.dump_json(remedy).decode(),
            fault=fault,
            made_at=now,
        )
        return int(row.id)

    return find_remedy(once(key, "remedy", make))


def find_remedy(remedy_id: int) -> KeptRemedy:
    """Return a remedy.

    Raises:
        NotFound: There is none of this number.
        Unreadable: Its data is damaged.
    """
    row = _rows().where(RemedyRow.id == remedy_id).first()
    if row is None:
        raise NotFound("This remedy does not exist.")
    return one("remedy", row, _to_remedy)


def remedies_of(*, student_id: int | None = None, climb_id: int | None = None) -> list[KeptRemedy]:
    """Return the last remedies of a student or of a climb, the newest first."""
    rows = _rows()
    if student_id is not None:
        rows = rows.where(RemedyRow.student == student_id)
    if climb_id is not None:
        rows = rows.where(RemedyRow.climb == climb_id)
    return list(
        readable("remedy", rows.order_by(RemedyRow.made_at.desc(), RemedyRow.id.desc()).limit(MOST_LISTED), _to_remedy)
    )


def remedies_of_drill(drill_id: int) -> list[KeptRemedy]:
    """Return the last remedies that were made of any version of a drill, the newest first."""
    rows = _rows().where(VersionRow.drill == drill_id)
    return list(
        readable("remedy", rows.order_by(RemedyRow.made_at.desc(), RemedyRow.id.desc()).limit(MOST_LISTED), _to_remedy)
    )


def waiting(climb_ids: list[int]) -> dict[int, KeptRemedy]:
    """Return the last remedy of each of some climbs, by their numbers, where it is not clean yet."""
    newest = RemedyRow.select(fn.max(RemedyRow.id)).where(RemedyRow.climb.in_(climb_ids)).group_by(RemedyRow.climb)
    rows = _rows().where(RemedyRow.id.in_(newest) & RemedyRow.clean_at.is_null())
    return {kept.climb_id: kept for kept in readable("remedy", rows, _to_remedy) if kept.climb_id is not None}


def remedy_is_clean(remedy_id: int, now: datetime) -> None:
    """Keep that a take of a remedy was clean; the first time counts."""
    RemedyRow.update(clean_at=now).where((RemedyRow.id == remedy_id) & RemedyRow.clean_at.is_null()).execute()


def _rows() -> Row:
    return RemedyRow.select(RemedyRow, VersionRow).join(VersionRow)


def _to_remedy(row: Row) -> KeptRemedy:
    return KeptRemedy(
        row.id,
        row.climb_id,
        row.student_id,
        row.version.drill_id,
        row.version.number,
        _REMEDY.validate_json(row.body),
        row.fault,
        moment(row.made_at),
        moment(row.clean_at) if row.clean_at else None,
    )
