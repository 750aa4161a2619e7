"""Finding and saving takes. A take has its id from where it was played, so sending it twice keeps it once.

Lists are made of columns alone: notes and figures are parsed where one take is looked at.
"""

import json
from collections.abc import Iterator
from datetime import UTC, datetime
from typing import Any

from peewee import IntegrityError
from pydantic import TypeAdapter

from ripresa.core.changes import Part
from ripresa.core.climbs import LaidRungs, rung_of
from ripresa.core.drill.click import Click, click_words
from ripresa.core.errors import Conflict, NotFound, OutOfRange
from ripresa.core.exact import Fraction, fraction_of
from ripresa.core.studio import Ear, PartStanding, Take, TakeLine
from ripresa.core.takes import MARKS, SOURCES, Fault, Figures, HeardNote, Interval, Mark, Offer
from ripresa.formats.wire import adapter
from ripresa.store.drills import version_row
from ripresa.store.recordings import delete_recordings
from ripresa.store.tables import MomentField, MoveRow, Row, TakeRow, VersionRow, database, moment
from ripresa.store.unread import one, readable

_FIGURES = adapter(Figures)
_CLICK: TypeAdapter[Click] = adapter(Click)
_NOTES: TypeAdapter[tuple[HeardNote, ...]] = adapter(tuple[HeardNote, ...])
_PART: TypeAdapter[Part] = adapter(Part)
_EAR: TypeAdapter[Ear] = adapter(Ear)
_FAULTS: TypeAdapter[tuple[Fault, ...]] = adapter(tuple[Fault, ...])
_OFFERS: TypeAdapter[tuple[Offer, ...]] = adapter(tuple[Offer, ...])
_COUNTS = ("due", "matched", "missed", "extra", "bias_count")
_FIGURES_SHOWN = ("bias", "bias_half", "spread", "drift_percent", "drift_bpm")
_PLAIN = (
    "id",
    "student_id",
    "climb_id",
    "rung",
    "bpm",
    "click",
    "source",
    "mark",
    "reasons",
    "note",
    "part_name",
    "machine",
    "ear_by",
    "ease",
    *_COUNTS,
    *_FIGURES_SHOWN,
)
_LINE = ", ".join(
    [
        *(f"take.{name} AS {name}" for name in _PLAIN),
        "take.played_at AS played_at, take.end_seconds - take.start_seconds AS seconds",
        "drill_version.drill_id AS drill_id, drill_version.number AS version",
    ]
)
_LINES = f"SELECT {_LINE} FROM take JOIN drill_version ON drill_version.id = take.version_id"
#: Takes that are read at once where all of them are asked for.
_BATCH = 500


def add_take(take: Take) -> tuple[Take, bool]:
    """Keep a take, and return it as it is kept with whether it is new: one that is kept already stays as it was.

    Raises:
        NotFound: Its drill version does not exist.
        Conflict: A take of this id is another student's.
    """
    figures = take.figures
    columns = {
        "id": take.id,
        "student": take.student_id,
        "climb": take.climb_id,
        "rung": take.rung,
        "version": version_row(take.drill_id, take.version),
        "bpm": str(take.bpm),
        "click": take.click,
        "click_plan": _CLICK.dump_json(take.click_plan).decode() if take.click_plan else None,
        "source": take.source,
        "played_at": take.played_at,
        "start_seconds": take.start,
        "end_seconds": take.end,
        "latency": take.latency,
        "is_calibrated": int(take.is_calibrated),
        "latency_half": take.latency_half,
        "notes": _NOTES.dump_json(take.notes, exclude_none=True).decode(),
        "part": _PART.dump_json(take.part).decode() if take.part else None,
        "part_name": take.part_name,
        "faults": _FAULTS.dump_json(take.faults).decode(),
        "offers": _OFFERS.dump_json(take.offers).decode(),
        "refused": take.refused,
        "machine": take.machine,
        "remedy": take.remedy_id,
        "played_notes": take.played_notes,
        "hidden": json.dumps(take.hidden),
        **_of_ear(take.ear),
        "figures": _FIGURES.dump_json(figures).decode() if figures else None,
        "mark": take.mark,
        "reasons": json.dumps(take.reasons, ensure_ascii=False),
        "note": take.note,
        **(_summary(figures) if figures else {}),
    }
    try:
        with database.atomic("IMMEDIATE"):
            is_new = TakeRow.get_or_none(TakeRow.id == take.id) is None
            if is_new:
                TakeRow.create(**columns)
    except IntegrityError as error:
        raise NotFound("The student or the climb of this take does not exist.") from error
    kept = find_take(take.id)
    if kept.student_id != take.student_id:
        raise Conflict("A take of this id is another student’s. Give each take an id of its own.", field="id")
    return kept, is_new


def find_take(take_id: str) -> Take:
    """Return a take.

    Raises:
        NotFound: There is none of this id.
        Unreadable: Its data is damaged.
    """
    row = TakeRow.select(TakeRow, VersionRow).join(VersionRow).where(TakeRow.id == take_id).first()
    if row is None:
        raise NotFound("This take does not exist.")
    return one("take", row, _to_take)


