"""The small calculations of the Sums drawer."""

from dataclasses import asdict

from flask import Response

from ripresa.core.exact import parse_amount
from ripresa.core.reports import Asked, small_sums
from ripresa.formats.drill_file import parse_click
from ripresa.formats.wire import Shape
from ripresa.store.settings import studio_settings
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count
from ripresa.web.query import Query

api = blueprint("sums")


class SumsQuery(Query):
    """What the drawer holds, as typed; ``nps`` is a speed or a band, ``click`` a plan’s name or a click as JSON."""

    bpm: str = "108"
    division: str = "4"
    nps: str = "8"
    size: Count = 5
    meter: str = "4/4"
    beats: str = "14"
    click: str = "two_and_four"


class TempoRow(Shape):
    """A division: the exact tempo for a speed, and the whole bpm with the speed that it gives."""

    division: str
    exact: str
    setting: str
    gives: str


class SumsShape(Shape):
    """The answers, in sentences and rows."""

    speed: str
    speed_working: str
    gap_ms: str
    towards: str
    tempi: list[TempoRow]
    pulse: str
    pulse_note: str
    dial: str
    drift: str
    groups: str
    group_starts: str
    beat_notes: str
    span: str


@api.get("/sums", responses={200: SumsShape})
def show_sums(query: SumsQuery) -> Response:
    """All small sums at once."""
    low, _, high = query.nps.replace("–", "-").replace(" to ", "-").strip().partition("-")
    asked = Asked(
        bpm=parse_amount(query.bpm),
        division=parse_amount(query.division),
        nps=parse_amount(low),
        nps_to=parse_amount(high) if high else None,
        size=query.size,
        meter=query.meter,
        beats=parse_amount(query.beats),
        click=parse_click(query.click),
        middle=studio_settings().middle_rate,
    )
    return answer(SumsShape(**asdict(small_sums(asked))))
