"""A log as CSV, taken in: takes that were kept elsewhere. What cannot be read is listed, none is guessed."""

import uuid
from dataclasses import dataclass
from datetime import datetime

from ripresa.core.climbs import laid_rungs, rung_of
from ripresa.core.drill.click import Click, NamedClick
from ripresa.core.exact import label
from ripresa.core.studio import Ear, KeptDrill, Take
from ripresa.formats.log_csv_in import MOST_ROWS, LoggedRow, UnreadRow, read_log
from ripresa.store import climb_lists, drills, students, takes

#: Rows that are told of one by one.
MOST_TOLD = 200
USUAL_SECONDS = 30.0


@dataclass(frozen=True, slots=True)
class TakenIn:
    """What came of a log: takes that are new, those that were there already, and rows that were left out.

    Args:
        measured: Of the new ones, those whose figures stay in the file.
    """

    new: int
    known: int
    measured: int
    left_out: tuple[UnreadRow, ...]


def take_in(student_id: int, data: bytes) -> TakenIn:
    """Keep the takes of a log as this student's; the same row twice is the same take.

    A row belongs to the drill of its title; of a climb with that drill it takes the rung of its tempo.

    Raises:
        NotFound: There is no such student.
        Unreadable: It is no log.
    """
    student = students.find_student(student_id)
    found = read_log(data)
    library = {one.drill.title: one for one in (*drills.all_drills(archived=True), *drills.all_drills())}
    there = {(one.played_at, one.drill_id) for one in takes.take_lines(student_id=student_id, most=MOST_ROWS)}
    left_out = list(found.unread)
    new = known = measured = 0
    for row in found.rows:
        drill = library.get(row.drill)
        if row.student and row.student != student.details.name:
            left_out.append(UnreadRow(row.line, f"It is {row.student}’s, not {student.details.name}’s."))
        elif drill is None:
            left_out.append(
                UnreadRow(row.line, f"There is no drill of the title “{row.drill}”. Make or open it first.")
            )
        elif (_to_the_millisecond(row.played_at), drill.id) in there:
            known += 1
        else:
            _, is_new = takes.add_take(_take(student_id, row, drill))
            new, known = new + is_new, known + (not is_new)
            measured += is_new and row.is_measured
    return TakenIn(new, known, measured, tuple(sorted(left_out, key=lambda one: one.line)))


def _take(student_id: int, row: LoggedRow, drill: KeptDrill) -> Take:
    climb = next((one for one in climb_lists.all_climbs(student_id) if one.drill.id == drill.id), None)
    click: Click = drill.drill.click if row.click in {"", drill.drill.click.words} else NamedClick()
    rung = rung_of(laid_rungs(climb.plan), row.bpm, click, row.rung) if climb else None
    key = f"{student_id} {row.played_at.isoformat()} {row.drill} {label(row.bpm)} {row.click}"
    return Take(
        id=str(uuid.uuid5(uuid.NAMESPACE_OID, key)),
        student_id=student_id,
        climb_id=climb.id if climb else None,
        rung=rung,
        drill_id=drill.id,
        version=drill.version,
        bpm=row.bpm,
        click=row.click or click.words,
        click_plan=click,
        source="by_ear",
        played_at=row.played_at,
        start=0.0,
        end=row.seconds if row.seconds and row.seconds > 0 else USUAL_SECONDS,
        latency=0.0,
        is_calibrated=False,
        notes=(),
        figures=None,
        mark=row.mark,
        reasons=(f"From a log that was read in{f', heard by {row.source}' if row.source else ''}.",),
        note=row.note,
        ear=Ear(row.mark) if row.mark in {"clean", "shaky"} else None,
    )


def _to_the_millisecond(at: datetime) -> datetime:
    """Return a moment as it is kept."""
    return at.replace(microsecond=at.microsecond // 1000 * 1000)