def write_note(take_id: str, note: str) -> Take:
    """Keep a note on a take.

    Raises:
        NotFound: There is none of this id.
    """
    find_take(take_id)
    TakeRow.update(note=note).where(TakeRow.id == take_id).execute()
    return find_take(take_id)


def delete_take(take_id: str) -> Take:
    """Delete a take that was kept by mistake, and return it; moves that it led to stay.

    Raises:
        NotFound: There is none of this id.
    """
    with database.atomic("IMMEDIATE"):
        found = find_take(take_id)
        MoveRow.update(take=None).where(MoveRow.take == take_id).execute()
        delete_recordings(take_id)
        TakeRow.delete().where(TakeRow.id == take_id).execute()
    return found


def hear(take_id: str, ear: Ear, reasons: tuple[str, ...]) -> Take:
    """Keep what a person says of a take; what the machine said stays beside it.

    Raises:
        NotFound: There is none of this id.
    """
    find_take(take_id)
    TakeRow.update(mark=ear.mark, reasons=json.dumps(reasons, ensure_ascii=False), **_of_ear(ear)).where(
        TakeRow.id == take_id
    ).execute()
    return find_take(take_id)


def earlier_figures(climb_id: int, rung: int, click: Click, since: datetime | None, most: int) -> list[Figures]:
    """Return the figures of the last takes of a rung under a click that were judged, oldest first.

    Args:
        since: When the rung was reached; takes before it do not count.
    """
    rows = (
        TakeRow.select(TakeRow.id, TakeRow.figures)
        .where(
            (TakeRow.climb == climb_id)
            & (TakeRow.rung == rung)
            & (TakeRow.click_plan == _CLICK.dump_json(click).decode())
            & (TakeRow.machine != "none")
            & TakeRow.figures.is_null(False)
            & (TakeRow.played_at > (since or datetime.min.replace(tzinfo=UTC)))
        )
        .order_by(TakeRow.played_at.desc())
        .limit(most)
    )
    found = readable("take", rows, lambda row: _FIGURES.validate_json(row.figures))
    return list(found)[::-1]


def part_standings(student_id: int) -> list[PartStanding]:
    """Return how far each part of a drill has come that a student practised by itself, the last played first."""
    asked = """
        SELECT drill_version.drill_id, max(drill_version.number), take.part_name, count(*), (
            SELECT clean.bpm FROM take AS clean JOIN drill_version AS own ON own.id = clean.version_id
            WHERE clean.student_id = ?1 AND clean.part_name = take.part_name AND clean.mark = 'clean'
              AND own.drill_id = drill_version.drill_id
            ORDER BY clean.played_at DESC LIMIT 1)
        FROM take JOIN drill_version ON drill_version.id = take.version_id
        WHERE take.student_id = ?1 AND take.part_name <> ''
        GROUP BY drill_version.drill_id, take.part_name ORDER BY max(take.played_at) DESC
    """
    return [
        PartStanding(drill_id, version, name, count, fraction_of(clean) if clean else None)
        for drill_id, version, name, count, clean in database.execute_sql(asked, (student_id,)).fetchall()
    ]


def take_lines(
    *,
    student_id: int | None = None,
    climb_id: int | None = None,
    mark: Mark | None = None,
    by: str | None = None,
    since: datetime | None = None,
    most: int,
) -> list[TakeLine]:
    """Return the last takes, of one student, of one climb, or of all; the newest first.

    Args:
        mark: Those of this mark alone. by: Those that this ear marked alone. since: Those from a moment on.
    """
    asked = {
        "take.student_id =": student_id,
        "take.climb_id =": climb_id,
        "take.mark =": mark,
        "take.ear_by =": by,
        "take.played_at >=": MomentField().db_value(since),
    }
    given = {column: value for column, value in asked.items() if value is not None}
    where = " AND ".join(f"{column} ?" for column in given) or "1"
    ordered = f"{_LINES} WHERE {where} ORDER BY take.played_at DESC, take.id DESC LIMIT ?"
    return _read(ordered, *given.values(), most)


def every_take(student_id: int | None = None) -> Iterator[TakeLine]:
    """Yield all takes, of one student or of all, oldest first, read some at a time."""
    after: tuple[str, str] = ("", "")
    own = "take.student_id = ? AND " if student_id is not None else ""
    who = () if student_id is None else (student_id,)
    asked = f"{_LINES} WHERE {own}(take.played_at, take.id) > (?, ?) ORDER BY take.played_at, take.id LIMIT {_BATCH}"
    while True:
        rows = _rows(asked, *who, *after)
        yield from readable("take", rows, _to_line)
        if len(rows) < _BATCH:
            return
        after = rows[-1]["played_at"], rows[-1]["id"]


def last_marks(climb_id: int) -> list[tuple[Fraction, Part | None, Mark]]:
    """Return (bpm, part, mark) of the last take of a climb at each tempo and part, those without a mark left out."""
    asked = """
        SELECT bpm, part, mark, max(played_at) FROM take
        WHERE climb_id = ? AND mark IN ('clean', 'shaky') AND remedy IS NULL GROUP BY bpm, part
    """
    rows = database.execute_sql(asked, (climb_id,)).fetchall()
    return [(fraction_of(bpm), part_of(part), mark) for bpm, part, mark, _ in rows]


