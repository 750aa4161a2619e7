"""How climbs stand, from a few columns of their takes and moves: in so many queries, however many takes there are."""

import json
from collections.abc import Sequence
from datetime import datetime
from typing import Any

from ripresa.core.climbs import laid_rungs
from ripresa.core.drill.click import Click
from ripresa.core.studio import Climb, Standing
from ripresa.core.takes import MARKS, Mark
from ripresa.store.tables import database, moment
from ripresa.store.takes import click_of

#: Takes of a rung that its tread shows, and those at the end that can decide: our choice.
MOST_SHOWN, MOST_COUNTING = 24, 60
_MARKS = MARKS

_SHOWN = f"""
SELECT json_extract(asked.value, '$[0]'), json_extract(asked.value, '$[1]'), (
  SELECT group_concat(mark) FROM (
    SELECT mark FROM take
    WHERE climb_id = json_extract(asked.value, '$[0]') AND rung = json_extract(asked.value, '$[1]')
    ORDER BY played_at DESC, id DESC LIMIT {MOST_SHOWN}))
FROM json_each(?) AS asked
"""
_COUNTING = f"""
SELECT json_extract(asked.value, '$[0]'), (
  SELECT json_group_array(json_array(mark, click, click_plan, seconds)) FROM (
    SELECT mark, click, click_plan, end_seconds - start_seconds AS seconds FROM take
    WHERE climb_id = json_extract(asked.value, '$[0]') AND rung = json_extract(asked.value, '$[1]')
      AND played_at > json_extract(asked.value, '$[2]')
    ORDER BY played_at DESC, id DESC LIMIT {MOST_COUNTING}))
FROM json_each(?) AS asked
"""
_LAST = """
SELECT asked.value, (SELECT max(played_at) FROM take WHERE climb_id = asked.value),
  (SELECT max(made_at) FROM move WHERE climb_id = asked.value),
  (SELECT max(made_at) FROM move WHERE climb_id = asked.value AND from_rung <> to_rung),
  (SELECT from_rung FROM move WHERE climb_id = asked.value AND from_rung <> to_rung
   ORDER BY made_at DESC, id DESC LIMIT 1)
FROM json_each(?) AS asked
"""


def standings(climbs: Sequence[Climb]) -> dict[int, Standing]:
    """Return how each climb stands, by its number."""
    shown: dict[int, dict[int, tuple[Mark, ...]]] = {climb.id: {} for climb in climbs}
    rungs = [(climb.id, rung) for climb in climbs for rung in range(1, len(laid_rungs(climb.plan)) + 1)]
    for climb_id, rung, marks in _asked(_SHOWN, json.dumps(rungs)):
        if marks:
            shown[climb_id][rung] = _marks(marks.split(","))
    last = {row[0]: row[1:] for row in _asked(_LAST, json.dumps([climb.id for climb in climbs]))}
    since = [(climb.id, climb.rung, last[climb.id][2] or "") for climb in climbs]
    counting = dict(_asked(_COUNTING, json.dumps(since)))
    found = {}
    for climb in climbs:
        played, answered, reached, came_from = last[climb.id]
        due = _under_the_click(climb, json.loads(counting[climb.id]))
        found[climb.id] = Standing(
            marks=shown[climb.id],
            counting=_marks([mark for mark, _ in due]),
            last_take_at=_moment(played),
            answered_at=_moment(answered),
            reached_at=_moment(reached),
            came_from=came_from,
            counted_seconds=sum(seconds for _, seconds in due),
        )
    return found


def _under_the_click(climb: Climb, rows: Sequence[tuple[str, str, str | None, float]]) -> list[tuple[str, float]]:
    """Return (mark, seconds) of the takes that count, the newest first: on a ladder those under its click."""
    passed = laid_rungs(climb.plan)
    due = passed[climb.rung - 1].click
    return [
        (mark, float(seconds))
        for mark, words, plan, seconds in rows
        if due is None or _click(words, plan, passed) == due
    ]


def _click(words: str, plan: str | None, passed: Any) -> Click | None:
    try:
        return click_of(words, plan, passed)
    except ValueError:
        return None


def _marks(newest_first: Sequence[str]) -> tuple[Mark, ...]:
    return tuple(mark for mark in reversed(newest_first) if mark in _MARKS)


def _moment(kept: str | None) -> datetime | None:
    try:
        return moment(kept) if kept else None
    except ValueError:
        return None


def _asked(text: str, *values: object) -> list[tuple[Any, ...]]:
    return list(database.execute_sql(text, values).fetchall())
