"""The desk: today's lessons, the words that wait, the week."""

from datetime import date, datetime, time, timedelta
from itertools import pairwise

from flask import Response
from pydantic import BaseModel

from ripresa.core.studio import WEEKDAYS, Student
from ripresa.store import climbs, students
from ripresa.store.standing import last_played
from ripresa.store.takes import seconds_played
from ripresa.store.unread import unread
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.routes.climbs import shapes_of
from ripresa.web.shapes.climbs import ClimbShape
from ripresa.web.shapes.students import StudentShape, student_shape

api = blueprint("desk")


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
    """All that the desk shows; ``unread`` names what of the data cannot be read."""

    weekday: str
    lessons: list[LessonShape]
    others: list[LessonShape]
    waiting: list[ClimbShape]
    week: list[DayShape]
    unread: list[str]


@api.get("/desk", responses={200: DeskShape})
def show_desk() -> Response:
    """Today."""
    moment = now()
    roster = students.all_students()
    nearest = _nearest()
    found = [_lesson(student, nearest.get(student.id), moment) for student in roster]
    has_lesson = [one for one in found if one.student.lesson_weekday == moment.weekday()]
    lessons = sorted(has_lesson, key=lambda one: one.time.rjust(5, "0"))
    others = [one for one in found if one.student.lesson_weekday != moment.weekday()]
    return answer(
        DeskShape(
            weekday=WEEKDAYS[moment.weekday()],
            lessons=lessons,
            others=others,
            waiting=[one.climb for one in (*lessons, *others) if one.climb and one.climb.waiting],
            week=_week(moment),
            unread=list(unread()),
        )
    )


def _nearest() -> dict[int, ClimbShape]:
    """Return the climb that stands nearest, by student: the last one played, else the newest."""
    every = climbs.all_climbs()
    played = last_played([climb.id for climb in every])
    best = {climb.student.id: climb for climb in sorted(every, key=lambda climb: (played[climb.id], climb.id))}
    return {shape.student.id: shape for shape in shapes_of(list(best.values()))}


def _lesson(student: Student, climb: ClimbShape | None, moment: datetime) -> LessonShape:
    last = climb.last_take_at if climb else None
    return LessonShape(
        time=student.details.lesson_time,
        student=student_shape(student),
        climb=climb,
        last_take=_ago(datetime.fromisoformat(last), moment) if last else "no take yet",
    )


def _ago(played_at: datetime, moment: datetime) -> str:
    days = (moment.date() - played_at.astimezone(moment.tzinfo).date()).days
    if days <= 0:
        return "last take today"
    return "last take yesterday" if days == 1 else f"no take for {days} days"


def _week(moment: datetime) -> list[DayShape]:
    today = moment.date()
    monday = today - timedelta(days=moment.weekday())
    days = [monday + timedelta(days=number) for number in range(8)]

    def begin(day: date) -> datetime:
        return datetime.combine(day, time(), moment.tzinfo)

    minutes = [seconds_played(begin(day), begin(after)) / 60 for day, after in pairwise(days)]
    return [
        DayShape(
            name=WEEKDAYS[number][:2],
            minutes=minutes[number],
            label=f"{WEEKDAYS[number]}: {minutes[number]:.0f} minutes played",
            is_today=days[number] == today,
            is_ahead=days[number] > today,
        )
        for number in range(7)
    ]
