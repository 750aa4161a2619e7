"""What matters in a lesson: what stood, what broke, what was asked, and what was played today."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from ripresa.core.exact import label, plural
from ripresa.core.plans import WEEKDAYS
from ripresa.core.studio import Student
from ripresa.store.practice import (
    Said,
    SpeedOf,
    notes_since,
)
from ripresa.work.days import begin_of
from ripresa.work.standing import MOST_POOLED, Stands, stands_by_student

#: Notes since the last lesson that are shown.
MOST_SAID = 3


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


def next_lessons(found: Sequence[Student], now: datetime) -> dict[int, NextLesson]:
    """Return what matters before the next lesson of some students, in as many questions as for one."""
    if not found:
        return {}
    since = {student.id: last_lesson(student, now) for student in found}
    stands = stands_by_student([student.id for student in found], min(since.values()), MOST_POOLED)
    said = notes_since(since, MOST_SAID)
    return {one.id: next_lesson(one, stands[one.id], said[one.id], since[one.id], now) for one in found}


def next_lesson(
    student: Student, stands: Sequence[Stands], said: Sequence[Said], since: datetime, now: datetime
) -> NextLesson:
    """Return what matters before the next lesson, from what happened since the last one.

    Args:
        said: Notes that were written since. since: The day of the last lesson.
    """
    today = now.date()
    ahead = next((day for day in range(29) if _lesson(student, -day, today)), None)
    lately = [(one, [take for take in one.speeds if take.played_at >= since]) for one in stands]
    clean = [(one, takes) for one, takes in lately if any(take.mark == "clean" for take in takes)]
    return NextLesson(
        day=today + timedelta(days=ahead) if ahead is not None else None,
        stood=" ".join(_stood(one, takes, now) for one, takes in clean[:2]),
        recap=_recap(stands, now),
        broke=_broke([one for one, takes in lately if any(take.mark == "shaky" for take in takes)]),
        asked=tuple(said),
    )


def _recap(stands: Sequence[Stands], now: datetime) -> str:
    """Return what was played today: how many takes, how many clean, how far up, and where the climb stands now."""
    begin = begin_of(now.date(), now.tzinfo)
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


def last_lesson(student: Student, now: datetime) -> datetime:
    """Return the beginning of the day of the last lesson before today, or of a week ago where there was none."""
    today = now.date()
    before = next((today - timedelta(days=back) for back in range(1, 29) if _lesson(student, back, today)), None)
    return begin_of(before or today - timedelta(days=7), now.tzinfo)


def _lesson(student: Student, back: int, today: date) -> bool:
    return student.details.has_lesson(today - timedelta(days=back))


def _stood(one: Stands, takes: Sequence[SpeedOf], now: datetime) -> str:
    """Return how often the fastest clean tempo was clean, and since when: ``Slip steps: 2 clean takes at 84 …``."""
    clean = [take for take in takes if take.mark == "clean"]
    best = max(take.bpm for take in clean)
    there = [take for take in clean if take.bpm == best]
    first = min(take.played_at for take in there).astimezone(now.tzinfo).date()
    days = (now.date() - first).days
    day = WEEKDAYS[first.weekday()] if days < 7 else f"{first.day} {first:%B}"
    since = f"since {day}" if days else "today"
    return f"{one.stood.climb.title}: {plural(len(there), 'clean take')} at {label(best)} {since}."


def _broke(shaky: Sequence[Stands]) -> str:
    weak = next((one for one in shaky if one.weak), None)
    if weak is not None:
        return f"{weak.stood.climb.title}: {weak.weak[0].words}."
    if shaky:
        count = sum(take.mark == "shaky" for take in shaky[0].speeds[-10:])
        return f"{shaky[0].stood.climb.title}: {plural(count, 'shaky take')} of the last ten."
    return ""
