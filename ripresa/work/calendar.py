"""A student's calendar: what is planned and the lessons to come."""

from datetime import datetime, time, timedelta

from ripresa.core.exact import plural
from ripresa.core.plans import PlannedDay, tasks_of
from ripresa.core.studio import Student
from ripresa.formats.calendar_ics import Session, write_calendar
from ripresa.work.standing import stands_of
from ripresa.work.students import plan_of, subject_of

#: How far ahead lessons are written where no plan says an end.
_LESSONS_AHEAD = 84


def calendar_of(student: Student, now: datetime) -> bytes:
    """Return the practice days and lessons to come of a student, as iCalendar."""
    today = now.date()
    planned = plan_of(student, now)
    subjects = [subject_of(one, now.tzinfo) for one in stands_of(student.id)]
    sessions: list[Session] = []
    ahead: list[PlannedDay] = [day for day in planned.days if day.planned and day.date >= today] if planned else []
    for number, day in enumerate(ahead):
        tasks = tasks_of(day.date, round(day.planned), subjects, number)
        about = "\n".join(f"{task.minutes} min: {task.words}" for task in tasks)
        sessions.append(Session(day.date, f"Practise {plural(day.planned, 'minute')}", about))
    last = planned.ends if planned else today + timedelta(days=_LESSONS_AHEAD)
    for back in range(max(0, (last - today).days) + 1):
        one = today + timedelta(days=back)
        if student.details.has_lesson(one):
            sessions.append(Session(one, f"Lesson: {student.details.name}", at=_time(student.details.lesson_time)))
    return write_calendar(f"{student.details.name}, practice", sessions, now, f"student-{student.id}")


def _time(text: str) -> time | None:
    if not text:
        return None
    hours, _, minutes = text.partition(":")
    return time(int(hours), int(minutes))
