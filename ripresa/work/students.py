"""A student's page: the plan and its days, what stands, where it is going, what matters in the next lesson."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta, tzinfo

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label, plural
from ripresa.core.pitch import instrument_named
from ripresa.core.plans import (
    CleanTake,
    Forecast,
    Load,
    PlannedDay,
    PracticePlan,
    Spread,
    Subject,
    Task,
    forecast,
    spread,
    tasks_of,
    told,
)
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import meter_named
from ripresa.core.studio import Student, care_for
from ripresa.store import students
from ripresa.store.practice import (
    Practised,
    notes_since,
    practised_days,
)
from ripresa.store.settings import studio_settings
from ripresa.work.days import begin_of, day_of, monday_of
from ripresa.work.lessons import MOST_SAID, NextLesson, last_lesson, next_lesson
from ripresa.work.standing import Stands, nps_of, stands_of

#: Weeks around today that the page shows: two before, this one, and one to come.
WEEKS_BEFORE, WEEKS_AFTER = 2, 1


@dataclass(frozen=True, slots=True)
class WeekRow:
    """Seven days from a Monday on; ``minutes`` that were played; ``asked`` of the plan in them."""

    days: tuple[tuple[date, PlannedDay | None, float], ...]

    @property
    def minutes(self) -> float:
        """Minutes that were played in it."""
        return sum(minutes for _, _, minutes in self.days)

    @property
    def planned(self) -> Fraction:
        """Minutes that are still planned in it."""
        return sum((day.planned for _, day, _ in self.days if day), Fraction(0))


@dataclass(frozen=True, slots=True)
class StudentPage:
    """All that the page of a student shows."""

    student: Student
    stands: tuple[Stands, ...]
    weeks: tuple[WeekRow, ...]
    spread: Spread | None
    tasks: tuple[Task, ...]
    load: Load
    lesson: NextLesson
    care: tuple[str, ...]
    today: date
    going: Stands | None
    forecast: Forecast | None


def page_of(student_id: int, now: datetime, climb_id: int | None = None) -> StudentPage:
    """Return the page of a student.

    Args:
        climb_id: The climb whose way is shown; None is the one played last.

    Raises:
        NotFound: There is no such student.
    """
    student = students.find_student(student_id)
    today = now.date()
    stands = stands_of(student_id)
    played = _played(student, now)
    planned = spread_of(student, played, today)
    since = last_lesson(student, now)
    said = notes_since({student.id: since}, MOST_SAID)
    shown = next((one for one in stands if one.stood.climb.id == climb_id), None)
    going = shown or max((one for one in stands if one.speeds), key=lambda one: one.speeds[-1].played_at, default=None)
    return StudentPage(
        student=student,
        stands=tuple(stands),
        weeks=tuple(_weeks(played, planned, today)),
        spread=planned,
        tasks=tasks_today(planned, stands, now),
        load=load_of(student, played, today),
        care=care_of(student, stands),
        today=today,
        lesson=next_lesson(student, stands, said[student.id], since, now),
        going=going,
        forecast=_forecast(going, now) if going else None,
    )


def _played(student: Student, now: datetime) -> dict[date, Practised]:
    """Return what a student played day by day, as far back as the plan, the weeks or the load look."""
    today = now.date()
    first = monday_of(today) - timedelta(weeks=WEEKS_BEFORE)
    begin = min(first, student.plan.start) if student.plan else first
    end = begin_of(today + timedelta(days=1), now.tzinfo)
    return practised_days(student.id, begin_of(begin, now.tzinfo), end, now.tzinfo)


def plan_of(student: Student, now: datetime) -> Spread | None:
    """Return the plan of a student, spread over its days; None without one."""
    return spread_of(student, _played(student, now), now.date())


def spread_of(student: Student, played: Mapping[date, Practised], today: date) -> Spread | None:
    """Return the plan of a student, spread over its days by what was played; None without one."""
    if student.plan is None:
        return None
    plan = replace(student.plan, lessons=student.details.lesson_days)
    done = {
        day: Fraction(round(one.seconds), 60)
        for day, one in played.items()
        if plan.start <= day <= min(plan.last_day, today)
    }
    return spread(plan, done, today)


def fresh_plan(today: date) -> PracticePlan:
    """Return the plan that a student begins with: from today on, not on Sundays, by the studio's limit of notes."""
    return PracticePlan(start=today, off=("sunday",), most_more=studio_settings().most_more)