def count_takes(student_id: int) -> int:
    """Return how many takes a student has."""
    return int(TakeRow.select().where(TakeRow.student == student_id).count())


def last_clean(student_id: int) -> TakeLine | None:
    """Return the last clean take of a student."""
    newest = f"{_LINES} WHERE take.student_id = ? AND take.mark = 'clean' ORDER BY take.played_at DESC LIMIT 1"
    return next(iter(_read(newest, student_id)), None)


def seconds_played(begin: datetime, end: datetime) -> float:
    """Return how many seconds all takes that began in a stretch of time lasted together."""
    asked = "SELECT total(end_seconds - start_seconds) FROM take WHERE played_at >= ? AND played_at < ?"
    kept = MomentField().db_value
    return float(database.execute_sql(asked, (kept(begin), kept(end))).fetchone()[0])


def part_of(text: str | None) -> Part | None:
    """Return what was practised of a drill, as it is kept with a take; None is all of it.

    Raises:
        ValueError: It is damaged.
    """
    return _PART.validate_json(text) if text else None


def place(passed: LaidRungs, bpm: str, click: Click | None, wanted: int | None, part: str | None) -> int | None:
    """Return the rung of a take by its kept tempo and part; None where there is none, or they cannot be read.

    Args:
        wanted: Where it would best be, if several fit.
    """
    try:
        return rung_of(passed, fraction_of(bpm), click, wanted, part_of(part))
    except (ValueError, ZeroDivisionError):
        return None


def click_of(words: str, plan: str | None, passed: LaidRungs) -> Click | None:
    """Return the click of a kept take; of one of old, which has words only, the click of a ladder that they name."""
    if plan is not None:
        return _CLICK.validate_json(plan)
    return next((step.click for step in passed if step.click and step.click.words == click_words(words)), None)


def _summary(figures: Figures) -> dict[str, float | None]:
    def value(interval: Interval | None) -> float | None:
        return interval.value if interval else None

    return {
        "due": figures.due,
        "matched": figures.matched,
        "missed": figures.missed,
        "extra": figures.extra,
        "bias": value(figures.bias),
        "bias_half": figures.bias.half_width if figures.bias else None,
        "bias_count": figures.bias.count if figures.bias else None,
        "spread": value(figures.spread),
        "drift_percent": value(figures.tempo_percent),
        "drift_bpm": value(figures.bend),
    }


def _of_ear(ear: Ear | None) -> dict[str, str | int | None]:
    if ear is None:
        return {}
    return {"ear": _EAR.dump_json(ear).decode(), "ear_by": ear.by, "ease": ear.ease}


def _rows(asked: str, *values: object) -> list[dict[str, Any]]:
    cursor = database.execute_sql(asked, values)
    names = [column[0] for column in cursor.description]
    return [dict(zip(names, row, strict=True)) for row in cursor.fetchall()]


def _read(asked: str, *values: object) -> list[TakeLine]:
    return list(readable("take", _rows(asked, *values), _to_line))


def _check(mark: str, source: str) -> None:
    if mark not in MARKS or source not in SOURCES:
        raise OutOfRange(f"“{mark}” from “{source}” is no mark of a take.")


def _to_line(row: dict[str, Any]) -> TakeLine:
    _check(row["mark"], row["source"])
    numbers = {name: None if row[name] is None else float(row[name]) for name in _FIGURES_SHOWN}
    read = {
        "bpm": fraction_of(row["bpm"]),
        "played_at": moment(row["played_at"]),
        "reasons": tuple(json.loads(row["reasons"])),
        "seconds": float(row["seconds"]),
    }
    return TakeLine(**{**row, **read, **numbers})


def _to_take(row: Row) -> Take:
    _check(row.mark, row.source)
    return Take(
        id=row.id,
        student_id=row.student_id,
        climb_id=row.climb_id,
        rung=row.rung,
        drill_id=row.version.drill_id,
        version=row.version.number,
        bpm=fraction_of(row.bpm),
        click=row.click,
        click_plan=_CLICK.validate_json(row.click_plan) if row.click_plan else None,
        source=row.source,
        played_at=moment(row.played_at),
        start=row.start_seconds,
        end=row.end_seconds,
        latency=row.latency,
        is_calibrated=bool(row.is_calibrated),
        latency_half=row.latency_half,
        notes=_NOTES.validate_json(row.notes),
        part=part_of(row.part),
        part_name=row.part_name,
        faults=_FAULTS.validate_json(row.faults),
        offers=_OFFERS.validate_json(row.offers),
        refused=row.refused,
        machine=row.machine,
        ear=_EAR.validate_json(row.ear) if row.ear else None,
        remedy_id=row.remedy,
        played_notes=row.played_notes,
        hidden=tuple(float(one) for one in json.loads(row.hidden)),
        figures=_FIGURES.validate_json(row.figures) if row.figures else None,
        mark=row.mark,
        reasons=tuple(json.loads(row.reasons)),
        note=row.note,
    )
