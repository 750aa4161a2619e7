"""Finding and saving students."""

from datetime import datetime

from pydantic import TypeAdapter

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.click import Click
from ripresa.core.errors import NotFound
from ripresa.core.studio import Student, StudentDetails
from ripresa.store.tables import Row, StudentRow

_CLICKS: TypeAdapter[tuple[Click, ...]] = TypeAdapter(tuple[Click, ...])


def all_students() -> list[Student]:
    """Return every student, by name."""
    return [to_student(row) for row in StudentRow.select().order_by(StudentRow.name)]


def find_student(student_id: int) -> Student:
    """Return a student.

    Raises:
        NotFound: There is none of this number.
    """
    return to_student(_row(student_id))


def add_student(details: StudentDetails, now: datetime) -> Student:
    """Keep a new student."""
    return to_student(
        StudentRow.create(
            name=details.name.strip(),
            instrument=details.instrument,
            lesson_weekday=details.lesson_weekday,
            lesson_time=details.lesson_time,
            created_at=now,
        )
    )


def change_student(student_id: int, details: StudentDetails) -> Student:
    """Keep new details of a student.

    Raises:
        NotFound: There is none of this number.
    """
    row = _row(student_id)
    row.name, row.instrument = details.name.strip(), details.instrument
    row.lesson_weekday, row.lesson_time = details.lesson_weekday, details.lesson_time
    row.save()
    return to_student(row)


def keep_clicks(student_id: int, clicks: tuple[Click, ...]) -> Student:
    """Keep a click ladder as the student's own; an empty one takes it away.

    Raises:
        NotFound: There is none of this number.
    """
    row = _row(student_id)
    row.clicks = _CLICKS.dump_json(clicks).decode()
    row.save()
    return to_student(row)


def to_student(row: Row) -> Student:
    """Return the student of a row."""
    details = StudentDetails(row.name, row.instrument, row.lesson_weekday, row.lesson_time)
    return Student(row.id, details, _CLICKS.validate_json(row.clicks))


def _row(student_id: int) -> Row:
    row = StudentRow.get_or_none(StudentRow.id == student_id)
    if row is None:
        raise NotFound("This student does not exist.")
    return row
