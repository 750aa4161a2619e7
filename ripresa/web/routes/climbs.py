"""Climbs: planned, started, moved."""

from collections.abc import Sequence

from flask import Response
from pydantic import Field

from ripresa.core.changes import Overrides, Turned, overridden
from ripresa.core.climbs import ClimbPlan, Decision, Order
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.exact import label, short
from ripresa.core.reading import read
from ripresa.core.studio import Climb
from ripresa.core.takes import Limits
from ripresa.formats.wire import Shape
from ripresa.store import climb_lists, drills
from ripresa.store import climbs as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count, Id, Once
from ripresa.web.query import Query
from ripresa.web.shapes.climb_map import MapShape, map_shape
from ripresa.web.shapes.climbs import ClimbShape, LadderShape, climb_shape, ladder_shape
from ripresa.web.shapes.drills import DrillShape, drill_shape
from ripresa.work.assignments import cautions_of, set_of, start_set, take_own, take_version
from ripresa.work.climbs import as_they_stand, change_clicks, change_limits, ladder, map_of, move_on, start_climb

api = blueprint("climbs")


class ClimbPath(Shape):
    """Which climb."""

    climb_id: Id


class MovePath(ClimbPath):
    """Which move of a climb."""

    move_id: Id


class SearchQuery(Query):
    """Whose climbs, everyone's if left out; those with some words in the name of student or drill; how many at most."""

    student_id: Id | None = None
    words: str = Field(default="", max_length=200)
    most: int = Field(default=60, ge=1, le=200)


class LadderBody(Shape):
    """A plan over a drill, to look at first."""

    drill_id: Id
    version: Id | None = None
    plan: ClimbPlan
    overrides: Overrides | None = None


class ClimbBody(Once):
    """A climb to start."""

    student_id: Id
    drill_id: Id
    version: Id | None = None
    plan: ClimbPlan
    overrides: Overrides | None = None


class SetBody(Once):
    """A drill turned through a list, for a student: a climb for each variant.

    ``over`` is what every one of them has besides.
    """

    student_id: Id
    drill_id: Id
    version: Id | None = None
    turned: Turned
    plan: ClimbPlan
    over: Overrides = Overrides()


class SetPath(Shape):
    """Which set of variants."""

    set_key: str


class VersionBody(Shape):
    """Another version of the drill; ``based_on`` is the revision of the climb."""

    version: Id
    based_on: Id


class OwnBody(Once):
    """The drill that is the student’s own from now on; ``based_on`` is the revision of the climb."""

    drill: Drill
    based_on: Id


class SetToMakeShape(Shape):
    """The variants of a set before it is started, how long once through takes, and what it cannot have."""

    names: list[str]
    sentence: str
    left_out: list[str]


class MoveBody(Once):
    """What was decided after a take.

    ``from_rung`` is the rung it was decided on, so that a press that arrives
    twice moves once; so does the key, which a word to stay needs.
    """

    decision: Decision
    from_rung: Count
    take_id: str | None = None
    reason: str = ""


class ClicksBody(Shape):
    """Another click ladder for a climb.

    ``from_rung`` is the rung that it stood on, ``based_on`` the revision of the climb.
    """

    clicks: list[Click]
    click_order: Order = "with_tempo"
    from_rung: Count
    based_on: Id


class LimitsBody(Shape):
    """What takes of a climb are held to; ``based_on`` is the revision of the climb."""

    limits: Limits
    based_on: Id


class ClimbList(Shape):
    """Climbs, and how many there are of the kind."""

    climbs: list[ClimbShape]
    count: int


@api.get("/climbs", responses={200: ClimbList})
def list_climbs(query: SearchQuery) -> Response:
    """Climbs of one student, or of all in use, the last played first."""
    found = climb_lists.search_climbs(query.words, query.most, query.student_id)
    return answer(_list(found.climbs, found.count))


@api.post("/climbs/ladder", responses={200: LadderShape})
def show_ladder(body: LadderBody) -> Response:
    """The rungs of a plan, before it is started."""
    drill = drills.find_drill(body.drill_id, body.version).drill
    return answer(ladder_shape(ladder(body.plan, overridden(drill, body.overrides or Overrides()))))


@api.post("/climbs", responses={201: ClimbShape})
def begin(body: ClimbBody) -> Response:
    """Start a climb on its first rung."""
    climb = start_climb(body.student_id, body.drill_id, body.version, body.plan, now(), body.key, body.overrides)
    return answer(_standing(climb), 201)


