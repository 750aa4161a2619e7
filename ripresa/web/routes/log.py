"""The log: what happened, as a list, as points over time, and as CSV."""

from collections.abc import Iterator
from itertools import islice

from flask import Response, stream_with_context
from pydantic import BaseModel

from ripresa.core.exact import label, short
from ripresa.core.takes import MARK_WORDS, SOURCES, Mark
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.web.shapes.takes import measured_words
from ripresa.work.log import MOST_SHOWN, Moved, PlayedTake, log_lines, log_of

api = blueprint("log")


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
    can_be_judged: bool


class PlayedShape(BaseModel):
    """A take as a point: when, how fast at the drill's fastest division, and how it went."""

    at: str
    nps: float
    label: str
    mark: Mark
    title: str


class OwnPartShape(BaseModel):
    """A part of a drill that was practised by itself, and how far it has come."""

    title: str
    name: str
    takes: int
    last_clean: str


class LogShape(BaseModel):
    """A student's log, the newest first; points oldest first."""

    student: StudentShape
    entries: list[EntryShape]
    points: list[PlayedShape]
    parts: list[OwnPartShape]
    takes: int
    last_clean: str


@api.get("/log", responses={200: LogShape})
def show_log(query: LogQuery) -> Response:
    """The log of a student."""
    found = log_of(query.student_id)
    entries = [_take_entry(played) for played in found.takes[:MOST_SHOWN]]
    entries += [_move_entry(moved) for moved in found.moves]
    entries.sort(key=lambda entry: entry.at, reverse=True)
    return answer(
        LogShape(
            student=student_shape(found.student),
            entries=entries[:MOST_SHOWN],
            points=[point for played in reversed(found.takes) if (point := _point(played))],
            parts=[
                OwnPartShape(
                    title=title,
                    name=part.name,
                    takes=part.takes,
                    last_clean=f"{label(part.last_clean)} bpm" if part.last_clean else "",
                )
                for title, part in found.parts
            ],
            takes=found.count,
            last_clean=_speed(found.last_clean) if found.last_clean else "",
        )
    )


@api.get("/log.csv")
def save_log(query: CsvQuery) -> Response:
    """The log as CSV, sent while it is written."""
    lines = log_lines(query.student_id)
    response = Response(stream_with_context(batched(lines)), mimetype="text/csv; charset=utf-8")
    response.headers.set("Content-Disposition", "attachment", filename="ripresa-log.csv")
    return response


def batched(lines: Iterator[str], most: int = 200) -> Iterator[str]:
    """Yield lines some at a time: each piece is sent by itself."""
    while piece := "".join(islice(lines, most)):
        yield piece


def _take_entry(played: PlayedTake) -> EntryShape:
    take = played.take
    return EntryShape(
        at=take.played_at.isoformat(),
        kind="take",
        title=played.title,
        heading=f"{MARK_WORDS[take.mark]} at {label(take.bpm)} bpm" + (f", {take.part_name}" if take.part_name else ""),
        sentence=" ".join([*take.reasons, f"From {SOURCES[take.source][0]}."]),
        mark=take.mark,
        take_id=take.id,
        note=take.note,
        measured=measured_words(take),
        can_be_judged=take.source != "by_ear",
    )


def _move_entry(moved: Moved) -> EntryShape:
    move = moved.move
    word = {"up": "up one rung", "back": "back one rung", "stay": "stay"}[move.decision]
    overruled = "" if move.offered == move.decision else f" The rule said {move.offered}."
    return EntryShape(
        at=move.made_at.isoformat(),
        kind="move",
        title=moved.title,
        heading=f"{word}: rung {move.from_rung} → {move.to_rung}",
        sentence=move.reason + overruled,
        mark=None,
        take_id=move.take_id,
        note="",
        measured="",
        can_be_judged=False,
    )


def _point(played: PlayedTake) -> PlayedShape | None:
    if played.nps is None:
        return None
    return PlayedShape(
        at=played.take.played_at.isoformat(),
        nps=float(played.nps),
        label=_speed(played),
        mark=played.take.mark,
        title=played.title,
    )


def _speed(played: PlayedTake) -> str:
    at = f"{label(played.take.bpm)} bpm"
    return at if played.nps is None else f"{short(played.nps)} n/s at {at}"
