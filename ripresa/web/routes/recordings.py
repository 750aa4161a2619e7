"""Sound that comes in, what is heard in it, files that become takes, and the stand-in before the microphone."""

import json
from datetime import datetime
from functools import partial
from pathlib import Path
from typing import Any

from flask import Response, request
from pydantic import Field, TypeAdapter

from ripresa.core.changes import Part
from ripresa.core.drill import Drill
from ripresa.core.errors import OutOfRange
from ripresa.core.listening import As, Listened, listen
from ripresa.core.studio import LONGEST_NOTE
from ripresa.core.takes import HeardNote, heard_in, measure_latency
from ripresa.formats.listened_json import OnsetLine, QualityLine, quality_line
from ripresa.formats.midi_take import midi_take
from ripresa.formats.recording import recorded
from ripresa.formats.sound_in import read_sound
from ripresa.formats.wire import Shape, WireExact, adapter
from ripresa.store.drills import find_drill
from ripresa.web.answers import answer, incoming, now
from ripresa.web.blueprint import blueprint
from ripresa.web.jobs import Tell, apart
from ripresa.web.numbers import Id, Key, Seconds
from ripresa.web.routes.takes import JudgedTake, StandInBody, judged_shape
from ripresa.work.recordings import (
    heard_recording,
    keep_sound,
    take_of_file,
)
from ripresa.work.takes import Played, asked, stand_in_plays

api = blueprint("recordings")
_NOTES: TypeAdapter[tuple[HeardNote, ...]] = adapter(tuple[HeardNote, ...])
MOST_CLICKS = 50_000
_MIDI = (".mid", ".midi")


class PiecePath(Shape):
    """Which piece of which recording."""

    key: Key
    number: int


class RecordingPath(Shape):
    """Which recording on its way in."""

    key: Key


class PieceShape(Shape):
    """How many bytes have come."""

    bytes: int


class ListenBody(Shape):
    """What was played when a recording was made.

    Args:
        rate: Samples a second. sounds_as: How notes begin; as is usual for the instrument if left out.
        clicks: That were planned, in seconds of the recording, in order; alone: how many before the first note.
        latency_ms: By how much the microphone is known to be late.
    """

    rate: int = Field(ge=1, le=1_000_000)
    drill: Drill
    bpm: WireExact
    part: Part | None = None
    sounds_as: As | None = None
    clicks: list[Seconds] = Field(default_factory=list, max_length=MOST_CLICKS)
    alone: int = Field(default=0, ge=0, le=MOST_CLICKS)
    latency_ms: float | None = Field(default=None, ge=-1000, le=1000, allow_inf_nan=False)


class ListenedShape(Shape):
    """What was heard: onsets in seconds of the recording, its quality, and clicks under which nothing is heard."""

    quality: QualityLine
    onsets: list[OnsetLine]
    hidden: list[float]
    click_is_heard: bool


class RoundBody(Shape):
    """Clicks that went out of the loudspeaker and came back into the microphone, in seconds of the recording."""

    rate: int = Field(ge=1, le=1_000_000)
    clicks: list[Seconds] = Field(max_length=500)


class RoundShape(Shape):
    """What the devices add, in ms, and the half-width of that."""

    latency_ms: float
    half_width_ms: float


class TakeFileBody(Shape):
    """A file that came in, and what it is to be a take of."""

    key: Key
    name: str = Field(max_length=300)
    id: Key
    student_id: Id
    climb_id: Id | None = None
    rung: int | None = Field(default=None, ge=1, le=1000)
    drill_id: Id
    version: Id
    bpm: WireExact
    part: Part | None = None
    sounds_as: As | None = None
    played_at: datetime


class FileTakeShape(JudgedTake):
    """A file as a take: where it begins in the file, in seconds."""

    at: float


@api.post("/recordings/<key>/pieces/<int:number>", responses={200: PieceShape})
def add_piece(path: PiecePath) -> Response:
    """Add a piece to a recording: samples of 16 bits of one channel, the lowest byte first, or a piece of a file."""
    return answer(PieceShape(bytes=incoming().add(path.key, path.number, request.get_data())))


