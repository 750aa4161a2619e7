"""The desk of a day: its lessons, the words that wait, and what the week came to."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from itertools import pairwise

from ripresa.core.plans import WEEKDAYS
from ripresa.core.studio import Group, Student
from ripresa.store import climb_lists, groups, students
from ripresa.store.takes import seconds_played
from ripresa.store.unread import unread
from ripresa.work.climbs import Stood, as_they_stand
from ripresa.work.days import begin_of, day_of, monday_of
from ripresa.work.lessons import NextLesson, next_lessons

#: Lessons whose three sentences are made: those that come next, by the clock.
MOST_WORDS = 8
#: Students without a lesson today that the desk shows, those who wait first; the roster has all.
MOST_OTHERS = 20
#: Of so many that played last it is found out whether they wait.
MOST_LOOKED = 40


@dataclass(frozen=True, slots=True)
class Lesson:
    """A student with the climb that stands nearest: the last one played, else the newest; and when that was.

    Args:
        words: What matters in the lesson; None where there is none today.
    """

    student: Student
    stood: Stood | None
    last_take: str
    words: NextLesson | None = None


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
    """A day's desk: lessons by the clock, other students and how many more; ``unread`` names what cannot be read."""

    weekday: str
    lessons: tuple[Lesson, ...]
    others: tuple[Lesson, ...]
    more: int
    groups: tuple[Group, ...]
    week: tuple[Day, ...]
    unread: tuple[str, ...]

    @property
    def waiting(self) -> tuple[Stood, ...]:
        """Climbs whose word waits for an answer."""
        found = (lesson.stood for lesson in (*self.lessons, *self.others))
        return tuple(stood for stood in found if stood and stood.is_open)


def desk_of(moment: datetime) -> Desk:
    """Return the desk of a day."""
    everyone = students.all_students()
    today = moment.date()
    nearest = climb_lists.last_played_of([student.id for student in everyone])
    here = [student for student in everyone if student.details.has_lesson(today)]
    away = [student for student in everyone if not student.details.has_lesson(today)]
    # Of those without a lesson today the last played are looked at: who waits for a word has played.
    away.sort(key=lambda one: nearest.get(one.id, (0, ""))[1], reverse=True)
    looked = away[:MOST_LOOKED]
    stood = _stood_of([nearest[one.id][0] for one in (*here, *looked) if one.id in nearest])
    lessons = [_lesson(student, stood.get(student.id), moment) for student in here]
    others = [_lesson(student, stood.get(student.id), moment) for student in looked]
    lessons.sort(key=lambda one: by_the_clock(one.student.details.lesson_time))
    # Who waits for a word comes first; then who played last.
    others.sort(key=lambda one: not (one.stood and one.stood.is_open))
    today_too = [one for one in groups.all_groups() if one.details.lesson_weekday == moment.weekday()]
    words = next_lessons([one.student for one in _coming(lessons, moment)], moment)
    return Desk(
        weekday=WEEKDAYS[moment.weekday()],
        lessons=tuple(replace(one, words=words.get(one.student.id)) for one in lessons),
        others=tuple(others[:MOST_OTHERS]),
        more=max(0, len(away) - MOST_OTHERS),
        groups=tuple(sorted(today_too, key=lambda one: by_the_clock(one.details.lesson_time))),
        week=tuple(_week(moment)),
        unread=tuple(unread()),
    )


def _coming(lessons: Sequence[Lesson], moment: datetime) -> Sequence[Lesson]:
    """Return the lessons that come next, the one that is just over among them; at the end of a day its last ones."""
    # In the first hour of a day none is just over, and all of them are to come.
    from_now = f"{moment - timedelta(hours=1):%H:%M}" if moment.hour else ""
    coming = [one for one in lessons if by_the_clock(one.student.details.lesson_time) >= from_now]
    return coming[:MOST_WORDS] if len(coming) >= MOST_WORDS else lessons[-MOST_WORDS:]


def by_the_clock(time: str) -> str:
    """Return a time of day as it sorts: 9:30 comes before 10:00."""
    return time.rjust(5, "0")


def nearest_climbs(student_ids: Sequence[int]) -> dict[int, Stood]:
    """Return the climb that stands nearest, by student: the last one played, else the newest."""
    return _stood_of([climb for climb, _ in climb_lists.last_played_of(student_ids).values()])


def _stood_of(climb_ids: Sequence[int]) -> dict[int, Stood]:
    return {stood.climb.student.id: stood for stood in as_they_stand(climb_lists.some_climbs(climb_ids))}


def _lesson(student: Student, stood: Stood | None, moment: datetime) -> Lesson:
    last = stood.standing.last_take_at if stood else None
    return Lesson(student, stood, _ago(last, moment) if last else "no take yet")


def _ago(played_at: datetime, moment: datetime) -> str:
    days = (moment.date() - day_of(played_at, moment.tzinfo)).days
    if days <= 0:
        return "last take today"
    return "last take yesterday" if days == 1 else f"no take for {days} days"


def _week(moment: datetime) -> list[Day]:
    today = moment.date()
    monday = monday_of(today)
    days = [monday + timedelta(days=number) for number in range(8)]
    begins = [begin_of(day, moment.tzinfo) for day in days]
    minutes = [seconds_played(begin, after) / 60 for begin, after in pairwise(begins)]
    return [Day(number, minutes[number], days[number] == today, days[number] > today) for number in range(7)]
