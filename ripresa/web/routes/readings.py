"""Readings and performances of a drill that need not be kept yet."""

from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Field

from ripresa.core.drill import Drill, Reduce, Step
from ripresa.core.drill.click import Click
from ripresa.core.exact import label, parse_amount
from ripresa.core.playing import Accompaniment, Before, Performance, Pulse, Spoken
from ripresa.core.reading import read
from ripresa.core.rhythm import check_bpm, tapped_bpm
from ripresa.formats.wire import WireExact
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count, Seconds
from ripresa.web.shapes.reading import ReadingShape, reading_shape
from ripresa.work.practise import Practice, practise

api = blueprint("readings")


class ReadingBody(BaseModel):
    """A drill, and a tempo if not its own."""

    drill: Drill
    bpm: WireExact | None = None


class BarsLoop(BaseModel):
    """Bars that go round, from 1."""

    kind: Literal["bars"] = "bars"
    first: Count
    last: Count


class SeamLoop(BaseModel):
    """The change between two legs with the beat on either side, from 0."""

    kind: Literal["seam"] = "seam"
    seam: Count


class PerformanceBody(BaseModel):
    """A drill at a tempo, with what comes before it and another click if wanted.

    For practice: a step of its way in, a part that goes round, as it was before
    it was moved, divided twice or half as much (which keeps the speed at half
    or double the tempo), in turn with the teacher, a part of it alone, or at a
    slow share of the tempo.
    """

    drill: Drill
    bpm: WireExact | None = None
    click: Click | None = None
    before: Before = Field(default_factory=Before)
    spoken: Spoken = Field(default_factory=Spoken)
    pulse: Pulse | None = None
    backing: list[Accompaniment] = Field(default_factory=list)
    step: Step | None = None
    loop: Annotated[BarsLoop | SeamLoop, Field(discriminator="kind")] | None = None
    unmoved: bool = False
    divide: Literal["twice", "half"] | None = None
    turns: Count | None = None
    reduce: Reduce | None = None
    slow: WireExact | None = None


class PerformanceShape(BaseModel):
    """A reading in seconds and the reading beside it.

    With it the seams that can go round, the hands that can play alone, and the tempi one press away.
    """

    performance: Performance
    reading: ReadingShape
    voice: Literal["pluck", "keys", "wind"]
    bars: int
    seams: list[str]
    hands: list[str]
    is_practice: bool
    slower: WireExact
    faster: WireExact
    half: WireExact | None
    double: WireExact | None


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
    bars, seam = (body.loop, None) if isinstance(body.loop, BarsLoop) else (None, body.loop)
    found = practise(
        Practice(
            drill=body.drill,
            bpm=body.bpm,
            click=body.click,
            step=body.step,
            unmoved=body.unmoved,
            divide=body.divide,
            reduce=body.reduce,
            bars=(bars.first, bars.last) if bars else None,
            seam=seam.seam if seam else None,
            turns=body.turns,
            slow=body.slow,
            before=body.before,
            spoken=body.spoken,
            pulse=body.pulse,
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
            slower=found.slower,
            faster=found.faster,
            half=found.half,
            double=found.double,
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
