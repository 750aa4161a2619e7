"""The roster."""

from flask import Response
from flask_openapi import APIBlueprint
from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
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
