"""Takes: received, matched, measured, judged and kept."""

from datetime import datetime
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, BeforeValidator, Field

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climbs import MOST_RUNGS
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.studio import LONGEST_NOTE
from ripresa.core.takes import Source, StandIn, measure_latency
from ripresa.formats.wire import WireExact
from ripresa.store import takes as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Seconds
from ripresa.web.shapes.climbs import ClimbShape, climb_shape
from ripresa.web.shapes.takes import TakeLineShape, TakeShape, take_line_shape, take_shape
from ripresa.work.climbs import as_they_stand
from ripresa.work.takes import USUAL_EVENNESS, Played, judge_take, stand_in_plays

api = blueprint("takes")


def _named(click: object) -> object:
    """Return the click of a take; one that waited in a browser since before the others came is a name alone."""
    return {"kind": "named", "plan": click} if isinstance(click, str) else click


class TakePath(BaseModel):
    """Which take."""

    take_id: str


class TakesQuery(BaseModel):
    """Whose takes, or of which climb; the last ones."""

    student_id: Id | None = None
    climb_id: Id | None = None
    most: int = Field(default=50, ge=1, le=500)


class TakeBody(BaseModel):
    """A take as it was played.

    Times in seconds from the start of the first turn of the loop; latency in ms.
    """

    id: str = Field(pattern=r"^[A-Za-z0-9-]{8,64}$")
    student_id: Id
    climb_id: Id | None = None
    rung: int | None = Field(default=None, ge=1, le=MOST_RUNGS)
    drill_id: Id
    version: Id
    bpm: WireExact
    click: Annotated[Click, BeforeValidator(_named)]
    source: Source
    played_at: datetime
    start: float = Field(default=0.0, ge=0, allow_inf_nan=False)
    end: float = Field(gt=0, allow_inf_nan=False)
    latency_ms: float = Field(default=0.0, ge=-1000, le=1000, allow_inf_nan=False)
    is_calibrated: bool = False
    onsets: list[Seconds] = Field(default_factory=list)
    ear: Literal["clean", "shaky"] | None = None
    by: Literal["teacher", "student"] = "teacher"
    note: str = Field(default="", max_length=LONGEST_NOTE)


class JudgedTake(BaseModel):
    """A take with its figures, and the climb as it stands after it."""

    take: TakeShape
    climb: ClimbShape | None


class TakeList(BaseModel):
    """Takes, oldest first."""

    takes: list[TakeLineShape]


class NoteBody(BaseModel):
    """A note on a take."""

    note: str = Field(max_length=LONGEST_NOTE)


class StandInBody(BaseModel):
    """Who stands in, and what is to be played, from when to when in seconds."""

    drill: Drill
    bpm: WireExact
    start: float = Field(default=0.0, ge=0, allow_inf_nan=False)
    end: float | None = Field(default=None, gt=0, allow_inf_nan=False)
    player: StandIn


class Onsets(BaseModel):
    """Onsets in seconds, rising, and when the stretch ends."""

    onsets: list[float]
    end: float


class LatencyBody(BaseModel):
    """Clicks as they sounded and taps as they arrived, in seconds on one clock."""

    due: list[Seconds] = Field(max_length=500)
    played: list[Seconds] = Field(max_length=500)


class Latency(BaseModel):
    """The delay of a source in ms."""

    latency_ms: float
    label: str


@api.post("/takes", responses={200: JudgedTake, 201: JudgedTake})
def add_take(body: TakeBody) -> Response:
    """Keep a take and say what it measured; the same id again is the same take, as it was kept (200)."""
    judged = judge_take(_played(body))
    climb = climb_shape(as_they_stand([judged.climb])[0]) if judged.climb else None
    shape = JudgedTake(take=take_shape(judged.take, judged.evenness), climb=climb)
    return answer(shape, 201 if judged.is_new else 200)


@api.get("/takes", responses={200: TakeList})
def list_takes(query: TakesQuery) -> Response:
    """Takes of a student or a climb."""
    found = store.take_lines(student_id=query.student_id, climb_id=query.climb_id, most=query.most)
    return answer(TakeList(takes=[take_line_shape(take) for take in reversed(found)]))


@api.get("/takes/<take_id>", responses={200: TakeShape})
def show_take(path: TakePath) -> Response:
    """A take with its figures and pictures."""
    return answer(take_shape(store.find_take(path.take_id), USUAL_EVENNESS))


@api.put("/takes/<take_id>/note", responses={200: TakeShape})
def write_note(path: TakePath, body: NoteBody) -> Response:
    """Keep a note on a take."""
    return answer(take_shape(store.write_note(path.take_id, body.note.strip()), USUAL_EVENNESS))


@api.post("/stand-in", responses={200: Onsets})
def stand_in(body: StandInBody) -> Response:
    """What the stand-in player plays."""
    onsets, end = stand_in_plays(body.drill, body.bpm, body.start, body.end, body.player)
    return answer(Onsets(onsets=list(onsets), end=end))


@api.post("/latency", responses={200: Latency})
def calibrate(body: LatencyBody) -> Response:
    """How late taps arrive, from tapping along with a click."""
    found = measure_latency(sorted(body.due), sorted(body.played))
    return answer(
        Latency(
            latency_ms=round(found.value * 1000, 1),
            label=f"{found.value * 1000:.0f} ms ± {found.half_width * 1000:.0f}, from {found.count} taps",
        )
    )


def _played(body: TakeBody) -> Played:
    return Played(
        id=body.id,
        student_id=body.student_id,
        climb_id=body.climb_id,
        rung=body.rung,
        drill_id=body.drill_id,
        version=body.version,
        bpm=body.bpm,
        click=body.click,
        source=body.source,
        played_at=body.played_at if body.played_at.tzinfo else now(),
        start=body.start,
        end=body.end,
        onsets=tuple(body.onsets),
        latency=body.latency_ms / 1000,
        is_calibrated=body.is_calibrated,
        ear=body.ear,
        by=body.by,
        note=body.note,
    )
