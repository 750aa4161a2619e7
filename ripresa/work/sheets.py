"""Hand-outs: composed of a climb or a drill, issued and kept as they were, compared with what stands now."""

from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from hashlib import sha256

from ripresa.core.climbs import BpmTarget, ClimbPlan, Rung
from ripresa.core.drill import STEPS, Drill
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, capital, decimal, label, plural, short
from ripresa.core.plans import WEEKDAYS, told
from ripresa.core.reading import Reading, read, with_click
from ripresa.core.reports import brief_runs, dial, sums
from ripresa.core.studio import Climb, KeptDrill, Paper, Student, care_for
from ripresa.formats.drill_file import write_drill
from ripresa.formats.engraver import Engraver
from ripresa.formats.notation import Form, strung, write_score
from ripresa.formats.sheet import DayBox, Picture, RungLine, Sheet, Shows, rail_rows
from ripresa.store import climbs, drills, sheets
from ripresa.store.sheets import KeptSheet
from ripresa.work.climbs import as_it_stands, ladder
from ripresa.work.students import plan_of
from ripresa.work.written import in_words

#: Rungs that paper has room for, and boxes to tick beside each.
MOST_RUNGS, _BOXES = 8, 4
#: Notes up to which a drill is engraved for paper.
_MOST_NOTES = 700
#: How wide notation is engraved, in pixels of the screen, up to how many notes: many are smaller than few.
_ENGRAVED, _ENGRAVED_LARGE = ((200, 980), (400, 1250), (_MOST_NOTES, 1500)), 680
LONGEST_NOTE = 1000
_MOST_FITS = 4
CLEAN = "Clean is: no note left out, none too many, and you could talk to someone while it goes on."


@dataclass(frozen=True, slots=True)
class Options:
    """How a sheet is to be.

    Args:
        shows: The rail, notation, or both; form: the staves. note: What the teacher writes in.
        large: For who reads large print.
    """

    shows: Shows = "rail"
    form: Form | None = None
    paper: Paper = "A4"
    large: bool = False
    note: str = ""

    def __post_init__(self) -> None:
        if len(self.note) > LONGEST_NOTE:
            raise OutOfRange(f"What is written on a sheet has up to {LONGEST_NOTE:,} signs.", field="note")


@dataclass(frozen=True, slots=True)
class Subject:
    """What a sheet is made of: a drill as the student plays it, with the climb if there is one."""

    kept: KeptDrill
    climb: Climb | None = None

    @property
    def student_id(self) -> int | None:
        """Whom it is for; None for nobody in particular."""
        return self.climb.student.id if self.climb else None

    @property
    def mark(self) -> str:
        """A sign that is the same as long as nobody edits the drill, the plan, or what the student plays otherwise."""
        plan = climbs.plan_text(self.climb.plan) if self.climb else ""
        return sha256(f"{write_drill(self.kept.drill)}\n{plan}".encode()).hexdigest()[:16]


def subject_of(climb_id: int | None, drill_id: int | None, version: int | None) -> Subject:
    """Return what a sheet is asked for of: a climb, or a version of a drill.

    Raises:
        NotFound: There is none such. OutOfRange: Neither is named.
    """
    if climb_id is not None:
        climb = climbs.find_climb(climb_id)
        return Subject(climb.drill, climb)
    if drill_id is None:
        raise OutOfRange("Name a climb or a drill for the sheet.", field="climb_id")
    return Subject(drills.find_drill(drill_id, version))


def compose(subject: Subject, options: Options, now: datetime, engraver: Engraver) -> Sheet:
    """Return the sheet of a climb or a drill as it stands now, before it has a number."""
    drill, climb = subject.kept.drill, subject.climb
    reading = read(drill)
    issued = f"{now.day} {now:%B %Y} · version {subject.kept.version}"
    sheet = replace(_for_anyone(reading, options, engraver), issued=issued)
    if climb is None:
        return sheet
    student = climb.student
    stood = as_it_stands(climb.id)
    sheet = replace(
        sheet,
        whom=f"for {student.details.name}, {drill.plays_on.name}",
        differs=climb.differs,
        moving=climb.plan.moving_words,
        foot=("", next_lesson_of(student, now.date())),
    )
    return _with_days(_with_rungs(sheet, reading, stood.rungs, climb.rung), student, now)