@api.post("/climbs/set/look", responses={200: SetToMakeShape})
def look_at_set(body: SetBody) -> Response:
    """The variants of a drill, before a climb is started for each."""
    found = set_of(body.drill_id, body.version, body.turned, body.plan, body.over).found
    count, minutes = len(found.variants), short(found.seconds / 60, 1)
    return answer(
        SetToMakeShape(
            names=[one.name for one in found.variants],
            sentence=f"{count} variants, once through in {minutes} minutes at {label(body.plan.start)}.",
            left_out=list(found.left_out),
        )
    )


@api.post("/climbs/set", responses={201: ClimbList})
def begin_set(body: SetBody) -> Response:
    """Start a climb for each variant of a drill, in their order."""
    made = start_set(body.student_id, body.drill_id, body.version, body.turned, body.plan, body.over, now(), body.key)
    return answer(_list(made, len(made)), 201)


@api.get("/climbs/set/<string:set_key>", responses={200: ClimbList})
def show_set(path: SetPath) -> Response:
    """The climbs of a set of variants, in its order."""
    found = climb_lists.climbs_of_set(path.set_key)
    return answer(_list(found, len(found)))


@api.get("/climbs/<int:climb_id>/drill", responses={200: DrillShape})
def show_drill(path: ClimbPath) -> Response:
    """The drill of a climb as its student plays it: the version, with what differs laid over it."""
    return answer(drill_shape(store.find_climb(path.climb_id).drill))


@api.put("/climbs/<int:climb_id>/version", responses={200: ClimbShape})
def give_version(path: ClimbPath, body: VersionBody) -> Response:
    """Let a climb go on with another version of its drill."""
    return answer(_standing(take_version(path.climb_id, body.version, body.based_on)))


@api.put("/climbs/<int:climb_id>/own", responses={200: ClimbShape})
def give_own(path: ClimbPath, body: OwnBody) -> Response:
    """Let a climb go on with a drill of its student’s own; the one that it was of stays as it is."""
    read(body.drill)
    return answer(_standing(take_own(path.climb_id, body.drill, body.based_on, now(), body.key)))


@api.get("/climbs/<int:climb_id>", responses={200: ClimbShape})
def show_climb(path: ClimbPath) -> Response:
    """One climb."""
    return answer(_standing(store.find_climb(path.climb_id)))


@api.get("/climbs/<int:climb_id>/map", responses={200: MapShape})
def show_map(path: ClimbPath) -> Response:
    """The map of a climb: tempo across, divisions up, each place in notes a second."""
    climb = store.find_climb(path.climb_id)
    return answer(map_shape(map_of(climb.id), climb.rung))


@api.post("/climbs/<int:climb_id>/moves", responses={201: ClimbShape})
def move(path: ClimbPath, body: MoveBody) -> Response:
    """Go up, stay or go back; the teacher's word overrules the rule's and is kept with its reason."""
    climb = move_on(
        path.climb_id,
        body.decision,
        body.from_rung,
        now(),
        take_id=body.take_id,
        reason=body.reason,
        key=body.key,
    )
    return answer(_standing(climb), 201)


@api.delete("/climbs/<int:climb_id>/moves/<int:move_id>", responses={200: ClimbShape})
def undo_move(path: MovePath) -> Response:
    """Take back the last move of a climb: it stands where it stood before."""
    return answer(_standing(store.undo_move(path.climb_id, path.move_id)))


@api.put("/climbs/<int:climb_id>/clicks", responses={200: ClimbShape})
def give_clicks(path: ClimbPath, body: ClicksBody) -> Response:
    """Give a climb another click ladder; it stays at its tempo, and its takes stay with theirs."""
    climb = change_clicks(path.climb_id, body.clicks, body.click_order, body.from_rung, body.based_on)
    return answer(_standing(climb))


@api.put("/climbs/<int:climb_id>/limits", responses={200: ClimbShape})
def give_limits(path: ClimbPath, body: LimitsBody) -> Response:
    """Hold the takes of a climb to other limits from now on."""
    return answer(_standing(change_limits(path.climb_id, body.limits, body.based_on)))


def _list(found: Sequence[Climb], count: int) -> ClimbList:
    return ClimbList(climbs=[climb_shape(stood) for stood in as_they_stand(found)], count=count)


def _standing(climb: Climb) -> ClimbShape:
    return climb_shape(as_they_stand([climb])[0], cautions_of(climb))
