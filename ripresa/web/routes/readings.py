"""Readings and performances of a drill that need not be kept yet."""

from dataclasses import replace
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Field

from ripresa.core.changes import doubled, halved
from ripresa.core.drill import Drill, Reduce, Step
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import label, parse_amount, plural
from ripresa.core.playing import (
    Before,
    Part,
    Performance,
    Pulse,
    Spoken,
    Window,
    at_step,
    bars_window,
    before_it_was_moved,
    is_drill_itself,
    perform,
    seams,
    slowed,
)
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import FASTEST_BPM, SLOWEST_BPM, check_bpm, neighbours, tapped_bpm
from ripresa.formats.wire import WireExact
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count, Seconds
from ripresa.web.shapes.reading import ReadingShape, reading_shape

#: Hands, fingers or syllables that are offered to play alone.
MOST_HANDS = 6

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
    backing: list[Part] = Field(default_factory=list)
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
    # The click that is chosen here is part of what is read, so that the rail shows what is heard.
    asked = replace(body.drill, click=body.click) if body.click else body.drill
    drill = before_it_was_moved(asked) if body.unmoved else asked
    if body.divide:
        drill = doubled(drill) if body.divide == "twice" else halved(drill)
    drill = at_step(drill, body.step) if body.step else drill
    reading = read(replace(drill, reduce=body.reduce) if body.reduce else drill)
    asked_bpm = check_bpm(body.bpm or body.drill.bpm)
    bpm = asked_bpm if body.slow is None else slowed(asked_bpm, body.slow)
    performance = perform(
        reading,
        bpm,
        before=body.before,
        spoken=body.spoken,
        pulse=body.pulse,
        back=body.backing,
        window=_window(reading, body.loop) if body.loop else None,
        turns=body.turns,
    )
    slower, faster = neighbours(asked_bpm)
    return answer(
        PerformanceShape(
            performance=performance,
            reading=reading_shape(reading, bpm),
            voice=reading.instrument.voice,
            bars=reading.bar_count,
            seams=[seam.name for seam in seams(reading)],
            hands=_hands(asked),
            # What differs from the drill as it is kept cannot be held against it.
            is_practice=reading.drill != asked
            or not is_drill_itself(body.step)
            or any(part is not None for part in (body.loop, body.turns, body.slow)),
            slower=slower,
            faster=faster,
            half=asked_bpm / 2 if asked_bpm / 2 >= SLOWEST_BPM else None,
            double=asked_bpm * 2 if asked_bpm * 2 <= FASTEST_BPM else None,
        )
    )


def _hands(drill: Drill) -> list[str]:
    """Return the symbols of the hands that can play alone: more than one, or none."""
    whole = read(replace(drill, reduce=Reduce()))
    found = list(dict.fromkeys(event.stroke for event in whole.notes if event.stroke))
    return found[:MOST_HANDS] if len(found) > 1 else []


def _window(reading: Reading, loop: BarsLoop | SeamLoop) -> Window:
    if isinstance(loop, BarsLoop):
        return bars_window(reading, loop.first, loop.last)
    found = seams(reading)
    if not 0 <= loop.seam < len(found):
        raise OutOfRange(f"This drill has {plural(len(found), 'seam')} between legs. Choose one of them.", field="loop")
    return found[loop.seam]


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
