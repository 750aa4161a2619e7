"""Takes: received, matched, measured, judged and kept."""

from dataclasses import replace
from datetime import datetime
from typing import Annotated, Literal

from flask import Response
from pydantic import BeforeValidator, Field

from ripresa.core.changes import Part
from ripresa.core.climbs import MOST_RUNGS
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.studio import LONGEST_NOTE, Ear
from ripresa.core.takes import HeardNote, Source, StandIn, measure_latency
from ripresa.formats.sentences import KEY_PATTERN
from ripresa.formats.wire import Shape, WireExact
from ripresa.store import takes as store
from ripresa.store.remedies import find_remedy, remedies_of
from ripresa.web.answers import answer, incoming, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Key, Once, Seconds
from ripresa.web.query import Query
from ripresa.web.shapes.climbs import ClimbShape, climb_shape
from ripresa.web.shapes.takes import (
    AgainShape,
    KeptRemedyShape,
    TakeLineShape,
    TakeShape,
    again_shape,
    kept_remedy_shape,
    take_line_shape,
    take_shape,
)
from ripresa.work.climbs import as_they_stand
from ripresa.work.recordings import keep_sound
from ripresa.work.remedies import take_remedy
from ripresa.work.takes import (
    MOST_NOTES,
    Kept,
    Played,
    hear_take,
    judge_again,
    judge_take,
    shown_take,
    stand_in_plays,
)

api = blueprint("takes")


def _named(click: object) -> object:
    """Return the click of a take; one that waited in a browser since before the others came is a name alone."""
    return {"kind": "named", "plan": click} if isinstance(click, str) else click


def _eared(ear: object) -> object:
    """Return what a person said; of a take that waited since before more was asked, the mark alone."""
    return {"mark": ear} if isinstance(ear, str) else ear


class TakePath(Shape):
    """Which take."""

    take_id: str


class TakesQuery(Query):
    """Whose takes, or of which climb; the last ones."""

    student_id: Id | None = None
    climb_id: Id | None = None
    most: int = Field(default=50, ge=1, le=500)


class NoteShape(Shape):
    """A note as a source heard it: seconds from the first beat of the first pass; velocity, or dB."""

    at: float = Field(allow_inf_nan=False)
    key: str | None = Field(default=None, max_length=20)
    pitch: int | None = Field(default=None, ge=0, le=127)
    level: float | None = Field(default=None, allow_inf_nan=False)
    until: float | None = Field(default=None, allow_inf_nan=False)

    def heard(self) -> HeardNote:
        """Return it as the core knows it."""
        return HeardNote(self.at, self.key, self.pitch, self.level, self.until)


class RecordedShape(Shape):
    """The recording of a take: its key, samples a second, and where the first beat lies in it, in seconds."""

    key: Key
    rate: int = Field(ge=1, le=1_000_000)
    zero: Seconds


class TakeBody(Shape):
    """A take as it was played.

    Times in seconds from the start of the first turn of the loop; latency in ms. ``onsets`` are moments alone, as
    takes have them that waited in a browser since before notes were sent. ``hidden`` are clicks under which a
    microphone heard nothing.
    """

    id: str = Field(pattern=KEY_PATTERN)
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
    latency_half_ms: float = Field(default=0.0, ge=0, le=500, allow_inf_nan=False)
    is_calibrated: bool = False
    notes: list[NoteShape] = Field(default_factory=list, max_length=MOST_NOTES)
    onsets: list[Seconds] = Field(default_factory=list)
    part: Part | None = None
    remedy_id: Id | None = None
    ear: Annotated[Ear | None, BeforeValidator(_eared)] = None
    by: Literal["teacher", "student"] = "teacher"
    note: str = Field(default="", max_length=LONGEST_NOTE)
    hidden: list[Seconds] = Field(default_factory=list, max_length=MOST_NOTES)
    recording: RecordedShape | None = None


class JudgedTake(Shape):
    """A take with its figures, and the climb as it stands after it."""

    take: TakeShape
    climb: ClimbShape | None


class TakeList(Shape):
    """Takes, oldest first."""

    takes: list[TakeLineShape]


class DeletedTake(Shape):
    """The take that is gone."""

    id: str


class NoteBody(Shape):
    """A note on a take."""

    note: str = Field(max_length=LONGEST_NOTE)


class RemedyPath(Shape):
    """Which remedy."""

    remedy_id: Id


class RemediesQuery(Query):
    """Whose remedies, or of which climb."""

    student_id: Id | None = None
    climb_id: Id | None = None


class RemedyList(Shape):
    """Remedies that were taken."""

    remedies: list[KeptRemedyShape]


class StandInBody(Shape):
    """Who stands in, and what is to be played, from when to when in seconds."""

    drill: Drill
    bpm: WireExact
    start: float = Field(default=0.0, ge=0, allow_inf_nan=False)
    end: float | None = Field(default=None, gt=0, allow_inf_nan=False)
    player: StandIn
    part: Part | None = None


class Heard(Shape):
    """Notes as they were heard, in order, and when the stretch ends, in seconds."""

    notes: list[NoteShape]
    end: float


class EarBody(Shape):
    """What a person says of a take."""

    ear: Ear


class RemedyBody(Once):
    """Which remedy of a take is taken, and its tempo if another than it has."""

    remedy: str = Field(max_length=40)
    bpm: WireExact | None = None


class LatencyBody(Shape):
    """Clicks as they sounded and taps as they arrived, in seconds on one clock."""

    due: list[Seconds] = Field(max_length=500)
    played: list[Seconds] = Field(max_length=500)


