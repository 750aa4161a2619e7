"""Finding and saving climbs and their moves."""

from collections.abc import Mapping
from datetime import datetime
from functools import lru_cache
from typing import get_args

from peewee import Case
from pydantic import TypeAdapter

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climbs import ClimbPlan, Decision, LaidRungs, laid_rungs
from ripresa.core.errors import Conflict, NotFound, OutOfRange
from ripresa.core.studio import Climb, Move
from ripresa.store.drills import to_drill, version_row
from ripresa.store.once import once
from ripresa.store.students import find_student, to_student
from ripresa.store.tables import ClimbRow, MadeRow, MoveRow, Row, StudentRow, TakeRow, VersionRow, database, moment
from ripresa.store.takes import click_of, place
from ripresa.store.unread import one, readable

_PLAN = TypeAdapter(ClimbPlan)
_DECISIONS = get_args(Decision)
#: Takes that are placed in one statement.
_AT_ONCE = 500


def all_climbs(student_id: int | None = None) -> list[Climb]:
    """Return climbs, of one student or of all, the newest first."""
    rows = _rows()
    if student_id is not None:
        rows = rows.where(ClimbRow.student == student_id)
    return list(readable("climb", rows.order_by(ClimbRow.started_at.desc(), ClimbRow.id.desc()), _to_climb))


def find_climb(climb_id: int) -> Climb:
    """Return a climb.

    Raises:
        NotFound: There is none of this number.
        Unreadable: Its data is damaged.
    """
    row = _rows().where(ClimbRow.id == climb_id).first()
    if row is None:
        raise NotFound("This climb does not exist.")
    return one("climb", row, _to_climb)


def add_climb(
    student_id: int, drill_id: int, version: int | None, plan: ClimbPlan, now: datetime, key: str | None = None
) -> Climb:
    """Start a climb on its first rung, with a version of a drill that later edits leave alone.

    The same key twice is the same climb.

    Raises:
        NotFound: There is no such student, drill or version.
    """
    find_student(student_id)

    def make() -> int:
        row = ClimbRow.create(
            student=student_id,
            version=version_row(drill_id, version),
            plan=_PLAN.dump_json(plan).decode(),
            rung=1,
            started_at=now,
        )
        return int(row.id)

    return find_climb(once(key, "climb", make))


def is_kept(key: str | None) -> bool:
    """Return whether a move was kept under this key."""
    return key is not None and MadeRow.get_or_none((MadeRow.key == key) & (MadeRow.kind == "move")) is not None


def add_move(
    climb_id: int,
    *,
    take_id: str | None,
    from_rung: int,
    to_rung: int,
    offered: Decision,
    decision: Decision,
    reason: str,
    now: datetime,
    key: str | None = None,
) -> None:
    """Keep a move and put the climb on its new rung, both or neither; the same key twice is the same move.

    Raises:
        NotFound: There is no such climb, or it has no such take.
        Conflict: The climb is no longer on ``from_rung``.
    """

    def make() -> int:
        _climb_on(climb_id, from_rung)
        if take_id is not None and TakeRow.get_or_none((TakeRow.id == take_id) & (TakeRow.climb == climb_id)) is None:
            raise NotFound("This climb has no such take.")
        ClimbRow.update(rung=to_rung).where(ClimbRow.id == climb_id).execute()
        row = MoveRow.create(
            climb=climb_id,
            take=take_id,
            from_rung=from_rung,
            to_rung=to_rung,
            offered=offered,
            decision=decision,
            reason=reason,
            made_at=now,
        )
        return int(row.id)

    once(key, "move", make)


