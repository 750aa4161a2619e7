"""Lists of climbs: of students, of a set, by search, and which was played last."""

import json
from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime

from peewee import SQL

from ripresa.core.studio import Climb
from ripresa.store.climbs import climb_rows, to_climb
from ripresa.store.tables import (
    ClimbRow,
    MomentField,
    VersionRow,
    database,
)
from ripresa.store.unread import readable


def all_climbs(student_id: int | None = None) -> list[Climb]:
    """Return climbs, of one student or of all, the newest first."""
    rows = climb_rows()
    if student_id is not None:
        rows = rows.where(ClimbRow.student == student_id)
    return list(readable("climb", rows.order_by(ClimbRow.started_at.desc(), ClimbRow.id.desc()), to_climb))


def climbs_of_drill(drill_id: int) -> list[Climb]:
    """Return the climbs with any version of a drill, the newest first."""
    rows = climb_rows().where(VersionRow.drill == drill_id)
    return list(readable("climb", rows.order_by(ClimbRow.started_at.desc(), ClimbRow.id.desc()), to_climb))


@dataclass(frozen=True, slots=True)
class FoundClimbs:
    """Some climbs, the last played first, and how many there are of the kind."""

    climbs: tuple[Climb, ...]
    count: int


def search_climbs(words: str, most: int, student_id: int | None = None) -> FoundClimbs:
    """Return climbs of students in use whose student or drill has some words in its name, the last played first."""
    asked = """
        FROM climb JOIN student ON student.id = climb.student_id
        JOIN drill_version ON drill_version.id = climb.version_id
        WHERE student.put_away_at IS NULL AND (?1 IS NULL OR climb.student_id = ?1)
          AND (?2 = '' OR instr(lower(student.name || ' ' || CASE WHEN json_valid(drill_version.body)
            THEN coalesce(json_extract(drill_version.body, '$.title'), '') ELSE '' END), ?2) > 0)
    """
    given = (student_id, words.strip().lower())
    count = int(database.execute_sql(f"SELECT count(*) {asked}", given).fetchone()[0])
    ordered = f"""
        SELECT climb.id {asked}
        ORDER BY coalesce((SELECT max(played_at) FROM take WHERE climb_id = climb.id), climb.started_at) DESC,
          climb.id DESC LIMIT ?3
    """
    order = [row[0] for row in database.execute_sql(ordered, (*given, most)).fetchall()]
    found = {climb.id: climb for climb in some_climbs(order)}
    return FoundClimbs(tuple(found[one] for one in order if one in found), count)


def climbs_of(student_ids: Collection[int], since: datetime | None = None) -> list[Climb]:
    """Return the climbs of some students; those that were played since a moment alone, where one is given."""
    rows = climb_rows().where(ClimbRow.student.in_(_listed(student_ids)))
    if since is not None:
        played = "EXISTS (SELECT 1 FROM take WHERE take.climb_id = t1.id AND take.played_at >= ?)"
        rows = rows.where(SQL(played, (MomentField().db_value(since),)))
    return list(readable("climb", rows, to_climb))


def last_played_of(student_ids: Collection[int]) -> dict[int, tuple[int, str]]:
    """Return the number of the climb of each student that was played last, else of the newest, and when that was.

    When is as it is kept: a text that sorts; empty for never.
    """
    asked = """
        SELECT student_id, id, last, max(last || printf('%012d', id)) FROM (
            SELECT climb.student_id, climb.id,
              coalesce((SELECT max(played_at) FROM take WHERE climb_id = climb.id), '') AS last
            FROM climb WHERE climb.student_id IN (SELECT value FROM json_each(?)))
        GROUP BY student_id
    """
    rows = database.execute_sql(asked, (json.dumps(list(student_ids)),)).fetchall()
    return {student: (climb, last) for student, climb, last, _ in rows}


def some_climbs(climb_ids: Collection[int]) -> list[Climb]:
    """Return some climbs, by their numbers."""
    rows = climb_rows().where(ClimbRow.id.in_(_listed(climb_ids)))
    return list(readable("climb", rows, to_climb))


def climbs_of_set(set_key: str) -> list[Climb]:
    """Return the climbs of a set of variants, in its order."""
    rows = climb_rows().where(ClimbRow.set_key == set_key).order_by(ClimbRow.set_place)
    return list(readable("climb", rows, to_climb))


def _listed(numbers: Collection[int]) -> SQL:
    """Return numbers as one value of a question, however many there are."""
    return SQL("(SELECT value FROM json_each(?))", (json.dumps(list(numbers)),))
