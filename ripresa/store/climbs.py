"""Finding and saving climbs and their moves."""

from datetime import datetime

from pydantic import TypeAdapter

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climb import ClimbPlan
from ripresa.core.errors import Conflict, NotFound
from ripresa.core.studio import Climb, Move
from ripresa.core.takes import Decision
from ripresa.store.drills import to_drill, version_row
from ripresa.store.students import find_student, to_student
from ripresa.store.tables import ClimbRow, MoveRow, Row, StudentRow, TakeRow, VersionRow, database

_PLAN = TypeAdapter(ClimbPlan)


def all_climbs(student_id: int | None = None) -> list[Climb]:
    """Return climbs, of one student or of all, the newest first."""
    rows = ClimbRow.select(ClimbRow, StudentRow, VersionRow).join(StudentRow).switch(ClimbRow).join(VersionRow)
    if student_id is not None:
        rows = rows.where(ClimbRow.student == student_id)
    return [_to_climb(row) for row in rows.order_by(ClimbRow.started_at.desc(), ClimbRow.id.desc())]


def find_climb(climb_id: int) -> Climb:
    """Return a climb.

    Raises:
        NotFound: There is none of this number.
    """
    row = ClimbRow.get_or_none(ClimbRow.id == climb_id)
    if row is None:
        raise NotFound("This climb does not exist.")
    return _to_climb(row)


def add_climb(student_id: int, drill_id: int, version: int | None, plan: ClimbPlan, now: datetime) -> Climb:
    """Start a climb on its first rung, with a version of a drill that later edits leave alone.

    Raises:
        NotFound: There is no such student, drill or version.
    """
    find_student(student_id)
    row = ClimbRow.create(
        student=student_id,
        version=version_row(drill_id, version),
        plan=_PLAN.dump_json(plan).decode(),
        rung=1,
        started_at=now,
    )
    return find_climb(row.id)


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
) -> Move:
    """Keep a move and put the climb on its new rung, both or neither.

    Raises:
        NotFound: There is no such climb.
        Conflict: The climb is no longer on ``from_rung``.
    """
    with database.atomic("IMMEDIATE"):
        _climb_on(climb_id, from_rung)
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
        return _to_move(row)


def change_plan(climb_id: int, plan: ClimbPlan, places: dict[int, int], from_rung: int) -> None:
    """Keep another plan of a climb, and put the climb, its takes and its moves on their rungs in it; all or nothing.

    Args:
        places: The new number of each old rung.

    Raises:
        NotFound: There is no such climb.
        Conflict: The climb is no longer on ``from_rung``.
    """
    with database.atomic("IMMEDIATE"):
        climb = _climb_on(climb_id, from_rung)
        text = _PLAN.dump_json(plan).decode()
        ClimbRow.update(plan=text, rung=places[climb.rung]).where(ClimbRow.id == climb_id).execute()
        takes: list[Row] = list(TakeRow.select().where(TakeRow.climb == climb_id))
        for take in takes:
            TakeRow.update(rung=places[take.rung]).where(TakeRow.id == take.id).execute()
        moves: list[Row] = list(MoveRow.select().where(MoveRow.climb == climb_id))
        for move in moves:
            ends = {"from_rung": places[move.from_rung], "to_rung": places[move.to_rung]}
            MoveRow.update(**ends).where(MoveRow.id == move.id).execute()


def moves_of(climb_ids: list[int]) -> list[Move]:
    """Return the moves of some climbs, oldest first."""
    rows = MoveRow.select().where(MoveRow.climb.in_(climb_ids)).order_by(MoveRow.made_at, MoveRow.id)
    return [_to_move(row) for row in rows]


def _climb_on(climb_id: int, rung: int) -> Climb:
    """Return a climb that has to be on a rung still: a press that arrives twice acts once."""
    climb = find_climb(climb_id)
    if climb.rung != rung:
        raise Conflict(f"This climb is already on rung {climb.rung}.", field="from_rung")
    return climb


def _to_climb(row: Row) -> Climb:
    plan = _PLAN.validate_json(row.plan)
    return Climb(row.id, to_student(row.student), to_drill(row.version), plan, row.rung, row.started_at)


def _to_move(row: Row) -> Move:
    return Move(
        id=row.id,
        climb_id=row.climb_id,
        take_id=row.take_id,
        from_rung=row.from_rung,
        to_rung=row.to_rung,
        offered=row.offered,
        decision=row.decision,
        reason=row.reason,
        made_at=row.made_at,
    )
