"""Finding and keeping hand-outs that were issued: each stays as it was."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from ripresa.core.errors import NotFound
from ripresa.formats.sheet import Sheet, read_sheet, write_sheet
from ripresa.store.drills import version_row
from ripresa.store.once import once
from ripresa.store.tables import Row, SheetRow, moment
from ripresa.store.unread import one, readable

#: Sheets of a drill and a student that are listed.
_MOST_LISTED = 50


@dataclass(frozen=True, slots=True)
class KeptSheet:
    """A sheet that was issued.

    Args:
        number: Of its drill and student, from 1. version: Of the drill.
        mark: A sign of what it was made of: another one where drill or plan have been changed since.
        sheet: What stands on it; None where only the list is asked for.
    """

    id: int
    number: int
    drill_id: int
    version: int
    student_id: int | None
    climb_id: int | None
    issued_at: datetime
    mark: str
    sheet: Sheet | None = None


def add_sheet(
    *,
    drill_id: int,
    version: int,
    student_id: int | None,
    climb_id: int | None,
    mark: str,
    sheet: Sheet,
    now: datetime,
    key: str | None = None,
) -> KeptSheet:
    """Keep a sheet under the next number of its drill and student; the same key twice is the same sheet.

    Raises:
        NotFound: There is no such version of a drill.
    """
    version_row(drill_id, version)

    def make() -> int:
        number = next_number(drill_id, student_id)
        row = SheetRow.create(
            number=number,
            drill=drill_id,
            version=version,
            student=student_id,
            climb=climb_id,
            issued_at=now,
            mark=mark,
            body=write_sheet(sheet.numbered(number)),
        )
        return int(row.id)

    return find_sheet(once(key, "sheet", make))


def find_sheet(sheet_id: int) -> KeptSheet:
    """Return a sheet as it was issued.

    Raises:
        NotFound: There is none of this number.
    """
    row = SheetRow.get_or_none(SheetRow.id == sheet_id)
    if row is None:
        raise NotFound("This sheet does not exist.")
    return one("sheet", row, _whole)


def next_number(drill_id: int, student_id: int | None) -> int:
    """Return the number that the next sheet of a drill and a student, or of nobody in particular, will have."""
    return 1 + SheetRow.select().where(_scope(drill_id, student_id)).count()


def sheets_of(drill_id: int, student_id: int | None) -> list[KeptSheet]:
    """Return the sheets of a drill that were issued to a student, or to nobody in particular, the newest first."""
    columns = [column for column in SheetRow._meta.sorted_fields if column.name != "body"]
    rows = SheetRow.select(*columns).where(_scope(drill_id, student_id)).order_by(SheetRow.number.desc())
    return list(readable("sheet", rows.limit(_MOST_LISTED), _line))


def _scope(drill_id: int, student_id: int | None) -> object:
    to = SheetRow.student.is_null() if student_id is None else SheetRow.student == student_id
    return (SheetRow.drill == drill_id) & to


def _line(row: Row) -> KeptSheet:
    return _kept(row, lambda _: None)


def _whole(row: Row) -> KeptSheet:
    return _kept(row, lambda found: read_sheet(found.body))


def _kept(row: Row, body: Callable[[Row], Sheet | None]) -> KeptSheet:
    return KeptSheet(
        id=row.id,
        number=row.number,
        drill_id=row.drill_id,
        version=row.version,
        student_id=row.student_id,
        climb_id=row.climb_id,
        issued_at=moment(row.issued_at),
        mark=row.mark,
        sheet=body(row),
    )