def change_plan(climb_id: int, plan: ClimbPlan, places: Mapping[int, int], from_rung: int, based_on: int) -> None:
    """Keep another plan of a climb, and put the climb, its takes and its moves on their rungs in it; all or nothing.

    A take goes to the rung of its tempo and click, wherever it was said to be.

    Args:
        places: The new number of each old rung.
        based_on: The revision of the climb that was changed.

    Raises:
        NotFound: There is no such climb.
        Conflict: The climb is no longer on ``from_rung``, or its plan was changed since that revision.
    """
    with database.atomic("IMMEDIATE"):
        climb = find_climb(climb_id)
        if climb.plan == plan:
            return
        if climb.revision != based_on:
            raise Conflict(
                "The ladder of this climb was changed elsewhere since this page asked. Look at it as it is now, and "
                "change it again if it should be otherwise.",
                field="based_on",
            )
        _climb_on(climb_id, from_rung)
        columns = {"plan": _PLAN.dump_json(plan).decode(), "rung": places[climb.rung], "revision": climb.revision + 1}
        ClimbRow.update(**columns).where(ClimbRow.id == climb_id).execute()
        _place_takes(climb_id, laid_rungs(plan), places)
        _place_moves(climb_id, places, len(laid_rungs(plan)))


def _place_takes(climb_id: int, passed: LaidRungs, places: Mapping[int, int]) -> None:
    same = (TakeRow.bpm, TakeRow.click, TakeRow.click_plan, TakeRow.part, TakeRow.rung)
    # All are looked at before the first is placed: none is met again under its new number.
    kinds: Row = list(TakeRow.select(*same).where(TakeRow.climb == climb_id).distinct().tuples())
    found = {
        kind: place(passed, kind[0], click_of(kind[1], kind[2], passed), places.get(kind[4] or 0), kind[3])
        for kind in kinds
    }
    rows: Row = TakeRow.select(TakeRow.id, *same).where(TakeRow.climb == climb_id).tuples()
    placed: dict[int | None, list[str]] = {}
    for take_id, *kind in rows:
        placed.setdefault(found[tuple(kind)], []).append(take_id)
    for rung, ids in placed.items():
        for first in range(0, len(ids), _AT_ONCE):
            TakeRow.update(rung=rung).where(TakeRow.id.in_(ids[first : first + _AT_ONCE])).execute()


def _place_moves(climb_id: int, places: Mapping[int, int], last: int) -> None:
    # All at once: a move that has been placed is not met again under its new number.
    for column in ("from_rung", "to_rung"):
        placed = Case(getattr(MoveRow, column), tuple(places.items()), last)
        MoveRow.update(**{column: placed}).where(MoveRow.climb == climb_id).execute()


def moves_of(climb_ids: list[int], most: int) -> list[Move]:
    """Return the last moves of some climbs, the newest first."""
    rows = MoveRow.select().where(MoveRow.climb.in_(climb_ids)).order_by(MoveRow.made_at.desc(), MoveRow.id.desc())
    return list(readable("move", rows.limit(most), _to_move))


def _rows() -> Row:
    return ClimbRow.select(ClimbRow, StudentRow, VersionRow).join(StudentRow).switch(ClimbRow).join(VersionRow)


def _climb_on(climb_id: int, rung: int) -> Climb:
    """Return a climb that has to be on a rung still: a press that arrives twice acts once."""
    climb = find_climb(climb_id)
    if climb.rung != rung:
        raise Conflict(f"This climb is already on rung {climb.rung}.", field="from_rung")
    return climb


@lru_cache(maxsize=512)
def _plan(text: str) -> ClimbPlan:
    return _PLAN.validate_json(text)


def _to_climb(row: Row) -> Climb:
    plan = _plan(row.plan)
    if not 1 <= row.rung <= len(laid_rungs(plan)):
        raise OutOfRange(f"It stands on rung {row.rung} of {len(laid_rungs(plan))}.")
    # By their own names, so that it is told what is damaged, and not only what cannot go on for it.
    student, drill = one("student", row.student, to_student), one("drill version", row.version, to_drill)
    return Climb(row.id, student, drill, plan, row.rung, moment(row.started_at), row.revision)


def _to_move(row: Row) -> Move:
    if row.offered not in _DECISIONS or row.decision not in _DECISIONS:
        raise OutOfRange(f"“{row.offered}” and “{row.decision}” should be up, stay or back.")
    return Move(
        id=row.id,
        climb_id=row.climb_id,
        take_id=row.take_id,
        from_rung=row.from_rung,
        to_rung=row.to_rung,
        offered=row.offered,
        decision=row.decision,
        reason=row.reason,
        made_at=moment(row.made_at),
    )
