"""The recap at the end of a lesson: what was played, what stands, what comes next, and the words used; as text."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime

from ripresa.core.exact import capital, label, plural
from ripresa.core.rhythm import meter_named
from ripresa.core.studio import Student, parse_glossary, words_used
from ripresa.store import students
from ripresa.store.practice import notes_since
from ripresa.store.settings import studio_settings
from ripresa.work.days import begin_of
from ripresa.work.sheets import next_lesson_of
from ripresa.work.standing import Stands, stands_of

#: Climbs that stand which are told, the last played first, and notes of today.
MOST_TOLD, MOST_NOTES = 6, 10


@dataclass(frozen=True, slots=True)
class Section:
    """A part of a recap: its heading, and its lines."""

    title: str
    lines: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Recap:
    """A lesson in a few lines, ready to be changed, printed or pasted into a message."""

    title: str
    sections: tuple[Section, ...]

    @property
    def text(self) -> str:
        """All of it."""
        parts = ("\n".join((one.title, *(f"- {line}" for line in one.lines))) for one in self.sections)
        return "\n\n".join((self.title, *parts)) + "\n"


def recap_of(student_id: int, now: datetime) -> Recap:
    """Return the recap of a student's day.

    Raises:
        NotFound: There is no such student.
    """
    student = students.find_student(student_id)
    stands = stands_of(student_id)
    begin = begin_of(now.date(), now.tzinfo)
    sections = [
        Section("Played", tuple(_played(stands, begin)) or ("Nothing was measured today.",)),
        Section("Written", tuple(_written(student, begin))),
        Section("What stands", tuple(_standing(one) for one in stands[:MOST_TOLD])),
        Section("Next", tuple(_next(student, stands, now))),
    ]
    said = "\n".join(line for section in sections for line in section.lines)
    used = words_used(said, parse_glossary(studio_settings().glossary))
    sections.append(Section("Words", tuple(f"{one.word}: {one.meaning}" for one in used)))
    title = f"{student.details.name}, {now.day} {now:%B %Y}"
    return Recap(title, tuple(section for section in sections if section.lines))


def _played(stands: Sequence[Stands], begin: datetime) -> Iterator[str]:
    """Yield what was played today, climb by climb: from which tempo to which, and how many takes were clean."""
    for one in stands:
        takes = [take for take in one.speeds if take.played_at >= begin]
        if not takes:
            continue
        tempi = sorted({take.bpm for take in takes})
        sign = meter_named(one.stood.climb.drill.drill.meter).sign
        span = label(tempi[0]) if len(tempi) == 1 else f"{label(tempi[0])} to {label(tempi[-1])}"
        clean = sum(take.mark == "clean" for take in takes)
        yield f"{one.stood.climb.title}: {plural(len(takes), 'take')} at {sign} = {span}, {clean} clean."


def _written(student: Student, begin: datetime) -> Iterator[str]:
    for said in notes_since({student.id: begin}, MOST_NOTES)[student.id]:
        yield f"{'Asked' if said.by == 'student' else 'Written'}: “{said.note}”"


def _standing(one: Stands) -> str:
    stood = one.stood
    sign = meter_named(stood.climb.drill.drill.meter).sign
    here = f"rung {stood.climb.rung} of {len(stood.rungs)}, {sign} = {label(stood.here.bpm)}"
    clean = f"; last clean at {label(one.clean.bpm)}" if one.clean else ""
    weak = f"; weak: {one.weak[0].words}" if one.weak else ""
    return f"{stood.climb.title}: {here}{clean}{weak}."


def _next(student: Student, stands: Sequence[Stands], now: datetime) -> Iterator[str]:
    """Yield what comes next: the step of each climb, what is practised in a week, and the next lesson."""
    for one in stands[:MOST_TOLD]:
        if one.stood.next_sentence:
            yield f"{one.stood.climb.title}: {one.stood.next_sentence}."
    if student.plan:
        yield f"{plural(student.plan.minutes, 'minute')} on {plural(student.plan.days_a_week, 'day')} of the week."
    lesson = next_lesson_of(student, now.date())
    if lesson:
        yield f"{capital(lesson)}."
