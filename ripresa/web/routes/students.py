"""The roster: students, each with a page of their own."""

from datetime import timedelta
from typing import Any

from flask import Response
from pydantic import Field

from ripresa.core.climbs import ClimbPlan
from ripresa.core.drill.click import Click
from ripresa.core.exact import Fraction
from ripresa.core.plans import PracticePlan
from ripresa.core.studio import StandSettings, StudentDetails
from ripresa.formats.calendar_in import read_lessons
from ripresa.formats.wire import Shape
from ripresa.store import students as store
from ripresa.web.answers import answer, download, file_name, incoming, now
from ripresa.web.blueprint import blueprint
from ripresa.web.files_in import whole_file
from ripresa.web.numbers import Id, Once
from ripresa.web.query import Query
from ripresa.web.shapes.student_page import StudentPageShape, WhatIfShape, page_shape, what_if_shape
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.work.calendar import calendar_of
from ripresa.work.recap import recap_of
from ripresa.work.replay import replayed
from ripresa.work.students import keep_plan, page_of

api = blueprint("students")
#: How far back and ahead lessons are looked for in a calendar, in days.
_BACK, _AHEAD = 7, 365


class StudentPath(Shape):
    """Which student."""

    student_id: Id


class AwayQuery(Query):
    """Those in use, or those that were put away."""

    put_away: bool = False


class PageQuery(Query):
    """The climb whose way is shown; the one played last if left out."""

    climb_id: Id | None = None


class ClimbQuery(Query):
    """Which climb."""

    climb_id: Id


class StudentBody(Once):
    """What is written down about a new student."""

    details: StudentDetails


class ChangedStudent(Shape):
    """What is written down about a student, and the revision that it was made from."""

    details: StudentDetails
    based_on: Id


class OwnClicksBody(Shape):
    """A click ladder, and the revision of the student that it was made from; empty takes the own one away."""

    clicks: list[Click]
    based_on: Id


class PlanBody(Shape):
    """A plan of practice, and the revision of the student that it was made from; none takes it away."""

    plan: PracticePlan | None
    based_on: Id


class StandBody(Shape):
    """How the stand is set for a student."""

    stand: StandSettings


class AwayBody(Shape):
    """Whether a student is put away."""

    put_away: bool


class CalendarBody(Shape):
    """A calendar file."""

    base64: str = Field(max_length=6_000_000)


class FoundLesson(Shape):
    """Entries of a calendar of one name: their days, and their time of day where it is always the same."""

    title: str
    dates: list[str]
    time: str


class FoundCalendar(Shape):
    """What of a calendar could be lessons, by name; what was left out."""

    entries: list[FoundLesson]
    left_out: list[str]


class StudentList(Shape):
    """The roster, by name."""

    students: list[StudentShape]


class Deleted(Shape):
    """What was deleted, by name."""

    name: str


@api.get("/students", responses={200: StudentList})
def list_students(query: AwayQuery) -> Response:
    """The roster: students in use, or those put away."""
    found = store.all_students(put_away=query.put_away)
    return answer(StudentList(students=[student_shape(one) for one in found]))


@api.post("/students", responses={201: StudentShape})
def add_student(body: StudentBody) -> Response:
    """Add a student."""
    return answer(student_shape(store.add_student(body.details, now(), body.key)), 201)


@api.get("/students/<int:student_id>", responses={200: StudentPageShape})
def show_student(path: StudentPath, query: PageQuery) -> Response:
    """The page of a student."""
    return answer(page_shape(page_of(path.student_id, now(), query.climb_id)))


@api.put("/students/<int:student_id>", responses={200: StudentShape})
def change_student(path: StudentPath, body: ChangedStudent) -> Response:
    """Change what is written down about a student."""
    could = store.find_student(path.student_id).details.guardian.recordings
    changed = store.change_student(path.student_id, body.details, body.based_on)
    if could and not body.details.guardian.recordings:
        # Nothing of it is played back any more, not even what was only on its way.
        incoming().forget()
    return answer(student_shape(changed))


