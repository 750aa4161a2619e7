"""Finding and saving students."""

from datetime import datetime

from pydantic import TypeAdapter

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.drill.click import Click
from ripresa.core.errors import Conflict, NotFound
from ripresa.core.studio import Student, StudentDetails
from ripresa.store.once import once
from ripresa.store.tables import Row, StudentRow, database
from ripresa.store.unread import one, readable

_CLICKS: TypeAdapter[tuple[Click, ...]] = TypeAdapter(tuple[Click, ...])


def all_students() -> list[Student]:
    """Return every student, by name."""
    return list(readable("student", StudentRow.select().order_by(StudentRow.name), to_student))


def find_student(student_id: int) -> Student:
    """Return a student.

    Raises:
        NotFound: There is none of this number.
    """
    return one("student", _row(student_id), to_student)


def add_student(details: StudentDetails, now: datetime, key: str | None = None) -> Student:
    """Keep a new student; the same key twice is the same student."""
    return find_student(once(key, "student", lambda: StudentRow.create(**_columns(details), created_at=now).id))


def change_student(student_id: int, details: StudentDetails, based_on: int) -> Student:
    """Keep new details of a student.

    Args:
        based_on: The revision that was changed.

    Raises:
        NotFound: There is none of this number.
        Conflict: The student was changed since that revision.
    """
    return _change(student_id, based_on, **_columns(details))


def keep_clicks(student_id: int, clicks: tuple[Click, ...], based_on: int) -> Student:
    """Keep a click ladder as the student's own; an empty one takes it away.

    Raises:
        NotFound: There is none of this number.
        Conflict: The student was changed since that revision.
    """
    return _change(student_id, based_on, clicks=_CLICKS.dump_json(clicks).decode())


def _change(student_id: int, based_on: int, **columns: object) -> Student:
    with database.atomic("IMMEDIATE"):
        row = _row(student_id)
        # What stands as it is asked for already was kept by the same press before.
        if any(getattr(row, name) != value for name, value in columns.items()):
            if row.revision != based_on:
                raise Conflict(
                    f"{row.name} was changed elsewhere since this page asked. Look at what stands there now, "
                    "and change it again if it should be otherwise.",
                    field="based_on",
                )
            StudentRow.update(**columns, revision=row.revision + 1).where(StudentRow.id == student_id).execute()
        return find_student(student_id)


def _columns(details: StudentDetails) -> dict[str, object]:
    return {
        "name": details.name.strip(),
        "instrument": details.instrument,
        "lesson_weekday": details.lesson_weekday,
        "lesson_time": details.lesson_time,
    }


def to_student(row: Row) -> Student:
    """Return the student of a row."""
    details = StudentDetails(row.name, row.instrument, row.lesson_weekday, row.lesson_time)
    return Student(row.id, details, _CLICKS.validate_json(row.clicks), row.revision)


def _row(student_id: int) -> Row:
    row = StudentRow.get_or_none(StudentRow.id == student_id)
    if row is None:
        raise NotFound("This student does not exist.")
    return row
