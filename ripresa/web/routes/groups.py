"""Groups: a class, its members and their parts; one drill handed to all."""

from flask import Response
from pydantic import Field

from ripresa.core.changes import Part, told_part
from ripresa.core.climbs import ClimbPlan
from ripresa.core.exact import Fraction
from ripresa.core.studio import Group, GroupDetails
from ripresa.formats.wire import Shape, WireExact
from ripresa.store import groups as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Once
from ripresa.web.shapes.climbs import ClimbShape, climb_shape
from ripresa.web.shapes.students import StudentShape, student_shape
from ripresa.work.climbs import as_they_stand
from ripresa.work.groups import hand_out, members_of

api = blueprint("groups")


class GroupPath(Shape):
    """Which group."""

    group_id: Id


class GroupBody(Once):
    """What is written down about a new group."""

    details: GroupDetails


class ChangedGroup(Shape):
    """What is written down about a group, and the revision that it was made from."""

    details: GroupDetails
    based_on: Id


class StartOf(Shape):
    """Where one member starts, in bpm."""

    student_id: Id
    start: WireExact


class HandOutBody(Once):
    """A drill for all of a group: a plan, and the start of those who have another one than the plan says."""

    drill_id: Id
    plan: ClimbPlan
    starts: list[StartOf] = Field(default_factory=list, max_length=60)


class MemberShape(Shape):
    """A member, the part of a drill that is theirs, and that in words; and the climb played last."""

    student: StudentShape
    part: Part
    part_words: str
    climb: ClimbShape | None


class StudentGroupShape(Shape):
    """A group with its members; those who are gone are left out."""

    id: int
    name: str
    lesson_weekday: int | None
    lesson_time: str
    members: list[MemberShape]
    revision: int


class GroupList(Shape):
    """All groups, by name."""

    groups: list[StudentGroupShape]


class HandedOut(Shape):
    """The climbs that were started, in the order of the members."""

    climbs: list[ClimbShape]


class DeletedGroup(Shape):
    """What was deleted, by name."""

    name: str


@api.get("/groups", responses={200: GroupList})
def list_groups() -> Response:
    """All groups."""
    return answer(GroupList(groups=[_shape(one) for one in store.all_groups()]))


@api.post("/groups", responses={201: StudentGroupShape})
def add_group(body: GroupBody) -> Response:
    """Add a group."""
    return answer(_shape(store.add_group(body.details, now(), body.key)), 201)


@api.get("/groups/<int:group_id>", responses={200: StudentGroupShape})
def show_group(path: GroupPath) -> Response:
    """One group."""
    return answer(_shape(store.find_group(path.group_id)))


@api.put("/groups/<int:group_id>", responses={200: StudentGroupShape})
def change_group(path: GroupPath, body: ChangedGroup) -> Response:
    """Change what is written down about a group."""
    return answer(_shape(store.change_group(path.group_id, body.details, body.based_on)))


@api.delete("/groups/<int:group_id>", responses={200: DeletedGroup})
def delete_group(path: GroupPath) -> Response:
    """Delete a group; its students and their climbs stay."""
    name = store.find_group(path.group_id).details.name
    store.delete_group(path.group_id)
    return answer(DeletedGroup(name=name))


@api.post("/groups/<int:group_id>/climbs", responses={201: HandedOut})
def hand_out_to_all(path: GroupPath, body: HandOutBody) -> Response:
    """Start a climb with one drill for each member, each from its own start."""
    starts: dict[int, Fraction] = {one.student_id: one.start for one in body.starts}
    made = hand_out(path.group_id, body.drill_id, body.plan, starts, now(), body.key)
    return answer(HandedOut(climbs=[climb_shape(one) for one in as_they_stand(made)]), 201)


def _shape(group: Group) -> StudentGroupShape:
    details = group.details
    return StudentGroupShape(
        id=group.id,
        name=details.name,
        lesson_weekday=details.lesson_weekday,
        lesson_time=details.lesson_time,
        members=[
            MemberShape(
                student=student_shape(student),
                part=part,
                part_words=", ".join(told_part(part)) or "all of it",
                climb=climb_shape(stood) if stood else None,
            )
            for student, part, stood in members_of(group)
        ],
        revision=group.revision,
    )