def of_drill(drill: Drill, options: Options, engraver: Engraver, plan: ClimbPlan | None = None) -> Sheet:
    """Return the sheet of a drill for anyone; with a plan, its rungs too."""
    reading = read(drill)
    sheet = _for_anyone(reading, options, engraver)
    if plan is None:
        return sheet
    return _with_rungs(replace(sheet, moving=plan.moving_words), reading, ladder(plan, drill).rungs, None)


def _for_anyone(reading: Reading, options: Options, engraver: Engraver) -> Sheet:
    with ThreadPoolExecutor(1) as beside:
        # Another process draws the notation: meanwhile the rest is worked out.
        notation = beside.submit(_notation, reading, options, engraver)
        return replace(_but_notation(reading, options), notation=notation.result())


def _but_notation(reading: Reading, options: Options) -> Sheet:
    drill = reading.drill
    rails, more = rail_rows(reading, large=options.large) if options.shows != "notation" else ([], "")
    return Sheet(
        paper=options.paper,
        large=options.large,
        title=drill.title,
        whom=f"for {drill.plays_on.name}",
        issued="",
        purpose=drill.purpose,
        brief=brief_runs(reading),
        before=tuple(_before(drill)),
        cues=tuple(cue.told for cue in drill.cues),
        rails=tuple(Picture(row.picture, row.words) for row in rails),
        more=more,
        fit=tuple(_fit(reading)),
        clean=CLEAN,
        care=tuple(care_for(drill.plays_on, [drill])),
        note=options.note.strip(),
    )


def _before(drill: Drill) -> Iterator[str]:
    """Yield what to do first: the way in, or the three things that are always right."""
    if drill.way_in:
        for step in drill.way_in:
            name, why = STEPS[step]
            counted = next((one.counting for one in drill.stage_counts if one.step == step), None)
            said = f" Counted {counted.words}." if counted else ""
            yield f"{capital(name)}: {why[:1].lower()}{why[1:]}{said}"
        return
    yield "Listen to one bar of click and feel the 1."
    yield "Say the count aloud, a bar of each line."
    yield "Play as slowly as it takes to be clean."


def _notation(reading: Reading, options: Options, engraver: Engraver) -> tuple[Picture, ...]:
    if options.shows == "rail":
        return ()
    if len(reading.every) > _MOST_NOTES:
        raise OutOfRange(
            f"Up to {_MOST_NOTES} notes and rests are engraved on paper, not {len(reading.every)}. Take the rail.",
            field="shows",
        )
    score = write_score(strung(reading), reading.drill.bpm, options.form, for_drawing=True)
    usual = next(width for most, width in _ENGRAVED if len(reading.every) <= most)
    width = _ENGRAVED_LARGE if options.large else usual
    return (Picture(engraver.draw(score.body, width), in_words(reading)),)


def _fit(reading: Reading) -> Iterator[str]:
    """Yield how each leg fits the bar, and how a change of division feels, each once."""
    found = sums(reading, reading.drill.bpm)
    several = len({row.leg.divisions for row in found.legs}) > 1
    said = dict.fromkeys(
        (f"{label(row.leg.division)} a beat: " if several else "") + row.fit.sentence for row in found.legs
    )
    yield from list(said)[:_MOST_FITS]
    if several:
        yield "From one division to the next the beat does not move."


def around(rungs: tuple[Rung, ...], here: int) -> tuple[Rung, ...]:
    """Return the rungs that a sheet has room for: the present one and those that come, or the last ones."""
    begin = max(0, min(here - 1, len(rungs) - MOST_RUNGS))
    return rungs[begin : begin + MOST_RUNGS]


