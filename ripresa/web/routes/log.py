"""The log: what happened, as a list, as points over time, and as CSV."""

from fractions import Fraction

from flask import Response
from flask_openapi import APIBlueprint
from pydantic import BaseModel

from ripresa.core.exact import decimal, label
from ripresa.core.studio import Move, Take
from ripresa.core.takes import Mark
from ripresa.core.takes.judge import SOURCES
from ripresa.core.tempo import speed_nps
from ripresa.formats.log_csv import write_log
from ripresa.store import climbs, drills, students, takes
from ripresa.web.answers import answer, download
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.web.shapes.takes import FiguresShape, take_shape

api = APIBlueprint("log", __name__, url_prefix="/api")

_MOST_SHOWN = 200

Played = dict[tuple[int, int], tuple[str, Fraction]]


class LogQuery(BaseModel):
    """Whose log."""

    student_id: int


class CsvQuery(BaseModel):
    """Whose log; everyone's if left out."""

    student_id: int | None = None


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
    figures: FiguresShape | None


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
    found = takes.all_takes(student_id=student.id)
    own = {climb.id: climb for climb in climbs.all_climbs(student.id)}
    titles = _titles(found)
    entries = [_take_entry(take, titles) for take in found]
    entries += [_move_entry(move, own[move.climb_id].drill.drill.title) for move in climbs.moves_of(list(own))]
    entries.sort(key=lambda entry: entry.at, reverse=True)
    points = [_point(take, titles) for take in found]
    clean = [point for point in points if point.mark == "clean"]
    return answer(
        LogShape(
            student=student_shape(student),
            entries=entries[:_MOST_SHOWN],
            points=points,
            takes=len(found),
            last_clean=clean[-1].label if clean else "",
        )
    )


@api.get("/log.csv")
def save_log(query: CsvQuery) -> Response:
    """The log as CSV."""
    if query.student_id is not None:
        students.find_student(query.student_id)
    chosen = takes.all_takes(student_id=query.student_id)
    names = {student.id: student.details.name for student in students.all_students()}
    text = write_log(chosen, names, {key: drills.find_drill(*key).drill for key in _versions(chosen)})
    return download(text, "ripresa-log.csv", "text/csv; charset=utf-8")


def _versions(found: list[Take]) -> set[tuple[int, int]]:
    return {(take.drill_id, take.version) for take in found}


def _titles(found: list[Take]) -> Played:
    """Return (title, fastest division) of each drill version that was played."""
    kept = {key: drills.find_drill(*key).drill for key in _versions(found)}
    return {key: (drill.title, drill.fastest_division) for key, drill in kept.items()}


def _take_entry(take: Take, titles: Played) -> EntryShape:
    shape = take_shape(take, "working")
    return EntryShape(
        at=shape.played_at,
        kind="take",
        title=titles[take.drill_id, take.version][0],
        heading=f"{take.mark} at {label(take.bpm)} bpm",
        sentence=" ".join([*take.reasons, f"From {SOURCES[take.source][0]}."]),
        mark=take.mark,
        take_id=take.id,
        note=take.note,
        figures=shape.figures,
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
        figures=None,
    )


def _point(take: Take, titles: Played) -> PlayedShape:
    title, division = titles[take.drill_id, take.version]
    nps = speed_nps(take.bpm, division)
    return PlayedShape(
        at=take.played_at.isoformat(),
        nps=float(nps),
        label=f"{decimal(nps, 1)} n/s at {label(take.bpm)} bpm",
        mark=take.mark,
        title=title,
    )
