"""Groups: who is in one, which part is whose, and one drill handed to all."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime

from ripresa.core.changes import Part
from ripresa.core.climbs import ClimbPlan
from ripresa.core.errors import NotFound, OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.studio import Climb, Group, Student
from ripresa.store import groups, students
from ripresa.store.tables import database
from ripresa.work.climbs import Stood, start_climb
from ripresa.work.desk import nearest_climbs


def members_of(group: Group) -> list[tuple[Student, Part, Stood | None]]:
    """Return the members of a group with their part and the climb that stands nearest; those who are gone left out."""
    kept = {}
    for member in group.details.members:
        try:
            kept[member.student_id] = students.find_student(member.student_id)
        except NotFound:
            continue
    nearest = nearest_climbs(list(kept))
    return [
        (kept[one.student_id], one.part, nearest.get(one.student_id))
        for one in group.details.members
        if one.student_id in kept
    ]


def hand_out(
    group_id: int,
    drill_id: int,
    plan: ClimbPlan,
    starts: Mapping[int, Fraction],
    now: datetime,
    key: str | None = None,
) -> list[Climb]:
    """Start a climb with one drill for each member of a group, all or none; the same key twice is the same climbs.

    Args:
        starts: bpm of those who start elsewhere than the plan, by student.

    Raises:
        NotFound: There is no such group or drill.
        OutOfRange: It has no members, or one of them cannot climb so; the sentence says who.
    """
    found = [(student, part) for student, part, _ in members_of(groups.find_group(group_id))]
    if not found:
        raise OutOfRange("This group has no members yet. Add some first.", field="members")
    made = []
    with database.atomic():
        for student, _ in found:
            try:
                own = replace(plan, start=starts.get(student.id, plan.start), clicks=student.clicks or plan.clicks)
                one = start_climb(student.id, drill_id, None, own, now, f"{key}-{student.id}" if key else None)
            except OutOfRange as error:
                raise OutOfRange(f"{student.details.name}: {error.message}", field=error.field) from error
            made.append(one)
    return made
