"""The log of a student: what was played and decided, and how fast."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from functools import cache

from ripresa.core.drill import Drill
from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import speed_nps
from ripresa.core.studio import Climb, Move, PartStanding, Student, TakeLine
from ripresa.core.takes import Mark, pooled_faults
from ripresa.formats.log_csv import write_log
from ripresa.store import climb_lists, climbs, drills, students, takes
from ripresa.store.practice import Practised, faults_of, practised_days
from ripresa.work.days import begin_of, monday_of

#: Entries of the list, and points of the picture: the last ones.
MOST_SHOWN, MOST_POINTS = 200, 500
#: Weeks that are added up, and takes over which faults are pooled, twice: lately, and before.
MOST_WEEKS, MOST_POOLED = 12, 14
_NO_TITLE = "a drill that cannot be read"


@dataclass(frozen=True, slots=True)
class PlayedTake:
    """A take with the title of its drill and its notes a second, where the drill is fastest; None if it is unread."""

    take: TakeLine
    title: str
    nps: Fraction | None


@dataclass(frozen=True, slots=True)
class Moved:
    """A move with the title of the drill that is climbed."""

    move: Move
    title: str


@dataclass(frozen=True, slots=True)
class StudentLog:
    """A student's log: the last takes and moves, newest first; how many takes there are; the last clean one.

    ``parts`` are (title of the drill, how far a part of it has come), the last played first; ``weeks`` what was played
    in each, by its Monday; ``weak`` (title, what with how often, how it was before).
    """

    student: Student
    takes: tuple[PlayedTake, ...]
    moves: tuple[Moved, ...]
    count: int
    last_clean: PlayedTake | None
    parts: tuple[tuple[str, PartStanding], ...]
    weeks: tuple[tuple[date, Practised], ...]
    weak: tuple[tuple[str, str, str], ...]
    climbs: tuple[Climb, ...]


@dataclass(frozen=True, slots=True)
class Filters:
    """What of a log is shown: a climb, a mark, whose ear, from which day on; all of it where nothing is said."""

    climb_id: int | None = None
    mark: Mark | None = None
    by: str | None = None
    since: date | None = None


def log_of(student_id: int, now: datetime, only: Filters) -> StudentLog:
    """Return the log of a student.

    Raises:
        NotFound: There is no such student.
    """
    student = students.find_student(student_id)
    own = {climb.id: climb for climb in climb_lists.all_climbs(student.id)}
    shown = [only.climb_id] if only.climb_id in own else list(own)
    since = begin_of(only.since, now.tzinfo) if only.since else None
    clean = takes.last_clean(student.id)
    drill_of = cache(_drill)
    return StudentLog(
        student=student,
        takes=_with_speed(
            takes.take_lines(
                student_id=student.id,
                climb_id=only.climb_id,
                mark=only.mark,
                by=only.by,
                since=since,
                most=MOST_POINTS,
            ),
            drill_of,
        ),
        moves=tuple(
            Moved(move, own[move.climb_id].title)
            for move in climbs.moves_of(shown, MOST_SHOWN)
            if only.mark is None and only.by is None and (since is None or move.made_at >= since)
        ),
        count=takes.count_takes(student.id),
        last_clean=_with_speed([clean], drill_of)[0] if clean else None,
        parts=tuple(
            (drill.title if (drill := drill_of(part.drill_id, part.version)) else _NO_TITLE, part)
            for part in takes.part_standings(student.id)
        ),
        weeks=_weeks(student.id, now),
        weak=_weak({climb_id: own[climb_id] for climb_id in shown}),
        climbs=tuple(own.values()),
    )


def _weeks(student_id: int, now: datetime) -> tuple[tuple[date, Practised], ...]:
    """Return the last weeks that anything was played in, by their Monday, the newest first."""
    begin = begin_of(monday_of(now.date()) - timedelta(weeks=MOST_WEEKS - 1), now.tzinfo)
    found: dict[date, Practised] = {}
    for day, played in practised_days(student_id, begin, now + timedelta(days=1), now.tzinfo).items():
        week = monday_of(day)
        found[week] = found.get(week, Practised()) + played
    return tuple(sorted(found.items(), reverse=True))


def _weak(own: Mapping[int, Climb]) -> tuple[tuple[str, str, str], ...]:
    """Return (title, what is weak with how often, how it was before) over the last takes and those before them."""
    found = []
    for climb_id, takes_of in faults_of(list(own), 2 * MOST_POOLED).items():
        lately, before = pooled_faults(takes_of[:MOST_POOLED]), pooled_faults(takes_of[MOST_POOLED:])
        earlier = {one.name: one for one in before}
        for weak in lately[:3]:
            was = earlier.get(weak.name)
            told = (
                f"before: {was.takes} of {was.of}"
                if was
                else ("not before" if before or takes_of[MOST_POOLED:] else "")
            )
            found.append((own[climb_id].title, weak.words, told))
    return tuple(found)


def log_lines(student_id: int | None) -> Iterator[str]:
    """Return the log of a student, or of all, as lines of CSV, made one by one.

    Raises:
        NotFound: There is no such student.
    """
    if student_id is not None:
        students.find_student(student_id)
    names = students.names_of_all()
    return write_log(takes.every_take(student_id), lambda one: names.get(one, ""), cache(_drill))


def _drill(drill_id: int, version: int) -> Drill | None:
    try:
        return drills.find_drill(drill_id, version).drill
    except Unreadable:
        return None


def _with_speed(found: Sequence[TakeLine], drill_of: Callable[[int, int], Drill | None]) -> tuple[PlayedTake, ...]:
    rows = []
    for take in found:
        drill = drill_of(take.drill_id, take.version)
        nps = speed_nps(take.bpm, peak_of_drill(drill)) if drill else None
        rows.append(PlayedTake(take, drill.title if drill else _NO_TITLE, nps))
    return tuple(rows)