@api.post("/recordings/<key>/listen", responses={200: ListenedShape})
def listen_to(path: RecordingPath, body: ListenBody) -> Response:
    """What is heard in a recording that came in."""
    sound = incoming().sound(path.key, body.rate)
    latency = None if body.latency_ms is None else body.latency_ms / 1000
    found = heard_recording(
        sound, body.drill, body.bpm, body.part, sorted(body.clicks), body.alone, latency, body.sounds_as
    )
    return answer(_listened(found))


@api.post("/recordings/<key>/latency", responses={200: RoundShape})
def measure_round(path: RecordingPath, body: RoundBody) -> Response:
    """What the devices add: clicks out of the loudspeaker and back into the microphone."""
    found = listen(incoming().sound(path.key, body.rate), "clapped")
    if found.quality.troubles and found.quality.troubles[0] == "silent":
        raise OutOfRange(
            "The microphone does not hear the click. Turn the loudspeaker up, or take the headphones off, and bring "
            "them nearer to each other.",
            field="played",
        )
    late = measure_latency(sorted(body.clicks), [one.at for one in found.onsets])
    return answer(
        RoundShape(latency_ms=round(late.value * 1000, 1), half_width_ms=round(max(0.5, late.half_width * 1000), 1))
    )


@api.post("/takes/from-file", responses={201: FileTakeShape})
def take_from_file(body: TakeFileBody) -> Response:
    """Make a take of a recording or a MIDI file: its beginning is found, another tempo is refused."""
    file = incoming().file(body.key)
    drill = find_drill(body.drill_id, body.version).drill
    is_midi = body.name.lower().endswith(_MIDI)
    notes = midi_take(file.read_bytes()) if is_midi else _heard_apart(file, drill, body)
    asked_for = Played(
        id=body.id,
        student_id=body.student_id,
        climb_id=body.climb_id,
        rung=body.rung,
        drill_id=body.drill_id,
        version=body.version,
        bpm=body.bpm,
        click=drill.click,
        source="midi" if is_midi else "file",
        played_at=body.played_at if body.played_at.tzinfo else now(),
        start=0.0,
        end=0.0,
        part=body.part,
        note=f"From {body.name}."[:LONGEST_NOTE],
    )
    kept, at = take_of_file(asked_for, notes)
    if not is_midi:
        keep_sound(kept.take, partial(read_sound, file), at, now())
    return answer(FileTakeShape(**judged_shape(kept).__dict__, at=round(at, 3)), 201)


@api.post("/stand-in/recording")
def stand_in_recording(body: StandInBody) -> Response:
    """What the stand-in player plays, as a recording that begins half a second before its first beat."""
    notes, _ = stand_in_plays(body.drill, body.bpm, body.start, body.end, body.player, body.part)
    reading, _ = asked(body.drill, body.part)
    return Response(recorded(notes, reading.instrument.voice), mimetype="audio/wav")


def _heard_apart(file: Path, drill: Drill, body: TakeFileBody) -> tuple[HeardNote, ...]:
    """Return what is heard in a file of sound; in a process of its own, as what reads such files is not ours."""
    told = file.with_name(f"{file.name}.notes")
    try:
        apart(partial(_hear_file, file, drill, body.bpm, body.part, body.sounds_as), told, lambda _done: None)
        return _NOTES.validate_json(told.read_bytes())
    except RuntimeError as error:
        raise OutOfRange("This file could not be listened to: it may be broken. Choose another one.") from error
    finally:
        told.unlink(missing_ok=True)


def _hear_file(
    file: Path, drill: Drill, bpm: Any, part: Part | None, sounds_as: As | None, target: Path, _tell: Tell
) -> None:
    notes = heard_in(heard_recording(read_sound(file), drill, bpm, part, sounds_as=sounds_as))
    target.write_text(json.dumps([{"at": note.at, "level": note.level} for note in notes]))


def _listened(found: Listened) -> ListenedShape:
    return ListenedShape(
        quality=quality_line(found),
        onsets=[OnsetLine(at=round(one.at, 5), level=round(one.level, 1)) for one in found.onsets],
        hidden=[round(one, 5) for one in found.hidden],
        click_is_heard=found.click_late is not None,
    )
