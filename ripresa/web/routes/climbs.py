"""Climbs: planned, started, moved."""

from dataclasses import replace

from flask import Response
from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climbs import ClimbPlan, Decision, Order, steps, with_clicks
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.reading import read
from ripresa.core.studio import LONGEST_NOTE, Climb
from ripresa.store import climbs as store
from ripresa.store import drills
from ripresa.store.standing import standings
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count, Id, Once
from ripresa.web.shapes.climbs import ClimbShape, LadderShape, climb_shape, ladder_shape, word_of

api = blueprint("climbs")


class ClimbPath(BaseModel):
    """Which climb."""

    climb_id: Id


class StudentQuery(BaseModel):
    """Whose climbs; everyone's if left out."""

    student_id: Id | None = None


class LadderBody(BaseModel):
    """A plan over a drill, to look at first."""

    drill_id: Id
    version: Id | None = None
    plan: ClimbPlan


class ClimbBody(Once):
    """A climb to start."""

    student_id: Id
    drill_id: Id
    version: Id | None = None
    plan: ClimbPlan


class MoveBody(Once):
    """What was decided after a take.

    ``from_rung`` is the rung it was decided on, so that a press that arrives
    twice moves once; so does the key, which a word to stay needs.
    """

    decision: Decision
    from_rung: Count
    take_id: str | None = None
    reason: str = ""


class ClicksBody(BaseModel):
    """Another click ladder for a climb.

    ``from_rung`` is the rung that it stood on, ``based_on`` the revision of the climb.
    """

    clicks: list[Click]
    click_order: Order = "with_tempo"
    from_rung: Count
    based_on: Id


class ClimbList(BaseModel):
    """Climbs, the newest first."""

    climbs: list[ClimbShape]


def shapes_of(climbs: list[Climb]) -> list[ClimbShape]:
    """Return the shapes of climbs as they stand."""
    found = standings(climbs)
    return [climb_shape(climb, found[climb.id]) for climb in climbs]


def check_clicks(plan: ClimbPlan, drill: Drill) -> None:
    """Refuse a plan with too many rungs, or with a click that the drill cannot have.

    Raises:
        OutOfRange: With the number of the click in the sentence.
    """
    steps(plan)
    for number, click in enumerate(plan.clicks, start=1):
        try:
            read(replace(drill, click=click))
        except RipresaError as error:
            raise OutOfRange(f"Click {number} of the ladder: {error.message}", field="clicks") from error


@api.get("/climbs", responses={200: ClimbList})
def list_climbs(query: StudentQuery) -> Response:
    """Climbs of one student, or of all."""
    return answer(ClimbList(climbs=shapes_of(store.all_climbs(query.student_id))))


@api.post("/climbs/ladder", responses={200: LadderShape})
def show_ladder(body: LadderBody) -> Response:
    """The rungs of a plan, before it is started."""
    drill = drills.find_drill(body.drill_id, body.version).drill
    check_clicks(body.plan, drill)
    return answer(ladder_shape(body.plan, drill))


@api.post("/climbs", responses={201: ClimbShape})
def start_climb(body: ClimbBody) -> Response:
    """Start a climb on its first rung."""
    check_clicks(body.plan, drills.find_drill(body.drill_id, body.version).drill)
    climb = store.add_climb(body.student_id, body.drill_id, body.version, body.plan, now(), body.key)
    return answer(shapes_of([climb])[0], 201)


@api.get("/climbs/<int:climb_id>", responses={200: ClimbShape})
def show_climb(path: ClimbPath) -> Response:
    """One climb."""
    return answer(shapes_of([store.find_climb(path.climb_id)])[0])


@api.post("/climbs/<int:climb_id>/moves", responses={201: ClimbShape})
def move(path: ClimbPath, body: MoveBody) -> Response:
    """Go up, stay or go back; the teacher's word overrules the rule's and is kept with its reason."""
    climb = store.find_climb(path.climb_id)
    if store.is_kept(body.key):
        return answer(shapes_of([climb])[0], 201)
    if len(body.reason) > LONGEST_NOTE:
        raise OutOfRange(f"A reason has up to {LONGEST_NOTE} signs.", field="reason")
    word = word_of(climb, standings([climb])[climb.id])
    step = {"up": 1, "stay": 0, "back": -1}[body.decision]
    to_rung = body.from_rung + step
    if not 1 <= to_rung <= len(steps(climb.plan)):
        edge = "last" if step > 0 else "first"
        raise OutOfRange(f"This is the {edge} rung of the climb.", field="decision")
    store.add_move(
        climb.id,
        take_id=body.take_id,
        from_rung=body.from_rung,
        to_rung=to_rung,
        offered=word.decision,
        decision=body.decision,
        reason=body.reason.strip() or (word.sentence if word.decision == body.decision else "the teacher’s word"),
        now=now(),
        key=body.key,
    )
    return answer(shapes_of([store.find_climb(climb.id)])[0], 201)


@api.put("/climbs/<int:climb_id>/clicks", responses={200: ClimbShape})
def change_clicks(path: ClimbPath, body: ClicksBody) -> Response:
    """Give a climb another click ladder; it stays at its tempo, and its takes stay with theirs."""
    climb = store.find_climb(path.climb_id)
    plan, places = with_clicks(climb.plan, tuple(body.clicks), body.click_order)
    check_clicks(plan, climb.drill.drill)
    store.change_plan(climb.id, plan, places, body.from_rung, body.based_on)
    return answer(shapes_of([store.find_climb(climb.id)])[0])
