"""A student's calendar: what is planned and the lessons to come."""

import json
from datetime import date, datetime, time, timedelta

from ripresa.core.exact import plural
from ripresa.core.plans import PlannedDay, tasks_of
from ripresa.core.studio import Student
from ripresa.formats.calendar_ics import Dated, Session, write_calendar
from ripresa.store.given_days import give_out
from ripresa.store.identity import studio_id
from ripresa.work.standing import stands_of
from ripresa.work.students import plan_of, subject_of

#: How far ahead lessons are written where no plan says an end.
_LESSONS_AHEAD = 84


def calendar_of(student: Student, now: datetime) -> bytes:
    """Return the practice days and lessons to come of a student, as iCalendar; what was given out before is kept to.

    A day that was in an earlier file and is no more is called off in this one.
    """
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
            name, at = student.details.name, _time(student.details.lesson_time)
            sessions.append(Session(one, f"Lesson: {name}", at=at, is_lesson=True))
    of_studio = f"student-{student.id}@{studio_id()}.ripresa"
    days = {
        f"{'lesson' if one.is_lesson else 'practice'}-{one.day.isoformat()}-{of_studio}": (one.day, _body(one))
        for one in sessions
    }
    entries = [
        Dated(_session(one.day, one.body), one.uid, one.sequence, one.is_cancelled)
        for one in give_out(student.id, days, today)
    ]
    return write_calendar(f"{student.details.name}, practice", entries, now)


def _body(session: Session) -> str:
    """Return what is said of a session, to be compared and said again."""
    at = session.at.isoformat("minutes") if session.at else ""
    return json.dumps([session.title, session.about, at, session.minutes, session.is_lesson], ensure_ascii=False)


def _session(day: date, body: str) -> Session:
    title, about, at, minutes, is_lesson = json.loads(body)
    return Session(day, title, about, _time(at), minutes, is_lesson)


def _time(text: str) -> time | None:
    if not text:
        return None
    hours, _, minutes = text.partition(":")
    return time(int(hours), int(minutes))
