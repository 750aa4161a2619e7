"""Readings and performances of a drill that need not be kept yet."""

from dataclasses import replace
from typing import Annotated, Literal

from flask import Response
from flask_openapi import APIBlueprint
from pydantic import BaseModel, Field, FiniteFloat

from ripresa.core.backing import Part
from ripresa.core.click import Click
from ripresa.core.drill import Drill
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import label, parse_amount, plural
from ripresa.core.performance import Performance, perform
from ripresa.core.practice import Window, at_step, bars_window, before_it_was_moved, in_turn, seams, within
from ripresa.core.pulse import Pulse
from ripresa.core.reading import Reading, read
from ripresa.core.tempo import FASTEST_BPM, SLOWEST_BPM, check_bpm, neighbours, tapped_bpm
from ripresa.core.tools import doubled, halved
from ripresa.core.way_in import Step
from ripresa.formats.wire import WireExact
from ripresa.web.answers import answer
from ripresa.web.shapes.reading import ReadingShape, reading_shape

api = APIBlueprint("readings", __name__, url_prefix="/api")


class ReadingBody(BaseModel):
    """A drill, and a tempo if not its own."""

    drill: Drill
    bpm: WireExact | None = None


class BarsLoop(BaseModel):
    """Bars that go round, from 1."""

    kind: Literal["bars"] = "bars"
    first: int
    last: int


class SeamLoop(BaseModel):
    """The change between two legs with the beat on either side, from 0."""

    kind: Literal["seam"] = "seam"
    seam: int


class PerformanceBody(BaseModel):
    """A drill at a tempo, with what comes before it and another click if wanted.

    For practice: a step of its way in, a part that goes round, as it was before
    it was moved, divided twice or half as much (which keeps the speed at half
    or double the tempo), or in turn with the teacher.
    """

    drill: Drill
    bpm: WireExact | None = None
    click: Click | None = None
    listen_bars: int = 0
    count_bars: int = 1
    count_words: str = ""
    pulse: Pulse | None = None
    backing: list[Part] = Field(default_factory=list)
    step: Step | None = None
    loop: Annotated[BarsLoop | SeamLoop, Field(discriminator="kind")] | None = None
    unmoved: bool = False
    divide: Literal["twice", "half"] | None = None
    turns: int | None = None


class PerformanceShape(BaseModel):
    """A reading in seconds, the reading beside it, the seams that can go round, and the tempi one press away."""

    performance: Performance
    reading: ReadingShape
    voice: Literal["pluck", "keys", "wind"]
    bars: int
    seams: list[str]
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
    # The click that is chosen here is part of what is read, so that the rail shows what is heard.
    asked = replace(body.drill, click=body.click) if body.click else body.drill
    drill = before_it_was_moved(asked) if body.unmoved else asked
    if body.divide:
        drill = doubled(drill) if body.divide == "twice" else halved(drill)
    reading = read(at_step(drill, body.step) if body.step else drill)
    bpm = check_bpm(body.bpm or body.drill.bpm)
    performance = perform(
        reading,
        bpm,
        listen_bars=body.listen_bars,
        count_bars=body.count_bars,
        count_words=body.count_words,
        pulse=body.pulse,
        back=body.backing,
    )
    if body.loop:
        performance = within(reading, performance, _window(reading, body.loop))
    if body.turns is not None:
        performance = in_turn(performance, body.turns)
    slower, faster = neighbours(bpm)
    return answer(
        PerformanceShape(
            performance=performance,
            reading=reading_shape(reading, bpm),
            voice=reading.instrument.voice,
            bars=int(reading.loop_beats / reading.meter.bar_length),
            seams=[seam.name for seam in seams(reading)],
            # What differs from the drill as it is kept cannot be held against it.
            is_practice=reading.drill != asked or body.loop is not None or body.turns is not None,
            slower=slower,
            faster=faster,
            half=bpm / 2 if bpm / 2 >= SLOWEST_BPM else None,
            double=bpm * 2 if bpm * 2 <= FASTEST_BPM else None,
        )
    )


def _window(reading: Reading, loop: BarsLoop | SeamLoop) -> Window:
    if isinstance(loop, BarsLoop):
        return bars_window(reading, loop.first, loop.last)
    found = seams(reading)
    if not 0 <= loop.seam < len(found):
        raise OutOfRange(f"This drill has {plural(len(found), 'seam')} between legs. Choose one of them.", field="loop")
    return found[loop.seam]


class TapsBody(BaseModel):
    """Moments in seconds at which a beat was tapped."""

    taps: list[FiniteFloat] = Field(max_length=500)


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
