"""What a student practised, added up from columns: minutes, notes, clean takes, faults; no take is looked into."""

import json
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, tzinfo
from typing import Any

from pydantic import TypeAdapter

from ripresa.core.changes import Part
from ripresa.core.exact import Fraction, fraction_of
from ripresa.core.takes import Fault, Mark
from ripresa.formats.wire import adapter
from ripresa.store.tables import MomentField, database, moment
from ripresa.store.takes import part_of

_FAULTS: TypeAdapter[tuple[Fault, ...]] = adapter(tuple[Fault, ...])
_kept = MomentField().db_value


@dataclass(frozen=True, slots=True)
class Practised:
    """What was played on a day: seconds, notes, takes, and how many of these were clean and shaky."""

    seconds: float = 0.0
    notes: int = 0
    takes: int = 0
    clean: int = 0
    shaky: int = 0

    def __add__(self, other: "Practised") -> "Practised":
        """Return two stretches together."""
        return Practised(
            self.seconds + other.seconds,
            self.notes + other.notes,
            self.takes + other.takes,
            self.clean + other.clean,
            self.shaky + other.shaky,
        )


@dataclass(frozen=True, slots=True)
class SpeedOf:
    """A take of a climb as far as its speed matters: when, at which bpm, of which part, how it went."""

    climb_id: int
    played_at: datetime
    bpm: Fraction
    part: Part | None
    mark: Mark


@dataclass(frozen=True, slots=True)
class Said:
    """A note that was written on a take, by whose ear it was marked, and when."""

    at: datetime
    note: str
    by: str


def practised_days(student_id: int, begin: datetime, end: datetime, zone: tzinfo | None) -> dict[date, Practised]:
    """Return what a student played on each day of a stretch of time, days being those of a time zone."""
    asked = """
        SELECT played_at, end_seconds - start_seconds, coalesce(played_notes, 0), mark FROM take
        WHERE student_id = ? AND played_at >= ? AND played_at < ?
    """
    found: dict[date, Practised] = {}
    for at, seconds, notes, mark in _rows(asked, student_id, _kept(begin), _kept(end)):
        try:
            day = moment(at).astimezone(zone).date()
        except ValueError:
            continue
        one = Practised(seconds, notes, 1, int(mark == "clean"), int(mark == "shaky"))
        found[day] = found.get(day, Practised()) + one
    return found


def speeds_of(climb_ids: Collection[int], most: int) -> dict[int, list[SpeedOf]]:
    """Return the last judged takes of some climbs, remedies left out, oldest first."""
    asked = """
        SELECT asked.value, (SELECT json_group_array(json_array(played_at, bpm, part, mark)) FROM (
            SELECT played_at, bpm, part, mark FROM take WHERE climb_id = asked.value
              AND mark IN ('clean', 'shaky') AND remedy IS NULL ORDER BY played_at DESC LIMIT ?))
        FROM json_each(?) AS asked
    """
    found: dict[int, list[SpeedOf]] = {climb: [] for climb in climb_ids}
    for climb, takes_of in _rows(asked, most, json.dumps(list(climb_ids))):
        for at, bpm, part, mark in json.loads(takes_of or "[]"):
            try:
                found[climb].append(SpeedOf(climb, moment(at), fraction_of(bpm), part_of(part), mark))
            except (ValueError, ZeroDivisionError):
                continue
    for takes in found.values():
        takes.sort(key=lambda take: take.played_at)
    return found


def faults_of(climb_ids: Collection[int], most: int) -> dict[int, list[tuple[Fault, ...]]]:
    """Return the faults of the last takes of some climbs that were judged by the machine, the newest first."""
    asked = """
        SELECT asked.value, (SELECT json_group_array(json(faults)) FROM (
            SELECT CASE machine WHEN 'shaky' THEN faults ELSE '[]' END AS faults
            FROM take WHERE climb_id = asked.value AND machine IN ('clean', 'shaky', 'near')
            ORDER BY played_at DESC LIMIT ?))
        FROM json_each(?) AS asked
    """
    found: dict[int, list[tuple[Fault, ...]]] = {}
    for climb, faults in _rows(asked, most, json.dumps(list(climb_ids))):
        found[climb] = [_faults(one) for one in json.loads(faults or "[]")]
    return found


def notes_since(begins: Mapping[int, datetime], most: int) -> dict[int, list[Said]]:
    """Return the notes that were written on the takes of some students since a moment each, the newest first."""
    asked = """
        SELECT json_extract(asked.value, '$[0]'), (SELECT json_group_array(json_array(played_at, note, ear_by)) FROM (
            SELECT played_at, note, coalesce(ear_by, '') AS ear_by FROM take
            WHERE student_id = json_extract(asked.value, '$[0]') AND played_at >= json_extract(asked.value, '$[1]')
              AND note <> '' ORDER BY played_at DESC LIMIT ?))
        FROM json_each(?) AS asked
    """
    pairs = json.dumps([(student, _kept(begin)) for student, begin in begins.items()])
    found: dict[int, list[Said]] = {student: [] for student in begins}
    for student, notes in _rows(asked, most, pairs):
        for at, note, by in json.loads(notes or "[]"):
            try:
                found[student].append(Said(moment(at), note, by))
            except ValueError:
                continue
    return found


def _faults(values: Sequence[Any]) -> tuple[Fault, ...]:
    try:
        return _FAULTS.validate_python(values)
    except ValueError:
        return ()


def _rows(asked: str, *values: object) -> list[tuple[Any, ...]]:
    return list(database.execute_sql(asked, values).fetchall())
