"""Drills written out: notation engraved for the screen, and where the notes lie."""

from flask import Response
from pydantic import Field

from ripresa.core.changes import Part, practised
from ripresa.core.drill import Drill
from ripresa.core.reading import read
from ripresa.core.reports import Keys, Neck
from ripresa.formats.notation import Form
from ripresa.formats.wire import Shape
from ripresa.web.answers import answer, engraver
from ripresa.web.blueprint import blueprint
from ripresa.work.written import lies, write_out

api = blueprint("written")

NARROWEST, WIDEST = 280, 2400


class WrittenBody(Shape):
    """A drill, or a part of it as it is practised, and how it is to be drawn: staves, width in pixels."""

    drill: Drill
    part: Part = Field(default_factory=Part)
    form: Form = "notes"
    width: int = Field(default=900, ge=NARROWEST, le=WIDEST)


class WrittenShape(Shape):
    """The picture (SVG), which event is drawn for which that comes again, and the picture in words.

    A note of event 12 has an id that begins with ``e12-``.
    """

    picture: str
    drawn_as: dict[int, int]
    words: str


class LiesBody(Shape):
    """A drill."""

    drill: Drill


class NeckDotShape(Shape):
    """A place on the neck: string (1 the thinnest), fret, finger (0 open), note, whether it is the tonic."""

    string: int
    fret: int
    finger: int
    name: str
    is_home: bool


class NeckShape(Shape):
    """One position: its name, the frets that are shown, its places, and all of it in words."""

    name: str
    first: int
    last: int
    dots: list[NeckDotShape]
    words: str


class KeyDotShape(Shape):
    """A key that is played: keys above the lowest shown, note, fingers of each hand, whether it is the tonic."""

    above: int
    name: str
    right: list[int]
    left: list[int]
    is_home: bool


class KeysShape(Shape):
    """The keys that are shown, from a white one to a white one: whether each is black; those played; in words."""

    black: list[bool]
    dots: list[KeyDotShape]
    words: str


class NamesShape(Shape):
    """A note of a wind as it is written and as it sounds."""

    written: str
    sounding: str


class LiesShape(Shape):
    """Where the notes of a drill lie, on how many strings, and the staves that can be drawn."""

    forms: list[Form]
    strings: int
    necks: list[NeckShape]
    keys: KeysShape | None
    names: list[NamesShape]


@api.post("/written", responses={200: WrittenShape})
def show_written(body: WrittenBody) -> Response:
    """A drill as it is printed."""
    reading = read(practised(body.drill, body.part))
    written = write_out(engraver(), reading, body.form, body.width)
    return answer(WrittenShape(picture=written.picture, drawn_as=written.drawn_as, words=written.words))


@api.post("/written/lies", responses={200: LiesShape})
def show_where_it_lies(body: LiesBody) -> Response:
    """Where the notes of a drill lie on its instrument."""
    reading = read(body.drill)
    found = lies(reading)
    return answer(
        LiesShape(
            forms=list(found.forms),
            strings=len(reading.instrument.strings),
            necks=[_neck(one) for one in found.necks],
            keys=_keys(found.keys) if found.keys else None,
            names=[NamesShape(written=written, sounding=sounding) for written, sounding in found.names],
        )
    )


def _keys(keys: Keys) -> KeysShape:
    dots = [
        KeyDotShape(
            above=dot.midi - keys.lowest,
            name=dot.name,
            right=list(dot.right),
            left=list(dot.left),
            is_home=dot.is_home,
        )
        for dot in keys.dots
    ]
    return KeysShape(black=list(keys.black), dots=dots, words=keys.words)


def _neck(neck: Neck) -> NeckShape:
    dots = [
        NeckDotShape(string=dot.string, fret=dot.fret, finger=dot.finger, name=dot.name, is_home=dot.is_home)
        for dot in neck.dots
    ]
    return NeckShape(name=neck.name, first=neck.first, last=neck.last, dots=dots, words=neck.words)
