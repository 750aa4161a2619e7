"""The desk of a day: its lessons, the words that wait, and what the week came to."""

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from itertools import pairwise

from ripresa.core.studio import WEEKDAYS, Student
from ripresa.store import climbs, students
from ripresa.store.standing import last_played
from ripresa.store.takes import seconds_played
from ripresa.store.unread import unread
from ripresa.work.climbs import Stood, as_they_stand


@dataclass(frozen=True, slots=True)
class Lesson:
    """A student with the climb that stands nearest: the last one played, else the newest; and when that was."""

    student: Student
    stood: Stood | None
    last_take: str


@dataclass(frozen=True, slots=True)
class Day:
    """Minutes played on a day; whether it is today or still to come."""

    number: int
    minutes: float
    is_today: bool
    is_ahead: bool

    @property
    def name(self) -> str:
        """Its weekday."""
        return WEEKDAYS[self.number]


@dataclass(frozen=True, slots=True)
class Desk:
    """A day's desk: lessons by the clock, then the other students; ``unread`` names what cannot be read."""

    weekday: str
    lessons: tuple[Lesson, ...]
    others: tuple[Lesson, ...]
    week: tuple[Day, ...]
    unread: tuple[str, ...]

    @property
    def waiting(self) -> tuple[Stood, ...]:
        """Climbs whose word waits for an answer."""
        found = (lesson.stood for lesson in (*self.lessons, *self.others))
        return tuple(stood for stood in found if stood and stood.is_open)


def desk_of(moment: datetime) -> Desk:
    """Return the desk of a day."""
    nearest = _nearest()
    found = [_lesson(student, nearest.get(student.id), moment) for student in students.all_students()]
    lessons = [one for one in found if one.student.details.lesson_weekday == moment.weekday()]
    return Desk(
        weekday=WEEKDAYS[moment.weekday()],
        # 9:30 comes before 10:00.
        lessons=tuple(sorted(lessons, key=lambda one: one.student.details.lesson_time.rjust(5, "0"))),
        others=tuple(one for one in found if one not in lessons),
        week=tuple(_week(moment)),
        unread=tuple(unread()),
    )


def _nearest() -> dict[int, Stood]:
    """Return the climb that stands nearest, by student."""
    every = climbs.all_climbs()
    played = last_played([climb.id for climb in every])
    best = {climb.student.id: climb for climb in sorted(every, key=lambda climb: (played[climb.id], climb.id))}
    return {stood.climb.student.id: stood for stood in as_they_stand(list(best.values()))}


def _lesson(student: Student, stood: Stood | None, moment: datetime) -> Lesson:
    last = stood.standing.last_take_at if stood else None
    return Lesson(student, stood, _ago(last, moment) if last else "no take yet")


def _ago(played_at: datetime, moment: datetime) -> str:
    days = (moment.date() - played_at.astimezone(moment.tzinfo).date()).days
    if days <= 0:
        return "last take today"
    return "last take yesterday" if days == 1 else f"no take for {days} days"


def _week(moment: datetime) -> list[Day]:
    today = moment.date()
    monday = today - timedelta(days=moment.weekday())
    days = [monday + timedelta(days=number) for number in range(8)]

    def begin(day: date) -> datetime:
        return datetime.combine(day, time(), moment.tzinfo)

    minutes = [seconds_played(begin(day), begin(after)) / 60 for day, after in pairwise(days)]
    return [Day(number, minutes[number], days[number] == today, days[number] > today) for number in range(7)]
