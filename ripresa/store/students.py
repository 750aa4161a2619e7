"""Finding and saving students: their details, their own ladder, their plan; put away, taken back, deleted."""

import json
from dataclasses import replace
from datetime import datetime
from typing import Any

from pydantic import TypeAdapter

from ripresa.core.drill.click import Click
from ripresa.core.errors import Conflict, NotFound
from ripresa.core.plans import PracticePlan
from ripresa.core.studio import StandSettings, Student, StudentDetails
from ripresa.formats.wire import adapter
from ripresa.store.once import once
from ripresa.store.recordings import delete_recordings
from ripresa.store.tables import (
    ClimbRow,
    GivenDayRow,
    MoveRow,
    RemedyRow,
    Row,
    SheetRow,
    StudentRow,
    TakeRow,
    database,
    moment,
)
from ripresa.store.unread import one, readable

_CLICKS: TypeAdapter[tuple[Click, ...]] = adapter(tuple[Click, ...])
_PLAN: TypeAdapter[PracticePlan] = adapter(PracticePlan)
_DETAILS: TypeAdapter[StudentDetails] = adapter(StudentDetails)
#: Details that have columns of their own; the others lie in one, as JSON.
_COLUMNS = ("name", "instrument", "lesson_weekday", "lesson_time")


def all_students(*, put_away: bool = False) -> list[Student]:
    """Return every student in use, or every one put away, by name."""
    rows = StudentRow.select().where(StudentRow.put_away_at.is_null(not put_away)).order_by(StudentRow.name)
    return list(readable("student", rows, to_student))


def names_of_all() -> dict[int, str]:
    """Return the name of every student, put away or not, by number."""
    rows: Row = StudentRow.select(StudentRow.id, StudentRow.name).tuples()
    return dict(rows)


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
    """Keep new details of a student; recordings that are not to be kept any more are deleted with it.

    Args:
        based_on: The revision that was changed.

    Raises:
        NotFound: There is none of this number.
        Conflict: The student was changed since that revision.
    """
    with database.atomic("IMMEDIATE"):
        found = _change(student_id, based_on, **_columns(details))
        if not details.kept_days:
            delete_recordings(student_id=student_id)
        return found


def keep_clicks(student_id: int, clicks: tuple[Click, ...], based_on: int) -> Student:
    """Keep a click ladder as the student's own; an empty one takes it away.

    Raises:
        NotFound: There is none of this number.
        Conflict: The student was changed since that revision.
    """
    return _change(student_id, based_on, clicks=_CLICKS.dump_json(clicks).decode())


def keep_plan(student_id: int, plan: PracticePlan | None, based_on: int) -> Student:
    """Keep a plan of practice; None takes it away.

    Raises:
        NotFound: There is none of this number.
        Conflict: The student was changed since that revision.
    """
    return _change(student_id, based_on, plan=_PLAN.dump_json(plan).decode() if plan else None)


def keep_stand(student_id: int, stand: StandSettings) -> Student:
    """Keep how the stand is set for a student; the last press counts, and it is no change of the student's details.

    Raises:
        NotFound: There is none of this number.
    """
    with database.atomic("IMMEDIATE"):
        details = replace(find_student(student_id).details, stand=stand)
        StudentRow.update(**_columns(details)).where(StudentRow.id == student_id).execute()
        return find_student(student_id)


def put_away(student_id: int, at: datetime | None) -> Student:
    """Put a student away at a moment, or with None take one back; climbs and takes stay either way.

    Raises:
        NotFound: There is none of this number.
    """
    _row(student_id)
    StudentRow.update(put_away_at=at).where(StudentRow.id == student_id).execute()
    return find_student(student_id)


def delete_student(student_id: int) -> None:
    """Delete a student with all climbs, moves, takes, remedies and sheets; drills stay, they are the studio's.

    Raises:
        NotFound: There is none of this number.
    """
    with database.atomic("IMMEDIATE"):
        _row(student_id)
        own = ClimbRow.select(ClimbRow.id).where(ClimbRow.student == student_id)
        MoveRow.delete().where(MoveRow.climb.in_(own)).execute()
        delete_recordings(student_id=student_id)
        TakeRow.delete().where(TakeRow.student == student_id).execute()
        RemedyRow.delete().where(RemedyRow.student == student_id).execute()
        GivenDayRow.delete().where(GivenDayRow.student == student_id).execute()
        SheetRow.delete().where(SheetRow.student == student_id).execute()
        ClimbRow.delete().where(ClimbRow.student == student_id).execute()
        StudentRow.delete().where(StudentRow.id == student_id).execute()


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
        **{name: getattr(details, name) for name in _COLUMNS},
        "name": details.name.strip(),
        "profile": _DETAILS.dump_json(details, exclude=set(_COLUMNS), exclude_defaults=True).decode(),
    }


def to_student(row: Row) -> Student:
    """Return the student of a row."""
    columns: dict[str, Any] = {name: getattr(row, name) for name in _COLUMNS}
    # Most students have no more than their columns, and lists are long.
    details = StudentDetails(**columns) if row.profile == "{}" else _with_profile(columns, row.profile)
    return Student(
        id=row.id,
        details=details,
        clicks=_CLICKS.validate_json(row.clicks) if row.clicks != "[]" else (),
        revision=row.revision,
        plan=_PLAN.validate_json(row.plan) if row.plan else None,
        put_away_at=moment(row.put_away_at) if row.put_away_at else None,
    )


def _with_profile(columns: dict[str, Any], profile: str) -> StudentDetails:
    return _DETAILS.validate_python({**json.loads(profile), **columns})


def _row(student_id: int) -> Row:
    row = StudentRow.get_or_none(StudentRow.id == student_id)
    if row is None:
        raise NotFound("This student does not exist.")
    return row
