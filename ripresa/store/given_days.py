"""Days of calendars that were given out, so that the next one changes them, calls them off, and leaves none of old."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from ripresa.store.tables import GivenDayRow, database


@dataclass(frozen=True, slots=True)
class GivenDay:
    """A day of a calendar as it is given out.

    Args:
        day, body: When it is, and what is said of it. sequence: How often that was changed since the first time.
        is_cancelled: Whether it was given out before and is no more.
    """

    uid: str
    day: date
    body: str
    sequence: int
    is_cancelled: bool


def give_out(student_id: int, days: Mapping[str, tuple[date, str]], first: date) -> list[GivenDay]:
    """Return the days of a student's calendar from a day on, with those that were given out before and are no more.

    Args:
        days: By the id that a day has in every calendar: when it is, and what is said of it.
    """
    with database.atomic("IMMEDIATE"):
        own = GivenDayRow.student == student_id
        # What is over stays where it was taken in, and is given out no more.
        GivenDayRow.delete().where(own & (GivenDayRow.day < first.isoformat())).execute()
        before = {str(row.uid): row for row in GivenDayRow.select().where(own)}
        found = []
        for uid, (day, body) in days.items():
            row = before.get(uid)
            is_new = row is None or bool(row.is_cancelled) or row.body != body
            found.append(GivenDay(uid, day, body, 0 if row is None else row.sequence + is_new, is_cancelled=False))
        for uid, row in before.items():
            if uid not in days:
                sequence = row.sequence + (not row.is_cancelled)
                found.append(GivenDay(uid, date.fromisoformat(row.day), row.body, sequence, is_cancelled=True))
        for one in found:
            GivenDayRow.insert(
                student=student_id,
                uid=one.uid,
                day=one.day.isoformat(),
                sequence=one.sequence,
                is_cancelled=one.is_cancelled,
                body=one.body,
            ).on_conflict_replace().execute()
    return sorted(found, key=lambda one: (one.day, one.uid))
