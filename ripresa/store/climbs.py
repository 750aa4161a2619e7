"""Finding and saving climbs and their moves."""

from collections.abc import Collection, Mapping, Sequence
from datetime import datetime
from functools import lru_cache
from typing import get_args
from uuid import uuid4

from peewee import Case, fn
from pydantic import TypeAdapter

from ripresa.core.changes import Overrides, overridden, told_overrides
from ripresa.core.climbs import ClimbPlan, Decision, LaidRungs, laid_rungs
from ripresa.core.drill import Drill
from ripresa.core.errors import Conflict, NotFound, OutOfRange
from ripresa.core.studio import Climb, KeptDrill, Move
from ripresa.formats.wire import adapter
from ripresa.store.drills import add_drill, to_drill, version_row
from ripresa.store.once import once
from ripresa.store.students import find_student, to_student
from ripresa.store.tables import (
    ClimbRow,
    MadeRow,
    MoveRow,
    Row,
    StudentRow,
    TakeRow,
    VersionRow,
    database,
    moment,
)
from ripresa.store.takes import click_of, place
from ripresa.store.unread import one, readable

_PLAN: TypeAdapter[ClimbPlan] = adapter(ClimbPlan)
_OVERRIDES: TypeAdapter[Overrides] = adapter(Overrides)
_NOTHING = Overrides()
_DECISIONS = get_args(Decision)
#: Takes that are placed in one statement.
_AT_ONCE = 500


def plan_text(plan: ClimbPlan) -> str:
    """Return a plan as it is kept."""
    return _PLAN.dump_json(plan).decode()


def find_climb(climb_id: int) -> Climb:
    """Return a climb.

    Raises:
        NotFound: There is none of this number.
        Unreadable: Its data is damaged.
    """
    row = climb_rows().where(ClimbRow.id == climb_id).first()
    if row is None:
        raise NotFound("This climb does not exist.")
    return one("climb", row, to_climb)


def add_climb(
    student_id: int,
    drill_id: int,
    version: int | None,
    plan: ClimbPlan,
    now: datetime,
    key: str | None = None,
    overrides: Overrides | None = None,
) -> Climb:
    """Start a climb on its first rung, with a version of a drill that later edits leave alone.

    The same key twice is the same climb.

    Args:
        overrides: What the student plays otherwise; None for nothing.

    Raises:
        NotFound: There is no such student, drill or version.
    """
    find_student(student_id)

    def make() -> int:
        row = ClimbRow.create(
            student=student_id,
            version=version_row(drill_id, version),
            plan=plan_text(plan),
            rung=1,
            started_at=now,
            overrides=_OVERRIDES.dump_json(overrides, exclude_defaults=True).decode() if overrides else "{}",
        )
        return int(row.id)

    return find_climb(once(key, "climb", make))


def add_set(
    student_id: int,
    drill_id: int,
    version: int | None,
    plan: ClimbPlan,
    variants: Sequence[Overrides],
    now: datetime,
    key: str | None = None,
) -> str:
    """Start a climb for each variant of a set, in its order, all or none, and return the key of the set.

    The same key of a press twice is the same set.

    Raises:
        NotFound: There is no such student, drill or version.
    """
    find_student(student_id)
    row = version_row(drill_id, version)

    def make() -> int:
        first = 0
        name = uuid4().hex
        for number, overrides in enumerate(variants):
            made = ClimbRow.create(
                student=student_id,
                version=row,
                plan=plan_text(plan),
                rung=1,
                started_at=now,
                overrides=_OVERRIDES.dump_json(overrides, exclude_defaults=True).decode(),
                set_key=name,
                set_place=number,
            )
            first = first or int(made.id)
        return first

    return find_climb(once(key, "set", make)).set_key


def newest_versions(drill_ids: Collection[int]) -> dict[int, int]:
    """Return the number of the newest version of some drills."""
    newest = VersionRow.select(VersionRow.drill, fn.MAX(VersionRow.number)).where(VersionRow.drill.in_(drill_ids))
    rows: Row = newest.group_by(VersionRow.drill).tuples()
    return dict(rows)


