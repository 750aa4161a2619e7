"""The log: what happened, as a list, as points over time, and as CSV."""

from collections.abc import Iterator
from datetime import date
from itertools import islice
from typing import Literal

from flask import Response
from pydantic import Field

from ripresa.core.exact import label, plural, short
from ripresa.core.plans import told
from ripresa.core.takes import MARK_WORDS, SOURCES, Mark
from ripresa.formats.wire import Shape
from ripresa.store.tables import asked_row_by_row
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id
from ripresa.web.query import Query
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.web.shapes.takes import measured_words
from ripresa.work.log import MOST_SHOWN, Filters, Moved, PlayedTake, log_lines, log_of
from ripresa.work.log_in import MOST_TOLD, take_in

api = blueprint("log")


class LogQuery(Query):
    """Whose log, and what of it: a climb, a mark, whose ear, from which day on."""

    student_id: Id
    climb_id: Id | None = None
    mark: Mark | None = None
    by: Literal["teacher", "student"] | None = None
    since: date | None = None


class CsvQuery(Query):
    """Whose log; everyone's if left out."""

    student_id: Id | None = None


class EntryShape(Shape):
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
    by: str
    climb_id: int | None
    move_id: int | None


class LogWeekShape(Shape):
    """A week of a log: what was played in it."""

    name: str
    minutes: str
    takes: int
    clean: int
    shaky: int
    notes: int


class WeakShape(Shape):
    """A weak place of a drill, with how often it was met lately, and before."""

    title: str
    words: str
    before: str


class LogClimbShape(Shape):
    """A climb to filter by."""

    id: int
    title: str


class LogFileBody(Shape):
    """A log as CSV, for a student."""

    student_id: Id
    text: str = Field(max_length=6_000_000)


class LeftOutRow(Shape):
    """A row that was left out, and why."""

    line: int
    why: str


class TakenInShape(Shape):
    """What came of a log that was read in."""

    sentence: str
    left_out: list[LeftOutRow]


class PlayedShape(Shape):
    """A take as a point: when, how fast at the drill's fastest division, and how it went."""

    at: str
    nps: float
    label: str
    mark: Mark
    title: str


class OwnPartShape(Shape):
    """A part of a drill that was practised by itself, and how far it has come."""

    title: str
    name: str
    takes: int
    last_clean: str


class LogShape(Shape):
    """A student's log, the newest first; points oldest first."""

    student: StudentShape
    entries: list[EntryShape]
    points: list[PlayedShape]
    parts: list[OwnPartShape]
    takes: int
    last_clean: str
    weeks: list[LogWeekShape]
    weak: list[WeakShape]
    climbs: list[LogClimbShape]


@api.get("/log", responses={200: LogShape})
def show_log(query: LogQuery) -> Response:
    """The log of a student."""
    only = Filters(query.climb_id, query.mark, query.by, query.since)
    found = log_of(query.student_id, now(), only)
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
            weeks=[
                LogWeekShape(
                    name=told(monday),
                    minutes=f"{played.seconds / 60:.0f}",
                    takes=played.takes,
                    clean=played.clean,
                    shaky=played.shaky,
                    notes=played.notes,
                )
                for monday, played in found.weeks
            ],
            weak=[WeakShape(title=title, words=words, before=before) for title, words, before in found.weak],
            climbs=[LogClimbShape(id=one.id, title=one.title) for one in found.climbs],
        )
    )


@api.post("/log.csv", responses={200: TakenInShape})
def read_in(body: LogFileBody) -> Response:
    """Take in a log as CSV, in the columns of our own export; rows that cannot be read are listed, none is guessed."""
    found = take_in(body.student_id, body.text.encode())
    said = f"{plural(found.new, 'take')} taken in"
    said += f", {found.known} {'was' if found.known == 1 else 'were'} here already" if found.known else ""
    said += f", {plural(len(found.left_out), 'row')} left out" if found.left_out else ""
    said += (
        f". Figures of {plural(found.measured, 'take')} stay in the file: they stand on notes that a log does not hold"
        if found.measured
        else ""
    )
    told_rows = [LeftOutRow(line=one.line, why=one.why) for one in found.left_out[:MOST_TOLD]]
    return answer(TakenInShape(sentence=f"{said}.", left_out=told_rows))


@api.get("/log.csv")
def save_log(query: CsvQuery) -> Response:
    """The log as CSV, sent while it is written."""
    lines = log_lines(query.student_id)
    response = Response(asked_row_by_row(batched(lines)), mimetype="text/csv")
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
        by=take.ear_by or "",
        climb_id=take.climb_id,
        move_id=None,
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
        by="",
        climb_id=move.climb_id,
        move_id=move.id,
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
