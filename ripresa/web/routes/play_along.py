"""Play-along files of one or several rungs, made while one waits."""

from functools import partial
from typing import Any, cast

from flask import Response, current_app, send_file
from pydantic import Field

from ripresa.core.drill.click import Click
from ripresa.core.errors import Conflict
from ripresa.core.exact import label, plural
from ripresa.core.playing import Accompaniment, Before, Pulse, Spoken
from ripresa.formats.play_along import MOST_RUNGS, Heard
from ripresa.formats.play_along_file import FORMATS, PlayAlong, SoundFormat, make_file
from ripresa.formats.recipes import Timbre
from ripresa.formats.wire import Shape, WireExact
from ripresa.store import drills
from ripresa.store.settings import studio_settings
from ripresa.web.answers import answer, file_name
from ripresa.web.blueprint import blueprint
from ripresa.web.jobs import Job, Jobs
from ripresa.web.middle import near_the_middle
from ripresa.web.numbers import Count, Id

api = blueprint("play_along", "/api/play-along")


class RungBody(Shape):
    """A tempo to render at, with its click if not the drill's own."""

    bpm: WireExact
    click: Click | None = None


class PlayAlongBody(Shape):
    """What to render: a drill at one tempo after the other, and what is heard of it."""

    drill_id: Id
    version: Id | None = None
    rungs: list[RungBody] = Field(max_length=MOST_RUNGS)
    sound: SoundFormat = "mp3"
    passes: Count = 2
    click: bool = True
    notes: bool = True
    timbre: Timbre = "beep"
    before: Before = Field(default_factory=Before)
    spoken: Spoken = Field(default_factory=Spoken)
    pulse: Pulse | None = None
    backing: list[Accompaniment] = Field(default_factory=list)
    is_set: bool = False


class JobPath(Shape):
    """Which file."""

    key: str


class JobShape(Shape):
    """How far a file is: steps done of all, what is going on, and whether it can be fetched."""

    key: str
    done: int
    steps: int
    sentence: str
    ready: bool
    failed: bool


def _jobs() -> Jobs:
    return cast(Jobs, current_app.config["JOBS"])


@api.post("", responses={202: JobShape})
def begin(body: PlayAlongBody) -> Response:
    """Begin to make a play-along file."""
    drill = drills.find_drill(body.drill_id, body.version).drill
    asked = PlayAlong(
        drill=drill,
        rungs=tuple((rung.bpm, rung.click) for rung in body.rungs),
        sound=body.sound,
        passes=body.passes,
        heard=Heard(body.click, body.notes, body.timbre, studio_settings().language),
        before=body.before,
        spoken=body.spoken,
        pulse=near_the_middle(body.pulse),
        back=tuple(body.backing),
        is_set=body.is_set,
    )
    asked.check()
    tempi = [label(rung.bpm) for rung in body.rungs]
    span = tempi[0] if len(tempi) == 1 else f"{tempi[0]}-to-{tempi[-1]}"
    # The last step is writing.
    kind, mimetype = ("zip", "application/zip") if body.is_set else (body.sound, FORMATS[body.sound].mimetype)
    job = Job(len(tempi) + 1, f"{file_name(drill.title)}-{span}.{kind}", mimetype)
    return answer(_shape(_jobs().begin(job, partial(make_file, asked)), job), 202)


@api.get("/<key>", responses={200: JobShape})
def progress(path: JobPath) -> Response:
    """How far a file is."""
    return answer(_shape(path.key, _jobs().find(path.key)))


@api.get("/<key>/file")
def fetch(path: JobPath) -> Any:
    """The file, when it is ready."""
    job = _jobs().find(path.key)
    if job.file is None:
        raise Conflict("This file is not ready yet. Ask again when all its steps are done.")
    return send_file(job.file, job.mimetype, as_attachment=True, download_name=job.name)


def _shape(key: str, job: Job) -> JobShape:
    rungs = job.steps - 1
    if job.failed:
        sentence = job.failed
    elif job.file is not None:
        sentence = f"Ready: {plural(rungs, 'tempo', 'tempi')}, {job.file.stat().st_size / 1e6:.1f} MB."
    elif job.done == rungs:
        sentence = "Writing the file."
    else:
        sentence = f"Tempo {job.done + 1} of {rungs}."
    return JobShape(
        key=key,
        done=job.steps if job.file is not None else job.done,
        steps=job.steps,
        sentence=sentence,
        ready=job.file is not None,
        failed=bool(job.failed),
    )
