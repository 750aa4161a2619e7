"""Finding and saving takes. A take has its id from where it was played, so sending it twice keeps it once."""

import json
from fractions import Fraction

from pydantic import TypeAdapter

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.errors import NotFound
from ripresa.core.studio import Take
from ripresa.core.takes import Figures
from ripresa.store.drills import version_row
from ripresa.store.tables import Row, TakeRow, VersionRow

_FIGURES = TypeAdapter(Figures)


def add_take(take: Take) -> Take:
    """Keep a take; one that is kept already is given back as it is.

    Raises:
        NotFound: Its drill version does not exist.
    """
    known = TakeRow.get_or_none(TakeRow.id == take.id)
    if known is not None:
        return _to_take(known)
    row = TakeRow.create(
        id=take.id,
        student=take.student_id,
        climb=take.climb_id,
        rung=take.rung,
        version=version_row(take.drill_id, take.version),
        bpm=str(take.bpm),
        click=take.click,
        source=take.source,
        played_at=take.played_at,
        start_seconds=take.start,
        end_seconds=take.end,
        latency=take.latency,
        is_calibrated=int(take.is_calibrated),
        onsets=json.dumps(take.onsets),
        figures=_FIGURES.dump_json(take.figures).decode() if take.figures else None,
        mark=take.mark,
        reasons=json.dumps(take.reasons, ensure_ascii=False),
        note=take.note,
    )
    return _to_take(row)


def find_take(take_id: str) -> Take:
    """Return a take.

    Raises:
        NotFound: There is none of this id.
    """
    row = TakeRow.get_or_none(TakeRow.id == take_id)
    if row is None:
        raise NotFound("This take does not exist.")
    return _to_take(row)


def write_note(take_id: str, note: str) -> Take:
    """Keep a note on a take.

    Raises:
        NotFound: There is none of this id.
    """
    find_take(take_id)
    TakeRow.update(note=note).where(TakeRow.id == take_id).execute()
    return find_take(take_id)


def all_takes(
    *, student_id: int | None = None, climb_ids: list[int] | None = None, most: int | None = None
) -> list[Take]:
    """Return takes, of one student, of some climbs, or of all; oldest first, the last ``most`` of them."""
    rows = TakeRow.select(TakeRow, VersionRow).join(VersionRow)
    if student_id is not None:
        rows = rows.where(TakeRow.student == student_id)
    if climb_ids is not None:
        rows = rows.where(TakeRow.climb.in_(climb_ids))
    rows = rows.order_by(TakeRow.played_at.desc(), TakeRow.id.desc())
    return [_to_take(row) for row in (rows.limit(most) if most else rows)][::-1]


def _to_take(row: Row) -> Take:
    return Take(
        id=row.id,
        student_id=row.student_id,
        climb_id=row.climb_id,
        rung=row.rung,
        drill_id=row.version.drill_id,
        version=row.version.number,
        bpm=Fraction(row.bpm),
        click=row.click,
        source=row.source,
        played_at=row.played_at,
        start=row.start_seconds,
        end=row.end_seconds,
        latency=row.latency,
        is_calibrated=bool(row.is_calibrated),
        onsets=tuple(json.loads(row.onsets)),
        figures=_FIGURES.validate_json(row.figures) if row.figures else None,
        mark=row.mark,
        reasons=tuple(json.loads(row.reasons)),
        note=row.note,
    )
