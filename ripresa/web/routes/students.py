"""The roster."""

from fractions import Fraction

from flask import Response
from flask_openapi import APIBlueprint
from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.click import Click
from ripresa.core.climb import ClimbPlan
from ripresa.core.studio import StudentDetails
from ripresa.store import students as store
from ripresa.web.answers import answer, now
from ripresa.web.shapes.students import StudentShape, student_shape

api = APIBlueprint("students", __name__, url_prefix="/api")


class StudentPath(BaseModel):
    """Which student."""

    student_id: int


class StudentBody(BaseModel):
    """What is written down about a student."""

    details: StudentDetails


class OwnClicksBody(BaseModel):
    """A click ladder; empty takes the own one away."""

    clicks: list[Click]


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
    return answer(student_shape(store.add_student(body.details, now())), 201)


@api.put("/students/<int:student_id>", responses={200: StudentShape})
def change_student(path: StudentPath, body: StudentBody) -> Response:
    """Change what is written down about a student."""
    return answer(student_shape(store.change_student(path.student_id, body.details)))


@api.put("/students/<int:student_id>/clicks", responses={200: StudentShape})
def keep_clicks(path: StudentPath, body: OwnClicksBody) -> Response:
    """Keep a click ladder as the student's own, with which new climbs begin."""
    # A plan refuses what cannot be a ladder.
    clicks = ClimbPlan(start=Fraction(60), clicks=tuple(body.clicks)).clicks
    return answer(student_shape(store.keep_clicks(path.student_id, clicks)))
