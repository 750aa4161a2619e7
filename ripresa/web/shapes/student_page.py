"""The shape of a student's page: the plan and its days, what stands, where it is going, the next lesson."""

from datetime import date, timedelta

from ripresa.core.exact import Fraction, decimal, label, plural, short
from ripresa.core.plans import MODEL, TASKS, DayKind, Forecast, PlannedDay, PracticePlan, Task, TaskKind, WhatIf, told
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import meter_named
from ripresa.core.takes import Mark
from ripresa.formats.wire import Shape
from ripresa.web.shapes.climbs import ClimbShape, climb_shape
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.work.lessons import NextLesson
from ripresa.work.standing import Stands, nps_of
from ripresa.work.students import StudentPage, fresh_plan, next_words


class PlannedDayShape(Shape):
    """A day of the weeks: minutes played, minutes still planned, what it is; ``words`` says all of it."""

    date: str
    minutes: str
    planned: str
    kind: DayKind
    lesson: bool
    is_today: bool
    words: str


class WeekShape(Shape):
    """Seven days from a Monday on, and what they come to."""

    name: str
    days: list[PlannedDayShape]
    sentence: str


class TaskShape(Shape):
    """A task of today, and the climb it is of."""

    kind: TaskKind
    name: str
    why: str
    minutes: int
    words: str
    climb_id: int | None


class PlanShape(Shape):
    """The plan of a student as it stands; ``fits`` is the date by which all of it would fit, empty where it does."""

    plan: PracticePlan
    asked: str
    done: str
    planned: str
    unplaced: str
    ends: str
    fits: str
    fits_date: str
    sentence: str


class SpeedPointShape(Shape):
    """A judged take as a point: when, how fast, how it went."""

    at: str
    nps: float
    label: str
    mark: Mark


class ExpectedShape(Shape):
    """The range of a week to come: ``at`` its last day, n/s between which four of five clean bests lie."""

    at: str
    week: int
    low: float
    middle: float
    high: float


class GoingShape(Shape):
    """Where a climb is going: its points, the target, the widening range, and that in words."""

    climb_id: int
    title: str
    points: list[SpeedPointShape]
    target: float
    target_label: str
    weeks: list[ExpectedShape]
    sentence: str
    is_silent: bool


class StandsShape(Shape):
    """A climb at a glance: the last clean tempo and speed, the click, and what is weak, with how often."""

    climb: ClimbShape
    clean: str
    nps: str
    click: str
    weak: list[str]


class AskedShape(Shape):
    """A note since the last lesson."""

    at: str
    note: str
    by: str


class LessonWordsShape(Shape):
    """What matters in the next lesson."""

    day: str
    stood: str
    broke: str
    recap: str
    asked: list[AskedShape]


class StudentPageShape(Shape):
    """All that the page of a student shows."""

    student: StudentShape
    plan: PlanShape | None
    fresh_plan: PracticePlan
    weeks: list[WeekShape]
    tasks: list[TaskShape]
    stands: list[StandsShape]
    going: GoingShape | None
    lesson: LessonWordsShape
    load: str
    is_too_much: bool
    care: list[str]


class WhatIfRow(Shape):
    """A rule in the replays: weeks and shaky share as ranges in words."""

    rule: str
    is_now: bool
    weeks: str
    shaky: str


class WhatIfShape(Shape):
    """The log of a climb, replayed; ``silent`` says why there is nothing."""

    silent: str
    takes: int
    sentence: str
    rows: list[WhatIfRow]


def page_shape(page: StudentPage) -> StudentPageShape:
    """Return the page of a student."""
    return StudentPageShape(
        student=student_shape(page.student),
        plan=_plan(page),
        fresh_plan=fresh_plan(page.today),
        weeks=[
            WeekShape(
                name=told(row.days[0][0]),
                days=[_day(day, planned, minutes, page.today) for day, planned, minutes in row.days],
                sentence=_week_words(row.minutes, row.planned),
            )
            for row in page.weeks
        ],
        tasks=[_task(one) for one in page.tasks],
        stands=[_stands(one) for one in page.stands],
        going=_going(page) if page.going else None,
        lesson=lesson_shape(page.lesson),
        load=page.load.sentence,
        is_too_much=page.load.is_over,
        care=list(page.care),
    )


def lesson_shape(lesson: NextLesson) -> LessonWordsShape:
    """Return what matters in the next lesson."""
    return LessonWordsShape(
        day=f"{lesson.day:%A}, {told(lesson.day)}" if lesson.day else "",
        stood=lesson.stood,
        broke=lesson.broke,
        recap=lesson.recap,
        asked=[AskedShape(at=one.at.isoformat(), note=one.note, by=one.by) for one in lesson.asked],
    )


