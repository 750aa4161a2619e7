"""The shape of a student."""

from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.drill.click import Click
from ripresa.core.pitch import instrument_named
from ripresa.core.studio import Student


class StudentShape(BaseModel):
    """A student, with the name of the instrument as it is said."""

    id: int
    name: str
    instrument: str
    instrument_name: str
    lesson_weekday: int | None
    lesson_time: str
    clicks: list[Click]
    revision: int


def student_shape(student: Student) -> StudentShape:
    """Return the shape of a student."""
    details = student.details
    return StudentShape(
        id=student.id,
        name=details.name,
        instrument=details.instrument,
        instrument_name=instrument_named(details.instrument).name,
        lesson_weekday=details.lesson_weekday,
        lesson_time=details.lesson_time,
        clicks=list(student.clicks),
        revision=student.revision,
    )