def _with_rungs(sheet: Sheet, reading: Reading, rungs: tuple[Rung, ...], here: int | None) -> Sheet:
    """Return a sheet with its rungs, and what the first click of each means; of a climb as many as there is room for.

    Args:
        here: The present rung; None where nobody climbs yet, and all of them are shown.
    """
    shown = rungs if here is None else around(rungs, here)
    lines, first = [], []
    for rung in shown:
        metronome, first_click = _setting(reading, rung)
        first.append(first_click)
        lines.append(
            RungLine(
                tempo=label(rung.bpm),
                metronome=metronome,
                speed=decimal(rung.nps, 1),
                click=rung.click.words if rung.click else "",
                what=rung.words,
                boxes=_BOXES,
                is_now=rung.number == here,
            )
        )
    left = len(rungs) - len(shown)
    told_rungs = f"rungs {shown[0].number} to {shown[-1].number} of {len(rungs)}" if left else ""
    return replace(
        sheet,
        sign=reading.meter.sign,
        rungs=tuple(lines),
        rungs_told=told_rungs,
        first_click=" ".join(one for one in dict.fromkeys(first) if one),
    )


def _setting(reading: Reading, rung: Rung) -> tuple[str, str]:
    """Return what to set on an ordinary metronome, in short, and what its first click means where that is not 1."""
    played = with_click(reading, rung.click) if rung.click else reading
    found = dial(played.click_cycle, reading.meter, rung.bpm)
    if found.clicks_a_minute is None:
        return ("off" if found.first_click is None else "no single setting"), ""
    first = f"The first click is {found.first_click}." if found.first_click != "beat 1" else ""
    shown = short(found.clicks_a_minute)
    return (f"{shown}, below most" if found.is_below_lowest else shown), first


def _with_days(sheet: Sheet, student: Student, now: datetime) -> Sheet:
    """Return a sheet with the seven days from today on as boxes, where a plan has minutes in them."""
    planned = plan_of(student, now)
    if student.plan is None or planned is None:
        return sheet
    today = now.date()
    by_day = {day.date: day for day in planned.days}
    week = [today + timedelta(days=ahead) for ahead in range(7)]
    boxes = []
    for one in week:
        found = by_day.get(one)
        minutes = found.planned if found else Fraction(0)
        boxes.append(DayBox(_day_name(one), f"{label(Fraction(round(minutes)))} min" if minutes else ""))
    if not any(box.minutes for box in boxes):
        return sheet
    week_told = f"{plural(student.plan.minutes, 'minute')}, {plural(student.plan.days_a_week, 'day')} of 7"
    return replace(sheet, days=tuple(boxes), week=week_told)


def _day_name(day: date) -> str:
    return f"{WEEKDAYS[day.weekday()][:2]} {day.day}"


def next_lesson_of(student: Student, today: date) -> str:
    """Return when the next lesson is, today's not counted; empty where nobody knows."""
    ahead = next((days for days in range(1, 29) if student.details.has_lesson(today + timedelta(days=days))), None)
    if ahead is None:
        return ""
    time = f", {student.details.lesson_time}" if student.details.lesson_time else ""
    return f"next lesson {told(today + timedelta(days=ahead))}{time}"


def issue(subject: Subject, sheet: Sheet, now: datetime, key: str | None = None) -> KeptSheet:
    """Keep a sheet as it is handed out, under the next number of its drill and student."""
    return sheets.add_sheet(
        drill_id=subject.kept.id,
        version=subject.kept.version,
        student_id=subject.student_id,
        climb_id=subject.climb.id if subject.climb else None,
        mark=subject.mark,
        sheet=sheet,
        now=now,
        key=key,
    )


def differs_from(subject: Subject) -> str:
    """Return how what stands now differs from the sheet that was issued last; empty where it does not."""
    issued = issued_of(subject)
    if not issued or issued[0].mark == subject.mark:
        return ""
    return f"It differs from sheet {issued[0].number}: the drill or the plan was changed since."


def issued_of(subject: Subject) -> list[KeptSheet]:
    """Return the sheets of a drill that were issued to its student, the newest first."""
    return sheets.sheets_of(subject.kept.id, subject.student_id)


def number_of(subject: Subject) -> int:
    """Return the number under which the next sheet of a drill will be issued to its student."""
    return sheets.next_number(subject.kept.id, subject.student_id)


def plan_to(drill: Drill, start: Fraction | None, target: Fraction) -> ClimbPlan:
    """Return a plan from a start, the drill's own tempo if none is said, to a target."""
    return ClimbPlan(start=start or drill.bpm, target=BpmTarget(target))