def what_if_shape(silent: str | None, rows: list[tuple[str, bool, WhatIf]], takes: int) -> WhatIfShape:
    """Return replays in words."""
    replays = rows[0][2].replays if rows else 0
    return WhatIfShape(
        silent=silent or "",
        takes=takes,
        sentence=f"{plural(takes, 'take')}, replayed {replays} times under each rule. {MODEL}",
        rows=[
            WhatIfRow(
                rule=rule,
                is_now=is_now,
                weeks=_weeks_words(found),
                shaky=f"{found.shaky[0] * 100:.0f}–{found.shaky[1] * 100:.0f} %",
            )
            for rule, is_now, found in rows
        ],
    )


def _weeks_words(found: WhatIf) -> str:
    if found.weeks is None:
        return "not in half a year"
    low, high = found.weeks
    return f"{max(1, round(low))}–{'?' if high is None else max(1, round(high))}"


def _day(day: date, planned: PlannedDay | None, minutes: float, today: date) -> PlannedDayShape:
    to_do = planned.planned if planned else Fraction(0)
    played = f"{minutes:.0f}" if minutes >= 0.5 else ""
    kind: DayKind = "done" if played and not to_do else planned.kind if planned else "free"
    words = [f"{day:%A}, {told(day)}"]
    words += [f"{played} minutes played"] if played else []
    words += [f"{label(to_do)} minutes to come"] if to_do else []
    words += ["lesson"] if planned and planned.lesson else []
    words += ["day off"] if kind == "off" else []
    return PlannedDayShape(
        date=day.isoformat(),
        minutes=played,
        planned=decimal(to_do, 0) if to_do else "",
        kind=kind,
        lesson=bool(planned and planned.lesson),
        is_today=day == today,
        words=": ".join([words[0], ", ".join(words[1:]) or "nothing"]),
    )


def _week_words(minutes: float, planned: Fraction) -> str:
    if not planned:
        return f"{minutes:.0f} min"
    return f"{minutes:.0f} of {decimal(Fraction(round(minutes)) + planned, 0)} min"


def _task(task: Task) -> TaskShape:
    name, why = TASKS[task.kind]
    return TaskShape(kind=task.kind, name=name, why=why, minutes=task.minutes, words=task.words, climb_id=task.key)


def _plan(page: StudentPage) -> PlanShape | None:
    found, plan = page.spread, page.student.plan
    if found is None or plan is None:
        return None
    more = found.more_a_day - plan.minutes
    sentence = f"{decimal(found.done, 0)} of {decimal(found.asked, 0)} minutes are played"
    if found.planned:
        sentence += f", {decimal(found.planned, 0)} lie on the days to come"
        sentence += f", up to {decimal(more, 0)} more a day" if more > 0 else ""
    sentence += "."
    if found.unplaced:
        sentence += f" {decimal(found.unplaced, 0)} find no room under {plan.most_a_day} a day."
    return PlanShape(
        plan=plan,
        asked=decimal(found.asked, 0),
        done=decimal(found.done, 0),
        planned=decimal(found.planned, 0),
        unplaced=decimal(found.unplaced, 0) if found.unplaced else "",
        ends=told(found.ends),
        fits=told(found.fits) if found.fits else "",
        fits_date=found.fits.isoformat() if found.fits else "",
        sentence=sentence,
    )


def _stands(one: Stands) -> StandsShape:
    stood = one.stood
    drill = stood.climb.drill.drill
    sign = meter_named(drill.meter).sign
    return StandsShape(
        climb=climb_shape(stood),
        clean=f"{sign} = {label(one.clean.bpm)}" if one.clean else "",
        nps=short(one.nps, 1) if one.nps is not None else "",
        click=(stood.here.click or drill.click).words,
        weak=[weak.words for weak in one.weak[:3]],
    )


def _going(page: StudentPage) -> GoingShape:
    one, found = page.going, page.forecast
    assert one is not None
    assert found is not None
    peak = peak_of_drill(one.stood.climb.drill.drill)
    target = one.stood.rungs[-1].nps
    return GoingShape(
        climb_id=one.stood.climb.id,
        title=one.stood.climb.title,
        points=[
            SpeedPointShape(
                at=take.played_at.isoformat(),
                nps=float(nps_of(take, peak)),
                label=f"{short(nps_of(take, peak), 1)} n/s at {label(take.bpm)}",
                mark=take.mark,
            )
            for take in one.speeds
        ],
        target=float(target),
        target_label=short(target, 1),
        weeks=_expected(found, page.today),
        sentence=next_words(page),
        is_silent=found.silent is not None,
    )


def _expected(found: Forecast, today: date) -> list[ExpectedShape]:
    return [
        ExpectedShape(
            at=(today + timedelta(weeks=one.week)).isoformat(),
            week=one.week,
            low=one.low,
            middle=one.middle,
            high=one.high,
        )
        for one in found.weeks
    ]
