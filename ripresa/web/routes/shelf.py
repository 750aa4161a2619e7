"""The shelf of ready drills: looked through, and taken as a start."""

from functools import cache

from flask import Response

from ripresa.core.drill import Drill
from ripresa.core.exact import plural
from ripresa.core.reading import read
from ripresa.core.reports import peak_of
from ripresa.core.say import words_for
from ripresa.core.shelf import AIMS, FAMILIES, LEVELS, SHELF, Shelved, family_of, level_of, shelved, what_it_is
from ripresa.formats.wire import Shape
from ripresa.store import drills as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Once
from ripresa.web.shapes.described import described
from ripresa.web.shapes.drills import DrillShape, divisions_of, drill_shape, tempo_of
from ripresa.web.shapes.rail import RowShape, special_row
from ripresa.web.shapes.sent import Sent

api = blueprint("shelf")


class ShelfPath(Shape):
    """Which ready drill."""

    key: str


class ShelfLine(Sent, frozen=True):
    """A ready drill in the list: what it is for, and what tells it from the others."""

    key: str
    aim: str
    what: str
    family: str
    level: str
    finds: str
    title: str
    purpose: str
    material: str
    divisions: str
    tempo: str
    length: str
    instrument: str
    row: RowShape


class ShelfShape(Sent, frozen=True):
    """The aims, and all ready drills in their order."""

    aims: list[str]
    families: list[str]
    levels: list[str]
    drills: list[ShelfLine]


class ShelfDrill(Shape):
    """A ready drill, to be heard before it is taken."""

    drill: Drill


@api.get("/shelf", responses={200: described(ShelfShape)})
def list_shelf() -> Response:
    """All ready drills."""
    lines = [_line(one) for one in SHELF]
    return answer(
        ShelfShape(
            aims=list(AIMS.values()),
            families=list(FAMILIES.values()),
            levels=[name for _, name in LEVELS],
            drills=lines,
        )
    )


@api.get("/shelf/<key>", responses={200: ShelfDrill})
def one_of_the_shelf(path: ShelfPath) -> Response:
    """A ready drill, as it would be taken."""
    return answer(ShelfDrill(drill=shelved(path.key).drill))


@api.post("/shelf/<key>", responses={201: DrillShape})
def take_from_shelf(path: ShelfPath, body: Once) -> Response:
    """Keep a copy of a ready drill as one's own."""
    return answer(drill_shape(store.add_drill(shelved(path.key).drill, now(), body.key)), 201)


@cache
def _line(one: Shelved) -> ShelfLine:
    reading = read(one.drill)
    return ShelfLine(
        key=one.key,
        aim=AIMS[one.aim],
        what=what_it_is(reading),
        family=FAMILIES[family_of(one.drill)],
        level=level_of(peak_of(reading) * one.drill.bpm / 60),
        finds=words_for(one.drill),
        title=one.drill.title,
        purpose=one.drill.purpose,
        material=one.drill.material.title,
        divisions=divisions_of(one.drill),
        tempo=tempo_of(one.drill),
        length=plural(reading.bars, "bar"),
        instrument=one.drill.plays_on.name,
        row=special_row(reading),
    )
