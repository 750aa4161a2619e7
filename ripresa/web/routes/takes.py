"""Takes: received, matched, measured, judged and kept."""

from datetime import datetime
from itertools import pairwise
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, BeforeValidator, Field

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.climbs import MOST_RUNGS, rung_of, steps
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.playing import expected_onsets, most_due, onsets_within
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.core.studio import LONGEST_NOTE, Take
from ripresa.core.takes import (
    MOST_MEASURED,
    Evenness,
    Figures,
    Source,
    StandIn,
    Verdict,
    by_ear,
    match_onsets,
    measure,
    measure_latency,
    play,
    too_long,
    verdict,
)
from ripresa.formats.wire import WireExact
from ripresa.store import climbs, drills, students
from ripresa.store import takes as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Seconds
from ripresa.web.routes.climbs import shapes_of
from ripresa.web.shapes.climbs import ClimbShape
from ripresa.web.shapes.takes import TakeLineShape, TakeShape, take_line_shape, take_shape

api = blueprint("takes")

MOST_ONSETS = 50_000
LONGEST_TAKE = 7200.0


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
    climb = climbs.find_climb(body.climb_id) if body.climb_id is not None else None
    if climb and climb.student.id != body.student_id:
        raise OutOfRange("This climb is another student’s.", field="climb_id")
    evenness: Evenness = climb.plan.evenness if climb else "working"
    students.find_student(body.student_id)
    # Where it was played is told by its tempo and its click: the ladder may have changed on its way here.
    rung = rung_of(steps(climb.plan), body.bpm, body.click, body.rung) if climb else None
    take, is_new = store.add_take(_judged(body, evenness, rung))
    shape = shapes_of([climb])[0] if climb else None
    return answer(JudgedTake(take=take_shape(take, evenness), climb=shape), 201 if is_new else 200)


@api.get("/takes", responses={200: TakeList})
def list_takes(query: TakesQuery) -> Response:
    """Takes of a student or a climb."""
    found = store.take_lines(student_id=query.student_id, climb_id=query.climb_id, most=query.most)
    return answer(TakeList(takes=[take_line_shape(take) for take in reversed(found)]))


@api.get("/takes/<take_id>", responses={200: TakeShape})
def show_take(path: TakePath) -> Response:
    """A take with its figures and pictures."""
    return answer(take_shape(store.find_take(path.take_id), "working"))


@api.put("/takes/<take_id>/note", responses={200: TakeShape})
def write_note(path: TakePath, body: NoteBody) -> Response:
    """Keep a note on a take."""
    return answer(take_shape(store.write_note(path.take_id, body.note.strip()), "working"))


@api.post("/stand-in", responses={200: Onsets})
def stand_in(body: StandInBody) -> Response:
    """What the stand-in player plays."""
    reading, bpm = read(body.drill), check_bpm(body.bpm)
    end = body.end or float(span_seconds(reading.loop_beats, bpm))
    _check_times(body.start, end)
    if most_due(reading, bpm, end - body.start) > MOST_MEASURED:
        raise OutOfRange(f"The stand-in plays up to {MOST_MEASURED:,} notes. Take fewer passes.", field="end")
    due = [at for at, _ in expected_onsets(reading, bpm, body.start, end)]
    changes = [at for at in gear_changes(reading, body, end) if body.start <= at]
    return answer(Onsets(onsets=play(body.player, due, changes), end=end))


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


def gear_changes(reading: Reading, body: StandInBody, end: float) -> list[float]:
    """Return when the division changes, in seconds, over all turns up to the end."""
    starts = [after.start for before, after in pairwise(reading.legs) if before.leaves != after.enters]
    turn = float(span_seconds(reading.loop_beats, body.bpm))
    turns = int(end / turn) + 1
    return [turn * number + float(span_seconds(start, body.bpm)) for number in range(turns) for start in starts]


def _judged(body: TakeBody, evenness: Evenness, rung: int | None) -> Take:
    check_bpm(body.bpm)
    _check_times(body.start, body.end)
    if len(body.onsets) > MOST_ONSETS:
        raise OutOfRange(f"A take holds up to {MOST_ONSETS} onsets.", field="onsets")
    figures = None
    latency = body.latency_ms / 1000
    if body.source == "by_ear":
        if body.ear is None:
            raise OutOfRange("A take by ear needs a mark: clean or shaky.", field="ear")
        judged = by_ear(body.ear, body.by)
    else:
        reading = read(drills.find_drill(body.drill_id, body.version).drill)
        most = max(most_due(reading, body.bpm, body.end - body.start), len(body.onsets))
        if most > MOST_MEASURED:
            judged = too_long(most)
        else:
            due = expected_onsets(reading, body.bpm, body.start, body.end)
            played = onsets_within(sorted(body.onsets), due, body.end, latency)
            match = match_onsets([at for at, _ in due], played, latency)
            figures = measure(reading, body.bpm, due, played, match, latency)
            judged = verdict(figures, evenness, body.source)
    return _take(body, rung, latency, figures, judged)


def _take(body: TakeBody, rung: int | None, latency: float, figures: Figures | None, judged: Verdict) -> Take:
    return Take(
        id=body.id,
        student_id=body.student_id,
        climb_id=body.climb_id,
        rung=rung,
        drill_id=body.drill_id,
        version=body.version,
        bpm=body.bpm,
        click=body.click.words,
        click_plan=body.click,
        source=body.source,
        played_at=body.played_at if body.played_at.tzinfo else now(),
        start=body.start,
        end=body.end,
        latency=latency,
        is_calibrated=body.is_calibrated,
        onsets=tuple(body.onsets),
        figures=figures,
        mark=judged.mark,
        reasons=judged.reasons,
        note=body.note.strip(),
    )


def _check_times(start: float, end: float) -> None:
    if not 0 <= start < end <= LONGEST_TAKE:
        raise OutOfRange("A take ends after it starts, and lasts two hours at most.", field="end")
