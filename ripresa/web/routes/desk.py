"""The desk: today's lessons, the words that wait, the week."""

from flask import Response

from ripresa.formats.wire import Shape
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.shapes.climbs import ClimbShape, climb_shape
from ripresa.web.shapes.student_page import LessonWordsShape, lesson_shape
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.work.desk import Lesson, desk_of

api = blueprint("desk")


class LessonShape(Shape):
    """A student with the climb that stands nearest, the last one played, else the newest; what matters today."""

    time: str
    student: StudentShape
    climb: ClimbShape | None
    last_take: str
    words: LessonWordsShape | None


class DayShape(Shape):
    """Minutes played on a day, and whether it is today or still to come."""

    name: str
    minutes: float
    label: str
    is_today: bool
    is_ahead: bool


class GroupToday(Shape):
    """A group that has its lesson today."""

    id: int
    name: str
    time: str
    members: int


class DeskShape(Shape):
    """All that the desk shows; ``unread`` names what of the data cannot be read."""

    weekday: str
    lessons: list[LessonShape]
    others: list[LessonShape]
    more: int
    groups: list[GroupToday]
    waiting: list[ClimbShape]
    week: list[DayShape]
    unread: list[str]


@api.get("/desk", responses={200: DeskShape})
def show_desk() -> Response:
    """Today."""
    desk = desk_of(now())
    lessons, others = ([_lesson(one) for one in some] for some in (desk.lessons, desk.others))
    waits = {stood.climb.id for stood in desk.waiting}
    return answer(
        DeskShape(
            weekday=desk.weekday,
            lessons=lessons,
            more=desk.more,
            groups=[
                GroupToday(
                    id=one.id,
                    name=one.details.name,
                    time=one.details.lesson_time,
                    members=len(one.details.members),
                )
                for one in desk.groups
            ],
            others=others,
            waiting=[one.climb for one in (*lessons, *others) if one.climb and one.climb.id in waits],
            week=[
                DayShape(
                    name=day.name[:2],
                    minutes=day.minutes,
                    label=f"{day.name}: {day.minutes:.0f} minutes played",
                    is_today=day.is_today,
                    is_ahead=day.is_ahead,
                )
                for day in desk.week
            ],
            unread=list(desk.unread),
        )
    )


def _lesson(lesson: Lesson) -> LessonShape:
    return LessonShape(
        time=lesson.student.details.lesson_time,
        student=student_shape(lesson.student),
        climb=climb_shape(lesson.stood) if lesson.stood else None,
        last_take=lesson.last_take,
        words=lesson_shape(lesson.words) if lesson.words else None,
    )
