"""The desk: today's lessons, the words that wait, the week."""

from collections.abc import Sequence
from datetime import date, timedelta

from flask import Response
from flask_openapi import APIBlueprint
from pydantic import BaseModel

from ripresa.core.studio import WEEKDAYS, Student, Take
from ripresa.store import climbs, students, takes
from ripresa.web.answers import answer, now
from ripresa.web.routes.climbs import shapes_of
from ripresa.web.shapes.climbs import ClimbShape
from ripresa.web.shapes.students import StudentShape, student_shape

api = APIBlueprint("desk", __name__, url_prefix="/api")


class LessonShape(BaseModel):
    """A student with the climb that stands nearest: the last one played, else the newest."""

    time: str
    student: StudentShape
    climb: ClimbShape | None
    last_take: str


class DayShape(BaseModel):
    """Minutes played on a day, and whether it is today or still to come."""

    name: str
    minutes: float
    label: str
    is_today: bool
    is_ahead: bool


class DeskShape(BaseModel):
    """All that the desk shows."""

    weekday: str
    lessons: list[LessonShape]
    others: list[LessonShape]
    waiting: list[ClimbShape]
    week: list[DayShape]


@api.get("/desk", responses={200: DeskShape})
def show_desk() -> Response:
    """Today."""
    today = now().date()
    found = [_lesson(student, today) for student in students.all_students()]
    has_lesson = [one for one in found if one.student.lesson_weekday == today.weekday()]
    lessons = sorted(has_lesson, key=lambda one: one.time.rjust(5, "0"))
    others = [one for one in found if one.student.lesson_weekday != today.weekday()]
    monday = today - timedelta(days=today.weekday())
    week = [take for take in takes.all_takes(most=2000) if take.played_at.astimezone().date() >= monday]
    return answer(
        DeskShape(
            weekday=WEEKDAYS[today.weekday()],
            lessons=lessons,
            others=others,
            waiting=[one.climb for one in (*lessons, *others) if one.climb and one.climb.waiting],
            week=_week(week, monday, today),
        )
    )


def _lesson(student: Student, today: date) -> LessonShape:
    shapes = shapes_of(climbs.all_climbs(student.id))
    climb = max(shapes, key=lambda one: (one.last_take_at or "", one.id), default=None)
    last = takes.all_takes(climb_ids=[climb.id], most=1) if climb else []
    return LessonShape(
        time=student.details.lesson_time,
        student=student_shape(student),
        climb=climb,
        last_take=_ago(last[0], today) if last else "no take yet",
    )


def _ago(take: Take, today: date) -> str:
    days = (today - take.played_at.astimezone().date()).days
    if days <= 0:
        return "last take today"
    return "last take yesterday" if days == 1 else f"no take for {days} days"


def _week(found: Sequence[Take], monday: date, today: date) -> list[DayShape]:
    seconds = [0.0] * 7
    for take in found:
        day = (take.played_at.astimezone().date() - monday).days
        if 0 <= day < 7:
            seconds[day] += take.end - take.start
    return [
        DayShape(
            name=WEEKDAYS[day][:2],
            minutes=seconds[day] / 60,
            label=f"{WEEKDAYS[day]}: {seconds[day] / 60:.0f} minutes played",
            is_today=monday + timedelta(days=day) == today,
            is_ahead=monday + timedelta(days=day) > today,
        )
        for day in range(7)
    ]