@api.delete("/students/<int:student_id>", responses={200: Deleted})
def delete_student(path: StudentPath) -> Response:
    """Delete a student with all climbs, takes and notes; drills stay."""
    name = store.find_student(path.student_id).details.name
    store.delete_student(path.student_id)
    incoming().forget()
    return answer(Deleted(name=name))


@api.put("/students/<int:student_id>/put-away", responses={200: StudentShape})
def put_away(path: StudentPath, body: AwayBody) -> Response:
    """Put a student away, or take one back; climbs and takes stay either way."""
    return answer(student_shape(store.put_away(path.student_id, now() if body.put_away else None)))


@api.put("/students/<int:student_id>/clicks", responses={200: StudentShape})
def keep_clicks(path: StudentPath, body: OwnClicksBody) -> Response:
    """Keep a click ladder as the student's own, with which new climbs begin."""
    # A plan refuses what cannot be a ladder.
    clicks = ClimbPlan(start=Fraction(60), clicks=tuple(body.clicks)).clicks
    return answer(student_shape(store.keep_clicks(path.student_id, clicks, body.based_on)))


@api.put("/students/<int:student_id>/stand", responses={200: StudentShape})
def keep_stand(path: StudentPath, body: StandBody) -> Response:
    """Keep how the stand is set for a student: in the studio, not in a browser."""
    return answer(student_shape(store.keep_stand(path.student_id, body.stand)))


@api.put("/students/<int:student_id>/plan", responses={200: StudentShape})
def keep_practice(path: StudentPath, body: PlanBody) -> Response:
    """Keep a plan of practice; none takes it away."""
    return answer(student_shape(keep_plan(path.student_id, body.plan, body.based_on)))


@api.get("/students/<int:student_id>/what-if", responses={200: WhatIfShape})
def show_what_if(path: StudentPath, query: ClimbQuery) -> Response:
    """The log of a climb, replayed under its own rule and others."""
    store.find_student(path.student_id)
    return answer(what_if_shape(*replayed(query.climb_id, now().tzinfo)))


@api.get("/students/<int:student_id>/calendar.ics")
def save_calendar(path: StudentPath) -> Any:
    """Practice and lessons to come, as iCalendar."""
    student = store.find_student(path.student_id)
    body = calendar_of(student, now())
    return download(body, f"{file_name(student.details.name)}.ics", "text/calendar")


@api.post("/students/lessons", responses={200: FoundCalendar})
def find_lessons(body: CalendarBody) -> Response:
    """The entries of a calendar file that could be lessons, from last week to a year ahead."""
    data = whole_file(body.base64)
    today = now().date()
    found = read_lessons(data, today - timedelta(days=_BACK), today + timedelta(days=_AHEAD), now().tzinfo)
    titles: dict[str, FoundLesson] = {}
    for day, title, at in found.days:
        time = f"{at:%H:%M}" if at else ""
        entry = titles.setdefault(title, FoundLesson(title=title, dates=[], time=time))
        entry.dates.append(day.isoformat())
        entry.time = time if entry.time == time else ""
    return answer(FoundCalendar(entries=list(titles.values()), left_out=list(found.left_out)))


class RecapSection(Shape):
    """A part of a recap."""

    title: str
    lines: list[str]


class RecapShape(Shape):
    """A lesson in a few lines: its parts, and all of it as text for a message."""

    title: str
    sections: list[RecapSection]
    text: str


@api.get("/students/<int:student_id>/recap", responses={200: RecapShape})
def show_recap(path: StudentPath) -> Response:
    """What was played today, what stands, what comes next, and the words used."""
    found = recap_of(path.student_id, now())
    sections = [RecapSection(title=one.title, lines=list(one.lines)) for one in found.sections]
    return answer(RecapShape(title=found.title, sections=sections, text=found.text))
