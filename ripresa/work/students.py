"""A student's page: the plan and its days, what stands, where it is going, what matters in the next lesson."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time, timedelta, tzinfo
from fractions import Fraction
from itertools import pairwise

from ripresa.core.climbs import Checkpoints, ClimbPlan, rungs
from ripresa.core.drill.hands import NoHands
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import label, plural
from ripresa.core.pitch import instrument_named
from ripresa.core.plans import (
    CleanTake,
    Forecast,
    Load,
    LoggedTake,
    PlannedDay,
    PracticePlan,
    Spread,
    Subject,
    Task,
    WhatIf,
    forecast,
    silent_about,
    spread,
    tasks_of,
    told,
    what_if,
)
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import meter_named, speed_nps
from ripresa.core.studio import Student
from ripresa.core.takes import Fault, Weak, pooled_faults
from ripresa.store import climbs, students
from ripresa.store.practice import (
    Practised,
    Said,
    SpeedOf,
    faults_of,
    notes_since,
    practised_days,
    speeds_of,
)
from ripresa.work.climbs import Stood, as_they_stand

#: Takes of a climb that its trend is seen from, and those over which faults are pooled.
MOST_TRACED, MOST_POOLED = 200, 14
#: Notes since the last lesson that are shown.
MOST_SAID = 3
#: Weeks around today that the page shows: two before, this one, and one to come.
WEEKS_BEFORE, WEEKS_AFTER = 2, 1


@dataclass(frozen=True, slots=True)
class Stands:
    """How a climb stands, at a glance.

    Args:
        clean: The last clean take; None without one. nps: Its notes a second.
        weak: What is weak in it, the most frequent first. speeds: Its judged takes, oldest first.
    """

    stood: Stood
    clean: SpeedOf | None
    nps: Fraction | None
    weak: tuple[Weak, ...]
    speeds: tuple[SpeedOf, ...]

    @property
    def shaky(self) -> float:
        """Share of the last ten judged takes that were shaky."""
        last = self.speeds[-10:]
        return sum(one.mark == "shaky" for one in last) / len(last) if last else 0.0

    @property
    def target_stands(self) -> bool:
        """Whether it stands on its last rung, clean."""
        return self.stood.word.heading == "The target stands"


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
class NextLesson:
    """What matters before a lesson: what stood, what broke, what was asked.

    Args:
        day: Of the lesson; None without one. stood, broke: Sentences; empty for nothing.
        asked: Notes that were written since the last one.
        recap: What was played today, in a sentence; empty for nothing.
    """

    day: date | None
    stood: str
    broke: str
    recap: str
    asked: tuple[Said, ...]


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
    planned = plan_of(student, now)
    said = notes_since({student.id: _last_lesson(student, now)}, MOST_SAID)
    shown = next((one for one in stands if one.stood.climb.id == climb_id), None)
    going = shown or max((one for one in stands if one.speeds), key=lambda one: one.speeds[-1].played_at, default=None)
    return StudentPage(
        student=student,
        stands=tuple(stands),
        weeks=tuple(_weeks(student, planned, now)),
        spread=planned,
        tasks=tasks_today(planned, stands, today),
        load=load_of(student, now),
        care=care_of(student, stands),
        today=today,
        lesson=next_lesson(student, stands, said[student.id], now),
        going=going,
        forecast=_forecast(going, now) if going else None,
    )


def stands_of(student_id: int) -> list[Stands]:
    """Return how every climb of a student stands, the one played last first."""
    return stands_by_student([student_id])[student_id]


def stands_by_student(
    student_ids: Sequence[int], since: datetime | None = None, most: int = MOST_TRACED
) -> dict[int, list[Stands]]:
    """Return how every climb of some students stands, in as many questions as for one.

    Args:
        since: Those alone that were played since then. most: Takes of each that are looked at.
    """
    own = climbs.climbs_of(student_ids, since)
    ids = [climb.id for climb in own]
    speeds, faults = speeds_of(ids, most), faults_of(ids, MOST_POOLED)
    never = datetime.min.replace(tzinfo=UTC)
    found: dict[int, list[Stands]] = {student: [] for student in student_ids}
    for stood in as_they_stand(own):
        climb = stood.climb
        found[climb.student.id].append(_stands(stood, speeds[climb.id], faults[climb.id]))
    for stands in found.values():
        stands.sort(key=lambda one: (one.stood.standing.last_take_at or never, one.stood.climb.id), reverse=True)
    return found


def plan_of(student: Student, now: datetime) -> Spread | None:
    """Return the plan of a student, spread over its days; None without one."""
    plan = student.plan
    if plan is None:
        return None
    plan = replace(plan, lessons=student.details.lesson_days)
    zone, today = now.tzinfo, now.date()
    played = practised_days(student.id, _at(plan.start, zone), _at(plan.last_day + timedelta(days=1), zone), zone)
    done = {
        day: Fraction(round(one.seconds), 60)
        for day, one in played.items()
        if plan.start <= day <= min(plan.last_day, today)
    }
    return spread(plan, done, today)


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


def tasks_today(planned: Spread | None, stands: Sequence[Stands], today: date) -> tuple[Task, ...]:
    """Return the tasks of today, none where nothing is planned on it."""
    day = next((one for one in planned.days if one.date == today), None) if planned else None
    if day is None or not day.planned:
        return ()
    return tasks_of(today, round(day.planned), [subject_of(one) for one in stands])


def load_of(student: Student, now: datetime) -> Load:
    """Return the notes of these seven days beside those of the seven before."""
    begin = now - timedelta(days=14)
    played = practised_days(student.id, begin, now + timedelta(seconds=1), now.tzinfo)
    middle = (now - timedelta(days=7)).date()
    limit = student.plan.most_more if student.plan else 10
    return Load(
        now=sum(one.notes for day, one in played.items() if day > middle),
        before=sum(one.notes for day, one in played.items() if day <= middle),
        limit=limit,
    )


def care_of(student: Student, stands: Sequence[Stands]) -> tuple[str, ...]:
    """Return the usual cautions that concern a student, short; never a diagnosis."""
    instrument = instrument_named(student.details.instrument)
    found = [
        "Warm up first. Stop at pain, tingling, numbness or weakness; see a doctor or a performers’ clinic.",
        "Rest 5 minutes after 25. No records at the end of a session.",
    ]
    if instrument.breathes:
        found.append("Rest as long as you play; stop when light-headed.")
    if instrument.is_loud:
        found.append("It is loud: short stretches, some distance to walls, ears protected where it is needed.")
    if instrument.voice in {"keys", "pluck"}:
        found.append("A finger that does not obey any more needs advice, not repetition.")
    if any(one.stood.climb.drill.drill.hands != NoHands() for one in stands):
        found.append("Alternate the hands, and what they do: nothing the same for long.")
    found.append("Listen no louder than one can talk over.")
    if any(one.stood.climb.drill.drill.body.movement in {"step", "sway"} for one in stands):
        found.append("Stepping and swaying need a clear floor.")
    return tuple(found)


def next_lessons(found: Sequence[Student], now: datetime) -> dict[int, NextLesson]:
    """Return what matters before the next lesson of some students, in as many questions as for one."""
    if not found:
        return {}
    since = min(_last_lesson(student, now) for student in found)
    stands = stands_by_student([student.id for student in found], since, MOST_POOLED)
    said = notes_since({student.id: _last_lesson(student, now) for student in found}, MOST_SAID)
    return {student.id: next_lesson(student, stands[student.id], said[student.id], now) for student in found}


def next_lesson(student: Student, stands: Sequence[Stands], said: Sequence[Said], now: datetime) -> NextLesson:
    """Return what matters before the next lesson, from what happened since the last one.

    Args:
        said: Notes that were written since.
    """
    today, since = now.date(), _last_lesson(student, now)
    ahead = next((day for day in range(29) if _lesson(student, -day, today)), None)
    lately = [(one, [take for take in one.speeds if take.played_at >= since]) for one in stands]
    clean = [(one, takes) for one, takes in lately if any(take.mark == "clean" for take in takes)]
    return NextLesson(
        day=today + timedelta(days=ahead) if ahead is not None else None,
        stood=" ".join(_stood(one, takes) for one, takes in clean[:2]),
        recap=_recap(stands, now),
        broke=_broke([one for one, takes in lately if any(take.mark == "shaky" for take in takes)]),
        asked=tuple(said),
    )


def _recap(stands: Sequence[Stands], now: datetime) -> str:
    """Return what was played today: how many takes, how many clean, how far up, and where the climb stands now."""
    begin = _at(now.date(), now.tzinfo)
    told = []
    for one in stands:
        takes = [take for take in one.speeds if take.played_at >= begin]
        if not takes:
            continue
        clean = [take.bpm for take in takes if take.mark == "clean"]
        best = f", up to {label(max(clean))}" if clean else ""
        here = f"; now on rung {one.stood.climb.rung}, {one.stood.next_sentence}"
        told.append(f"{plural(len(takes), 'take')} of {one.stood.climb.title}, {len(clean)} clean{best}{here}.")
    return " ".join(told[:3])


def _last_lesson(student: Student, now: datetime) -> datetime:
    """Return the beginning of the day of the last lesson before today, or of a week ago where there was none."""
    today = now.date()
    before = next((today - timedelta(days=back) for back in range(1, 29) if _lesson(student, back, today)), None)
    return _at(before or today - timedelta(days=7), now.tzinfo)


def replayed(climb_id: int) -> tuple[str | None, list[tuple[str, bool, WhatIf]], int]:
    """Replay the log of a climb under its own rule and three others, from where it stands.

    Returns:
        (why there is nothing, (rule in words, whether it is the present one, how it went) of each, takes of the log).

    Raises:
        NotFound: There is no such climb.
    """
    climb = climbs.find_climb(climb_id)
    peak = peak_of_drill(climb.drill.drill)
    takes = [
        LoggedTake(one.played_at.date(), float(nps_of(one, peak)), one.mark == "clean")
        for one in speeds_of([climb_id], MOST_TRACED)[climb_id]
    ]
    silent = silent_about(takes)
    here = rungs(climb.plan, peak)[climb.rung - 1]
    if silent is None and (climb.plan.is_without_speed or here.bpm >= climb.plan.goal):
        silent = "The tempo does not rise any more, so that there is nothing to replay."
    if silent is not None:
        return silent, [], len(takes)
    plan = replace(climb.plan, start=here.bpm, clicks=())
    found = []
    for words, other in _others(plan):
        speeds = [float(rung.nps) for rung in rungs(other, peak)]
        found.append((words, other == plan, what_if(takes, other, speeds)))
    return None, found, len(takes)


def _others(plan: ClimbPlan) -> list[tuple[str, ClimbPlan]]:
    ways = [
        (f"{plan.rule.words}, as now", plan),
        ("two up, one back", replace(plan, moving="up_two_back_one")),
        ("one up, two back", replace(plan, moving="staircase")),
        ("few wide checkpoints", replace(plan, rule=Checkpoints(4), moving="stay_until_clean")),
    ]
    return [(words, one) for number, (words, one) in enumerate(ways) if number == 0 or one != plan]


def _stands(stood: Stood, speeds: Sequence[SpeedOf], faults: Sequence[tuple[Fault, ...]]) -> Stands:
    clean = next((one for one in reversed(speeds) if one.mark == "clean"), None)
    peak = peak_of_drill(stood.climb.drill.drill)
    return Stands(
        stood=stood,
        clean=clean,
        nps=nps_of(clean, peak) if clean else None,
        weak=tuple(pooled_faults(faults)),
        speeds=tuple(speeds),
    )


def nps_of(take: SpeedOf, peak: Fraction) -> Fraction:
    """Return the notes a second of a take of a drill with so many notes per beat where it is fastest."""
    only = None if take.part is None else take.part.only
    return speed_nps(take.bpm, only or peak)


def _forecast(going: Stands, now: datetime) -> Forecast:
    peak = peak_of_drill(going.stood.climb.drill.drill)
    clean = [
        CleanTake(one.played_at.astimezone(now.tzinfo).date(), float(nps_of(one, peak)))
        for one in going.speeds
        if one.mark == "clean"
    ]
    return forecast(clean, now.date(), float(going.stood.rungs[-1].nps))


def subject_of(one: Stands) -> Subject:
    """Return a climb as the plan of a day needs it."""
    stood = one.stood
    sign = meter_named(stood.climb.drill.drill.meter).sign
    last = stood.standing.last_take_at
    return Subject(
        key=stood.climb.id,
        title=stood.climb.title,
        now=f"{sign} = {label(stood.here.bpm)}",
        last_played=last.date() if last else None,
        last_clean=one.clean.played_at.date() if one.clean else None,
        shaky=one.shaky,
        remedy=stood.remedy.remedy.name if stood.remedy else "",
        stands=one.target_stands,
    )


def _weeks(student: Student, planned: Spread | None, now: datetime) -> list[WeekRow]:
    monday = now.date() - timedelta(days=now.weekday())
    first = monday - timedelta(weeks=WEEKS_BEFORE)
    days = [first + timedelta(days=number) for number in range(7 * (WEEKS_BEFORE + 1 + WEEKS_AFTER) + 1)]
    played = practised_days(student.id, _at(days[0], now.tzinfo), _at(days[-1], now.tzinfo), now.tzinfo)
    of_plan = {day.date: day for day in planned.days} if planned else {}
    rows = [(day, of_plan.get(day), _minutes(played.get(day))) for day, _ in pairwise(days)]
    return [WeekRow(tuple(rows[begin : begin + 7])) for begin in range(0, len(rows), 7)]


def _minutes(played: Practised | None) -> float:
    return played.seconds / 60 if played else 0.0


def _lesson(student: Student, back: int, today: date) -> bool:
    return student.details.has_lesson(today - timedelta(days=back))


def _stood(one: Stands, takes: Sequence[SpeedOf]) -> str:
    clean = [take for take in takes if take.mark == "clean"]
    best = max(take.bpm for take in clean)
    return f"{plural(len(clean), 'clean take')} of {one.stood.climb.title}, up to {label(best)}."


def _broke(shaky: Sequence[Stands]) -> str:
    weak = next((one for one in shaky if one.weak), None)
    if weak is not None:
        return f"{weak.stood.climb.title}: {weak.weak[0].words}."
    if shaky:
        count = sum(take.mark == "shaky" for take in shaky[0].speeds[-10:])
        return f"{shaky[0].stood.climb.title}: {plural(count, 'shaky take')} of the last ten."
    return ""


def _at(day: date, zone: tzinfo | None) -> datetime:
    return datetime.combine(day, time(), zone)


def next_words(page: StudentPage) -> str:
    """Return where the shown climb is going, in a sentence; empty without one."""
    found = page.forecast
    if found is None:
        return ""
    if found.first is not None and found.last is not None:
        return f"{found.sentence} The target between {told(found.first)} and {told(found.last)}."
    return found.sentence if found.silent else f"{found.sentence} Too wide to name a day."