def take_version(climb_id: int, version: int, based_on: int) -> Climb:
    """Let a climb go on with another version of its drill; its takes stay with theirs.

    Raises:
        NotFound: There is no such climb or version.
        Conflict: It was changed since that revision.
    """
    with database.atomic("IMMEDIATE"):
        climb = find_climb(climb_id)
        return _goes_on(climb, version_row(climb.drill.id, version), based_on)


def take_own(climb_id: int, drill: Drill, based_on: int, now: datetime, key: str | None = None) -> Climb:
    """Keep a drill and let a climb go on with it, both or neither; the same key twice is the same drill.

    Raises:
        NotFound: There is no such climb.
        Conflict: It was changed since that revision.
    """
    with database.atomic("IMMEDIATE"):
        climb = find_climb(climb_id)
        return _goes_on(climb, version_row(add_drill(drill, now, key).id, None), based_on)


def _goes_on(climb: Climb, row: Row, based_on: int) -> Climb:
    if (climb.drill.id, climb.drill.version) == (row.drill_id, row.number):
        return climb
    if climb.revision != based_on:
        raise Conflict("This climb was changed elsewhere since this page asked. Look at it as it is now.")
    ClimbRow.update(version=row, revision=climb.revision + 1).where(ClimbRow.id == climb.id).execute()
    return find_climb(climb.id)


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


def undo_move(climb_id: int, move_id: int) -> Climb:
    """Take back the last move of a climb: it stands where it stood before.

    Raises:
        NotFound: There is no such climb, or it has no such move.
        Conflict: It is not its last move, or the climb has gone on another way since.
    """
    with database.atomic("IMMEDIATE"):
        climb = find_climb(climb_id)
        rows = MoveRow.select().where(MoveRow.climb == climb_id)
        row = rows.order_by(MoveRow.made_at.desc(), MoveRow.id.desc()).first()
        if MoveRow.get_or_none((MoveRow.id == move_id) & (MoveRow.climb == climb_id)) is None:
            raise NotFound("This climb has no such move: it may have been taken back already.")
        if row.id != move_id or row.to_rung != climb.rung:
            raise Conflict("Only the last move of a climb can be taken back. Take back the later ones first.")
        ClimbRow.update(rung=row.from_rung).where(ClimbRow.id == climb_id).execute()
        MadeRow.delete().where((MadeRow.kind == "move") & (MadeRow.made_id == move_id)).execute()
        MoveRow.delete().where(MoveRow.id == move_id).execute()
        return find_climb(climb_id)


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
        columns = {"plan": plan_text(plan), "rung": places[climb.rung], "revision": climb.revision + 1}
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


def climb_rows() -> Row:
    """Return the question for climbs with their student and their version."""
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


def to_climb(row: Row) -> Climb:
    """Return the climb of a row."""
    plan = _plan(row.plan)
    if not 1 <= row.rung <= len(laid_rungs(plan)):
        raise OutOfRange(f"It stands on rung {row.rung} of {len(laid_rungs(plan))}.")
    # By their own names, so that it is told what is damaged, and not only what cannot go on for it.
    student, drill = one("student", row.student, to_student), one("drill version", row.version, to_drill)
    overrides = _NOTHING if row.overrides == "{}" else _OVERRIDES.validate_json(row.overrides)
    played, differs = _laid_over(drill.drill, overrides)
    return Climb(
        id=row.id,
        student=student,
        drill=KeptDrill(drill.id, drill.version, played, drill.saved_at),
        plan=plan,
        rung=row.rung,
        started_at=moment(row.started_at),
        revision=row.revision,
        overrides=overrides,
        differs=differs,
        set_key=row.set_key,
        set_place=row.set_place,
    )


@lru_cache(maxsize=512)
def _laid_over(drill: Drill, overrides: Overrides) -> tuple[Drill, tuple[str, ...]]:
    return overridden(drill, overrides), told_overrides(drill, overrides)


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
