"""Readings and performances of a drill that need not be kept yet."""

from typing import Literal

from flask import Response
from pydantic import BaseModel, Field

from ripresa.core.changes import Part
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.exact import label, parse_amount
from ripresa.core.listening import As
from ripresa.core.playing import Accompaniment, Before, Performance, Pulse, Spoken
from ripresa.core.reading import read
from ripresa.core.rhythm import check_bpm, tapped_bpm
from ripresa.core.takes import unheard_words, usual_sound
from ripresa.formats.wire import WireExact
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.middle import near_the_middle
from ripresa.web.numbers import Count, Seconds
from ripresa.web.shapes.reading import ReadingShape, reading_shape
from ripresa.work.practise import Practice, practise

api = blueprint("readings")


class ReadingBody(BaseModel):
    """A drill, and a tempo if not its own."""

    drill: Drill
    bpm: WireExact | None = None


class PerformanceBody(BaseModel):
    """A drill at a tempo, with what comes before it and another click if wanted.

    For practice: a part of it by itself, in turn with the teacher, or at a slow share of the tempo.
    """

    drill: Drill
    bpm: WireExact | None = None
    click: Click | None = None
    before: Before = Field(default_factory=Before)
    spoken: Spoken = Field(default_factory=Spoken)
    pulse: Pulse | None = None
    backing: list[Accompaniment] = Field(default_factory=list)
    part: Part = Field(default_factory=Part)
    turns: Count | None = None
    slow: WireExact | None = None


class PerformanceShape(BaseModel):
    """A reading in seconds and the reading beside it.

    With it the seams that can go round, the hands that can play alone, and the tempi one press away; what a microphone
    will not hear of it, empty where it hears all, and how its notes begin.
    """

    performance: Performance
    reading: ReadingShape
    voice: Literal["pluck", "keys", "wind"]
    bars: int
    seams: list[str]
    hands: list[str]
    is_practice: bool
    is_measured: bool
    part_name: str
    slower: WireExact
    faster: WireExact
    half: WireExact | None
    double: WireExact | None
    unheard: str
    sounds_as: As


class AmountQuery(BaseModel):
    """A number as it was typed."""

    text: str
    what: str = "bpm"


class Amount(BaseModel):
    """The number, exact, and how it is shown."""

    exact: WireExact
    label: str


@api.post("/reading", responses={200: ReadingShape})
def show_reading(body: ReadingBody) -> Response:
    """The rail and the sums of a drill."""
    return answer(reading_shape(read(body.drill), check_bpm(body.bpm or body.drill.bpm)))


@api.post("/performance", responses={200: PerformanceShape})
def show_performance(body: PerformanceBody) -> Response:
    """A drill in seconds, for the player."""
    found = practise(
        Practice(
            drill=body.drill,
            bpm=body.bpm,
            click=body.click,
            part=body.part,
            turns=body.turns,
            slow=body.slow,
            before=body.before,
            spoken=body.spoken,
            pulse=near_the_middle(body.pulse),
            back=tuple(body.backing),
        )
    )
    return answer(
        PerformanceShape(
            performance=found.performance,
            reading=reading_shape(found.reading, found.bpm),
            voice=found.reading.instrument.voice,
            bars=found.reading.bar_count,
            seams=list(found.seams),
            hands=list(found.hands),
            is_practice=found.is_practice,
            is_measured=found.is_measured,
            part_name=found.part_name,
            slower=found.slower,
            faster=found.faster,
            half=found.half,
            double=found.double,
            unheard=unheard_words(found.reading),
            sounds_as=usual_sound(found.reading),
        )
    )


class TapsBody(BaseModel):
    """Moments in seconds at which a beat was tapped."""

    taps: list[Seconds] = Field(max_length=500)


@api.post("/tempo/tapped", responses={200: Amount})
def tap_tempo(body: TapsBody) -> Response:
    """The tempo of beats that were tapped."""
    bpm = tapped_bpm(body.taps)
    return answer(Amount(exact=bpm, label=label(bpm)))


@api.get("/amount", responses={200: Amount})
def read_amount(query: AmountQuery) -> Response:
    """A typed number, read exactly: ``84``, ``84.5``, ``84½``."""
    value = parse_amount(query.text)
    if query.what == "bpm":
        check_bpm(value)
    return answer(Amount(exact=value, label=label(value)))