def keep_plan(student_id: int, plan: PracticePlan | None, based_on: int) -> Student:
    """Keep a plan of practice for a student; None takes it away.

    Raises:
        NotFound: There is no such student.
        OutOfRange: More minutes than a guardian allows.
        Conflict: The student was changed since that revision.
    """
    student = students.find_student(student_id)
    most = student.details.guardian.most_minutes
    if plan and most is not None and max(plan.minutes, plan.most_a_day) > most:
        raise OutOfRange(
            f"The guardian of {student.details.name} allows {plural(most, 'minute')} a day at most.", field="most_a_day"
        )
    return students.keep_plan(student_id, plan, based_on)


def tasks_today(planned: Spread | None, stands: Sequence[Stands], now: datetime) -> tuple[Task, ...]:
    """Return the tasks of today, none where nothing is planned on it."""
    today = now.date()
    day = next((one for one in planned.days if one.date == today), None) if planned else None
    if day is None or not day.planned:
        return ()
    return tasks_of(today, round(day.planned), [subject_of(one, now.tzinfo) for one in stands])


def load_of(student: Student, played: Mapping[date, Practised], today: date) -> Load:
    """Return the notes of these seven days beside those of the seven before."""

    def notes(first: int, last: int) -> int:
        days = (today - timedelta(days=back) for back in range(first, last))
        return sum(played[day].notes for day in days if day in played)

    limit = student.plan.most_more if student.plan else studio_settings().most_more
    return Load(now=notes(0, 7), before=notes(7, 14), limit=limit)


def care_of(student: Student, stands: Sequence[Stands]) -> tuple[str, ...]:
    """Return the usual cautions that concern a student, short; never a diagnosis."""
    instrument = instrument_named(student.details.instrument)
    return tuple(care_for(instrument, (one.stood.climb.drill.drill for one in stands)))


def _forecast(going: Stands, now: datetime) -> Forecast:
    peak = peak_of_drill(going.stood.climb.drill.drill)
    clean = [
        CleanTake(day_of(one.played_at, now.tzinfo), float(nps_of(one, peak)))
        for one in going.speeds
        if one.mark == "clean"
    ]
    return forecast(clean, now.date(), float(going.stood.rungs[-1].nps))


def subject_of(one: Stands, zone: tzinfo | None) -> Subject:
    """Return a climb as the plan of a day needs it; its days are those of a zone."""
    stood = one.stood
    sign = meter_named(stood.climb.drill.drill.meter).sign
    last = stood.standing.last_take_at
    return Subject(
        key=stood.climb.id,
        title=stood.climb.title,
        now=f"{sign} = {label(stood.here.bpm)}",
        last_played=day_of(last, zone) if last else None,
        last_clean=day_of(one.clean.played_at, zone) if one.clean else None,
        shaky=one.shaky,
        remedy=stood.remedy.remedy.name if stood.remedy else "",
        stands=one.target_stands,
    )


def _weeks(played: Mapping[date, Practised], planned: Spread | None, today: date) -> list[WeekRow]:
    first = monday_of(today) - timedelta(weeks=WEEKS_BEFORE)
    days = [first + timedelta(days=number) for number in range(7 * (WEEKS_BEFORE + 1 + WEEKS_AFTER))]
    of_plan = {day.date: day for day in planned.days} if planned else {}
    rows = [(day, of_plan.get(day), _minutes(played.get(day))) for day in days]
    return [WeekRow(tuple(rows[begin : begin + 7])) for begin in range(0, len(rows), 7)]


def _minutes(played: Practised | None) -> float:
    return played.seconds / 60 if played else 0.0


def next_words(page: StudentPage) -> str:
    """Return where the shown climb is going, in a sentence; empty without one."""
    found = page.forecast
    if found is None:
        return ""
    if found.first is not None and found.last is not None:
        return f"{found.sentence} The target between {told(found.first)} and {told(found.last)}."
    return found.sentence if found.silent else f"{found.sentence} Too wide to name a day."
