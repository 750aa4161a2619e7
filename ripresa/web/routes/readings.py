"""Readings and performances of a drill that need not be kept yet."""

from typing import Literal

from flask import Response
from flask_openapi import APIBlueprint
from pydantic import BaseModel

from ripresa.core.click import NamedClick
from ripresa.core.drill import Drill
from ripresa.core.exact import label, parse_amount
from ripresa.core.performance import Performance, perform
from ripresa.core.reading import read
from ripresa.core.tempo import check_bpm, neighbours
from ripresa.formats.wire import WireExact
from ripresa.web.answers import answer
from ripresa.web.shapes.reading import ReadingShape, reading_shape

api = APIBlueprint("readings", __name__, url_prefix="/api")


class ReadingBody(BaseModel):
    """A drill, and a tempo if not its own."""

    drill: Drill
    bpm: WireExact | None = None


class PerformanceBody(BaseModel):
    """A drill at a tempo, with what comes before it and another click if wanted."""

    drill: Drill
    bpm: WireExact | None = None
    click: NamedClick | None = None
    listen_bars: int = 0
    count_bars: int = 1


class PerformanceShape(BaseModel):
    """A reading in seconds, the reading to draw beside it, and the tempi one press away."""

    performance: Performance
    reading: ReadingShape
    voice: Literal["pluck", "keys", "wind"]
    slower: WireExact
    faster: WireExact


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
    reading = read(body.drill)
    bpm = check_bpm(body.bpm or body.drill.bpm)
    performance = perform(reading, bpm, click=body.click, listen_bars=body.listen_bars, count_bars=body.count_bars)
    slower, faster = neighbours(bpm)
    return answer(
        PerformanceShape(
            performance=performance,
            reading=reading_shape(reading, bpm),
            voice=reading.instrument.voice,
            slower=slower,
            faster=faster,
        )
    )


@api.get("/amount", responses={200: Amount})
def read_amount(query: AmountQuery) -> Response:
    """A typed number, read exactly: ``84``, ``84.5``, ``84½``."""
    value = parse_amount(query.text)
    if query.what == "bpm":
        check_bpm(value)
    return answer(Amount(exact=value, label=label(value)))
