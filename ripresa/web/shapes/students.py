"""The shape of a student."""

from ripresa.core.drill.click import Click
from ripresa.core.exact import plural
from ripresa.core.pitch import instrument_named
from ripresa.core.plans import parse_days, told_days
from ripresa.core.studio import Student, StudentDetails
from ripresa.formats.wire import Shape


class StudentShape(Shape):
    """A student, with the name of the instrument as it is said."""

    id: int
    name: str
    instrument: str
    instrument_name: str
    lesson_weekday: int | None
    lesson_time: str
    clicks: list[Click]
    revision: int
    details: StudentDetails
    lesson_words: str
    is_put_away: bool


def lesson_words(details: StudentDetails) -> str:
    """Return when there are lessons: ``Wednesdays 14:30``, ``every 2 weeks from 7 Oct, 14:30``; empty without any."""
    days = [told_days(parse_days(one)) for one in details.lesson_days]
    shown = ", ".join(days[:3]) + (f" and {plural(len(days) - 3, 'day')} more" if len(days) > 3 else "")
    return f"{shown} {details.lesson_time}".strip()


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
        details=details,
        lesson_words=lesson_words(details),
        is_put_away=student.put_away_at is not None,
    )
