"""Play-along files of one or several rungs, made while one waits."""

from dataclasses import replace
from typing import Any, cast

from flask import Response, current_app
from flask_openapi import APIBlueprint
from pydantic import BaseModel, Field

from ripresa.core.backing import Part
from ripresa.core.click import Click
from ripresa.core.errors import Conflict
from ripresa.core.exact import label, plural
from ripresa.core.lead import Before
from ripresa.core.performance import perform
from ripresa.core.pulse import Pulse
from ripresa.core.reading import read
from ripresa.core.speech import Spoken
from ripresa.core.tempo import check_bpm
from ripresa.formats.play_along import FORMATS, Heard, SoundFormat, check_length, render_all, write_sound
from ripresa.formats.recipes import Timbre
from ripresa.formats.wire import WireExact
from ripresa.store import drills
from ripresa.web.answers import answer, download, file_name
from ripresa.web.jobs import Job, Jobs

api = APIBlueprint("play_along", __name__, url_prefix="/api/play-along")


class RungBody(BaseModel):
    """A tempo to render at, with its click if not the drill's own."""

    bpm: WireExact
    click: Click | None = None


class PlayAlongBody(BaseModel):
    """What to render: a drill at one tempo after the other, and what is heard of it."""

    drill_id: int
    version: int | None = None
    rungs: list[RungBody]
    sound: SoundFormat = "mp3"
    passes: int = 2
    click: bool = True
    notes: bool = True
    timbre: Timbre = "beep"
    before: Before = Field(default_factory=Before)
    spoken: Spoken = Field(default_factory=Spoken)
    pulse: Pulse | None = None
    backing: list[Part] = Field(default_factory=list)


class JobPath(BaseModel):
    """Which file."""

    key: str


class JobShape(BaseModel):
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
    kept = drills.find_drill(body.drill_id, body.version)
    performances = []
    voice = read(kept.drill).instrument.voice
    for rung in body.rungs:
        drill = replace(kept.drill, click=rung.click) if rung.click else kept.drill
        performances.append(
            perform(
                read(drill),
                check_bpm(rung.bpm),
                before=body.before,
                pulse=body.pulse,
                back=body.backing,
                spoken=body.spoken,
            )
        )
    check_length(performances, body.passes)
    tempi = [label(rung.bpm) for rung in body.rungs]
    span = tempi[0] if len(tempi) == 1 else f"{tempi[0]}-to-{tempi[-1]}"
    # The last step is writing.
    job = Job(len(performances) + 1, f"{file_name(kept.drill.title)}-{span}.{body.sound}", FORMATS[body.sound][1])
    heard = Heard(body.click, body.notes, body.timbre)
    key = _jobs().begin(
        job,
        lambda tell: write_sound(render_all(performances, voice, body.passes, heard, tell), body.sound),
    )
    return answer(_shape(key, job), 202)


@api.get("/<key>", responses={200: JobShape})
def progress(path: JobPath) -> Response:
    """How far a file is."""
    return answer(_shape(path.key, _jobs().find(path.key)))


@api.get("/<key>/file")
def fetch(path: JobPath) -> Any:
    """The file, when it is ready."""
    job = _jobs().find(path.key)
    if job.body is None:
        raise Conflict("This file is not ready yet. Ask again when all its steps are done.")
    return download(job.body, job.name, job.mimetype)


def _shape(key: str, job: Job) -> JobShape:
    rungs = job.steps - 1
    if job.failed:
        sentence = "It could not be made. Try fewer rungs or passes; if it stays so, look into the server’s messages."
    elif job.body is not None:
        sentence = f"Ready: {plural(rungs, 'tempo', 'tempi')}, {len(job.body) / 1e6:.1f} MB."
    elif job.done == rungs:
        sentence = "Writing the file."
    else:
        sentence = f"Tempo {job.done + 1} of {rungs}."
    return JobShape(
        key=key,
        done=job.steps if job.body is not None else job.done,
        steps=job.steps,
        sentence=sentence,
        ready=job.body is not None,
        failed=job.failed,
    )
