"""The log: what happened, as a list, as points over time, and as CSV."""

from collections.abc import Iterator, Sequence
from fractions import Fraction
from functools import cache
from itertools import islice

from flask import Response, stream_with_context
from pydantic import BaseModel

from ripresa.core.drill import Drill
from ripresa.core.errors import Unreadable
from ripresa.core.exact import label, short
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import speed_nps
from ripresa.core.studio import Move, TakeLine
from ripresa.core.takes import SOURCES, Mark
from ripresa.formats.log_csv import write_log
from ripresa.store import climbs, drills, students, takes
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.web.shapes.takes import measured_words

api = blueprint("log")

#: Entries of the list, and points of the picture: the last ones.
_MOST_SHOWN, _MOST_POINTS = 200, 500

Played = dict[tuple[int, int], tuple[str, Fraction]]
#: Stands where a drill cannot be read; its speed is then that of one note a beat.
_UNKNOWN = ("a drill that cannot be read", Fraction(1))


class LogQuery(BaseModel):
    """Whose log."""

    student_id: Id


class CsvQuery(BaseModel):
    """Whose log; everyone's if left out."""

    student_id: Id | None = None


class EntryShape(BaseModel):
    """A take or a move, as a line of the log."""

    at: str
    kind: str
    title: str
    heading: str
    sentence: str
    mark: Mark | None
    take_id: str | None
    note: str
    measured: str


class PlayedShape(BaseModel):
    """A take as a point: when, how fast at the drill's fastest division, and how it went."""

    at: str
    nps: float
    label: str
    mark: Mark
    title: str


class LogShape(BaseModel):
    """A student's log, the newest first; points oldest first."""

    student: StudentShape
    entries: list[EntryShape]
    points: list[PlayedShape]
    takes: int
    last_clean: str


@api.get("/log", responses={200: LogShape})
def show_log(query: LogQuery) -> Response:
    """The log of a student."""
    student = students.find_student(query.student_id)
    found = takes.take_lines(student_id=student.id, most=_MOST_POINTS)
    own = {climb.id: climb for climb in climbs.all_climbs(student.id)}
    titles = _titles(found)
    entries = [_take_entry(take, titles) for take in found[:_MOST_SHOWN]]
    moves = climbs.moves_of(list(own), _MOST_SHOWN)
    entries += [_move_entry(move, own[move.climb_id].drill.drill.title) for move in moves]
    entries.sort(key=lambda entry: entry.at, reverse=True)
    clean = takes.last_clean(student.id)
    return answer(
        LogShape(
            student=student_shape(student),
            entries=entries[:_MOST_SHOWN],
            points=[_point(take, titles) for take in reversed(found)],
            takes=takes.count_takes(student.id),
            last_clean=_point(clean, _titles([clean])).label if clean else "",
        )
    )


@api.get("/log.csv")
def save_log(query: CsvQuery) -> Response:
    """The log as CSV, sent while it is written."""
    if query.student_id is not None:
        students.find_student(query.student_id)
    names = {student.id: student.details.name for student in students.all_students()}
    lines = write_log(takes.every_take(query.student_id), lambda one: names.get(one, ""), cache(_drill))
    response = Response(stream_with_context(batched(lines)), mimetype="text/csv; charset=utf-8")
    response.headers.set("Content-Disposition", "attachment", filename="ripresa-log.csv")
    return response


def batched(lines: Iterator[str], most: int = 200) -> Iterator[str]:
    """Yield lines some at a time: each piece is sent by itself."""
    while piece := "".join(islice(lines, most)):
        yield piece


def _drill(drill_id: int, version: int) -> Drill | None:
    try:
        return drills.find_drill(drill_id, version).drill
    except Unreadable:
        return None


def _titles(found: Sequence[TakeLine]) -> Played:
    """Return (title, notes per beat at its peak) of each drill version that was played."""
    kept = {key: _drill(*key) for key in {(take.drill_id, take.version) for take in found}}
    return {key: (drill.title, peak_of_drill(drill)) if drill else _UNKNOWN for key, drill in kept.items()}


def _take_entry(take: TakeLine, titles: Played) -> EntryShape:
    return EntryShape(
        at=take.played_at.isoformat(),
        kind="take",
        title=titles[take.drill_id, take.version][0],
        heading=f"{take.mark} at {label(take.bpm)} bpm",
        sentence=" ".join([*take.reasons, f"From {SOURCES[take.source][0]}."]),
        mark=take.mark,
        take_id=take.id,
        note=take.note,
        measured=measured_words(take),
    )


def _move_entry(move: Move, title: str) -> EntryShape:
    word = {"up": "up one rung", "back": "back one rung", "stay": "stay"}[move.decision]
    overruled = "" if move.offered == move.decision else f" The rule said {move.offered}."
    return EntryShape(
        at=move.made_at.isoformat(),
        kind="move",
        title=title,
        heading=f"{word}: rung {move.from_rung} → {move.to_rung}",
        sentence=move.reason + overruled,
        mark=None,
        take_id=move.take_id,
        note="",
        measured="",
    )


def _point(take: TakeLine, titles: Played) -> PlayedShape:
    title, per_beat = titles[take.drill_id, take.version]
    nps = speed_nps(take.bpm, per_beat)
    return PlayedShape(
        at=take.played_at.isoformat(),
        nps=float(nps),
        label=f"{short(nps)} n/s at {label(take.bpm)} bpm",
        mark=take.mark,
        title=title,
    )
