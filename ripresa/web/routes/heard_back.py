"""Takes that are played back beside the click and the ideal, and recordings that are kept: shown and deleted."""

from typing import Any, Literal

from flask import Response, send_file

from ripresa.core.errors import NotFound
from ripresa.core.exact import plural
from ripresa.formats.play_along import Heard
from ripresa.formats.recording import wav
from ripresa.formats.wire import Shape
from ripresa.store import recordings as store
from ripresa.store import takes as kept_takes
from ripresa.store.students import names_of_all
from ripresa.web.answers import answer, incoming, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id
from ripresa.web.query import Query
from ripresa.work.recordings import kept_sound, played_back

api = blueprint("heard_back")


class TakeOfPath(Shape):
    """Which take."""

    take_id: str


class StudentQuery(Query):
    """Whose recordings; all of them without a number."""

    student_id: Id | None = None


class BackQuery(Query):
    """What is heard of a take that is played back."""

    take: bool = True
    click: bool = True
    notes: bool = False


class BackShape(Shape):
    """How a take can be played back, and until when its recording is kept; empty where it is not."""

    kind: Literal["recorded", "notes", "none"]
    until: str
    sentence: str


class KeptShape(Shape):
    """A recording that is kept."""

    take_id: str
    student_id: int
    student: str
    seconds: float
    size: str
    made_at: str
    until: str


class KeptList(Shape):
    """Recordings that are kept, the newest first, and what they are together."""

    recordings: list[KeptShape]
    sentence: str


@api.get("/takes/<take_id>/back", responses={200: BackShape})
def how_back(path: TakeOfPath) -> Response:
    """How a take can be played back."""
    take = kept_takes.find_take(path.take_id)
    try:
        until = store.find_recording(path.take_id).until.isoformat()
    except NotFound:
        until = ""
    if until or incoming().of_take(path.take_id):
        sentence = "" if until else "The recording is gone when others come: this student’s are not kept."
        return answer(BackShape(kind="recorded", until=until, sentence=sentence))
    if take.notes:
        return answer(BackShape(kind="notes", until="", sentence="Its notes, in Ripresa’s own sounds."))
    return answer(BackShape(kind="none", until="", sentence="Nothing of it was recorded."))


@api.get("/takes/<take_id>/sound.wav")
def hear_back(path: TakeOfPath, query: BackQuery) -> Any:
    """A take as it was played, beside the click and the ideal."""
    take_id = kept_takes.find_take(path.take_id).id
    name = f"{take_id}-{query.take:d}{query.click:d}{query.notes:d}.wav"
    target = incoming().folder / f"back-{name}"
    if not target.is_file():
        sound = incoming().of_take(take_id) or kept_sound(take_id)
        made = played_back(take_id, sound, Heard(click=query.click, notes=query.notes), own=query.take)
        incoming().put_back(target, wav(made))
    return send_file(target, "audio/wav", conditional=True)


@api.get("/recordings", responses={200: KeptList})
def list_recordings(query: StudentQuery) -> Response:
    """Recordings that are kept, and until when."""
    store.sweep(now())
    return answer(_kept(query.student_id))


@api.delete("/recordings", responses={200: KeptList})
def delete_all(query: StudentQuery) -> Response:
    """Delete all recordings, or those of a student."""
    store.delete_recordings(student_id=query.student_id)
    incoming().forget()
    return answer(_kept(query.student_id))


@api.delete("/takes/<take_id>/recording", responses={200: KeptList})
def delete_one(path: TakeOfPath) -> Response:
    """Delete the recording of a take; the take stays."""
    store.find_recording(path.take_id)
    store.delete_recordings(path.take_id)
    incoming().forget(path.take_id)
    return answer(_kept(None))


def _kept(student_id: int | None) -> KeptList:
    names = names_of_all()
    found = store.recordings(student_id)
    size = sum(one.bytes for one in found)
    sentence = (
        f"{plural(len(found), 'recording')}, {size / 1e6:.1f} MB, on this computer."
        if found
        else "No recordings are kept."
    )
    return KeptList(
        recordings=[
            KeptShape(
                take_id=one.take_id,
                student_id=one.student_id,
                student=names.get(one.student_id, ""),
                seconds=round(one.seconds, 1),
                size=f"{one.bytes / 1e6:.1f} MB",
                made_at=one.made_at.isoformat(),
                until=one.until.isoformat(),
            )
            for one in found
        ],
        sentence=sentence,
    )