class Latency(Shape):
    """The delay of a source in ms, and the half-width of that."""

    latency_ms: float
    half_width_ms: float
    label: str


@api.post("/takes", responses={200: JudgedTake, 201: JudgedTake})
def add_take(body: TakeBody) -> Response:
    """Keep a take and say what it measured; the same id again is the same take, as it was kept (200)."""
    kept = judge_take(_played(body))
    if body.recording is not None:
        _keep_sound(kept, body.recording)
    return answer(judged_shape(kept), 201 if kept.is_new else 200)


@api.get("/takes", responses={200: TakeList})
def list_takes(query: TakesQuery) -> Response:
    """Takes of a student or a climb."""
    found = store.take_lines(student_id=query.student_id, climb_id=query.climb_id, most=query.most)
    return answer(TakeList(takes=[take_line_shape(take) for take in reversed(found)]))


@api.get("/takes/<take_id>", responses={200: TakeShape})
def show_take(path: TakePath) -> Response:
    """A take with its word, its figures and pictures."""
    return answer(take_shape(shown_take(path.take_id)))


@api.get("/takes/<take_id>/again", responses={200: AgainShape})
def show_again(path: TakePath) -> Response:
    """A take judged again under today's rule, beside what was said then, which stays."""
    return answer(again_shape(judge_again(path.take_id)))


@api.delete("/takes/<take_id>", responses={200: DeletedTake})
def delete_take(path: TakePath) -> Response:
    """Delete a take that was kept by mistake; moves that it led to stay, and can be taken back by themselves."""
    found = store.delete_take(path.take_id)
    incoming().forget(found.id)
    return answer(DeletedTake(id=found.id))


@api.put("/takes/<take_id>/note", responses={200: TakeShape})
def write_note(path: TakePath, body: NoteBody) -> Response:
    """Keep a note on a take."""
    store.write_note(path.take_id, body.note.strip())
    return answer(take_shape(shown_take(path.take_id)))


@api.put("/takes/<take_id>/ear", responses={200: JudgedTake})
def hear(path: TakePath, body: EarBody) -> Response:
    """Keep what a person says of a take: it counts, and what the machine said stays beside it."""
    return answer(judged_shape(hear_take(path.take_id, body.ear)))


@api.post("/takes/<take_id>/remedies", responses={201: KeptRemedyShape})
def remedy(path: TakePath, body: RemedyBody) -> Response:
    """Take a remedy of a take; it is kept beside the climb, which waits for it."""
    return answer(kept_remedy_shape(take_remedy(path.take_id, body.remedy, body.bpm, now(), body.key)), 201)


@api.get("/remedies", responses={200: RemedyList})
def list_remedies(query: RemediesQuery) -> Response:
    """Remedies that were taken by a student or on a climb, the newest first."""
    found = remedies_of(student_id=query.student_id, climb_id=query.climb_id)
    return answer(RemedyList(remedies=[kept_remedy_shape(one) for one in found]))


@api.get("/remedies/<int:remedy_id>", responses={200: KeptRemedyShape})
def show_remedy(path: RemedyPath) -> Response:
    """One remedy that was taken."""
    return answer(kept_remedy_shape(find_remedy(path.remedy_id)))


@api.post("/stand-in", responses={200: Heard})
def stand_in(body: StandInBody) -> Response:
    """What the stand-in player plays."""
    notes, end = stand_in_plays(body.drill, body.bpm, body.start, body.end, body.player, body.part)
    return answer(Heard(notes=[_note(note) for note in notes], end=end))


@api.post("/latency", responses={200: Latency})
def calibrate(body: LatencyBody) -> Response:
    """How late taps arrive, from tapping along with a click."""
    found = measure_latency(sorted(body.due), sorted(body.played))
    return answer(
        Latency(
            latency_ms=round(found.value * 1000, 1),
            half_width_ms=round(found.half_width * 1000, 1),
            label=f"{found.value * 1000:.0f} ms ± {found.half_width * 1000:.0f}, from {found.count} taps",
        )
    )


def judged_shape(kept: Kept) -> JudgedTake:
    """Return a kept take with the climb as it stands after it."""
    climb = climb_shape(as_they_stand([kept.climb])[0]) if kept.climb else None
    return JudgedTake(take=take_shape(kept), climb=climb)


def _keep_sound(kept: Kept, recorded: RecordedShape) -> None:
    """Remember the recording of a take until others come, and longer where the student's recordings are kept."""
    incoming().belongs(kept.take.id, recorded.key, recorded.rate, recorded.zero)
    found = incoming().of_take(kept.take.id)
    if found is not None:
        sound, zero = found
        keep_sound(kept.take, lambda: sound, zero, now())
    incoming().seen_to(recorded.key)


def _note(note: HeardNote) -> NoteShape:
    return NoteShape(at=round(note.at, 6), key=note.key, pitch=note.pitch, level=note.level, until=note.until)


def _played(body: TakeBody) -> Played:
    ear = body.ear
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
        notes=tuple(note.heard() for note in body.notes) or tuple(HeardNote(at) for at in body.onsets),
        latency=body.latency_ms / 1000,
        is_calibrated=body.is_calibrated,
        latency_half=body.latency_half_ms / 1000,
        part=body.part,
        remedy_id=body.remedy_id,
        ear=replace(ear, by=body.by) if ear and body.by == "student" else ear,
        note=body.note,
        hidden=tuple(body.hidden),
    )
