"""The log of a student: what was played and decided, and how fast."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cache

from ripresa.core.drill import Drill
from ripresa.core.errors import Unreadable
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import speed_nps
from ripresa.core.studio import Move, PartStanding, Student, TakeLine
from ripresa.formats.log_csv import write_log
from ripresa.store import climbs, drills, students, takes

#: Entries of the list, and points of the picture: the last ones.
MOST_SHOWN, MOST_POINTS = 200, 500
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

    ``parts`` are (title of the drill, how far a part of it has come), the last played first.
    """

    student: Student
    takes: tuple[PlayedTake, ...]
    moves: tuple[Moved, ...]
    count: int
    last_clean: PlayedTake | None
    parts: tuple[tuple[str, PartStanding], ...]


def log_of(student_id: int) -> StudentLog:
    """Return the log of a student.

    Raises:
        NotFound: There is no such student.
    """
    student = students.find_student(student_id)
    own = {climb.id: climb for climb in climbs.all_climbs(student.id)}
    clean = takes.last_clean(student.id)
    drill_of = cache(_drill)
    return StudentLog(
        student=student,
        takes=_with_speed(takes.take_lines(student_id=student.id, most=MOST_POINTS), drill_of),
        moves=tuple(
            Moved(move, own[move.climb_id].drill.drill.title) for move in climbs.moves_of(list(own), MOST_SHOWN)
        ),
        count=takes.count_takes(student.id),
        last_clean=_with_speed([clean], drill_of)[0] if clean else None,
        parts=tuple(
            (drill.title if (drill := drill_of(part.drill_id, part.version)) else _NO_TITLE, part)
            for part in takes.part_standings(student.id)
        ),
    )


def log_lines(student_id: int | None) -> Iterator[str]:
    """Return the log of a student, or of all, as lines of CSV, made one by one.

    Raises:
        NotFound: There is no such student.
    """
    if student_id is not None:
        students.find_student(student_id)
    names = {student.id: student.details.name for student in students.all_students()}
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
