"""The roster."""

from fractions import Fraction

from flask import Response
from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climbs import ClimbPlan
from ripresa.core.drill.click import Click
from ripresa.core.studio import StudentDetails
from ripresa.store import students as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Once
from ripresa.web.shapes.students import StudentShape, student_shape

api = blueprint("students")


class StudentPath(BaseModel):
    """Which student."""

    student_id: Id


class StudentBody(Once):
    """What is written down about a new student."""

    details: StudentDetails


class ChangedStudent(BaseModel):
    """What is written down about a student, and the revision that it was made from."""

    details: StudentDetails
    based_on: Id


class OwnClicksBody(BaseModel):
    """A click ladder, and the revision of the student that it was made from; empty takes the own one away."""

    clicks: list[Click]
    based_on: Id


class StudentList(BaseModel):
    """The roster, by name."""

    students: list[StudentShape]


@api.get("/students", responses={200: StudentList})
def list_students() -> Response:
    """The roster."""
    return answer(StudentList(students=[student_shape(one) for one in store.all_students()]))


@api.post("/students", responses={201: StudentShape})
def add_student(body: StudentBody) -> Response:
    """Add a student."""
    return answer(student_shape(store.add_student(body.details, now(), body.key)), 201)


@api.put("/students/<int:student_id>", responses={200: StudentShape})
def change_student(path: StudentPath, body: ChangedStudent) -> Response:
    """Change what is written down about a student."""
    return answer(student_shape(store.change_student(path.student_id, body.details, body.based_on)))


@api.put("/students/<int:student_id>/clicks", responses={200: StudentShape})
def keep_clicks(path: StudentPath, body: OwnClicksBody) -> Response:
    """Keep a click ladder as the student's own, with which new climbs begin."""
    # A plan refuses what cannot be a ladder.
    clicks = ClimbPlan(start=Fraction(60), clicks=tuple(body.clicks)).clicks
    return answer(student_shape(store.keep_clicks(path.student_id, clicks, body.based_on)))
