"""Scores that others wrote: what parts a MIDI or MusicXML file has, and bars of one taken as a drill."""

from flask import Response
from pydantic import Field

from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import plural
from ripresa.core.reading import read
from ripresa.formats.midi_in import read_midi
from ripresa.formats.musicxml_in import read_musicxml
from ripresa.formats.parts import MOST_BARS, Part, drill_of
from ripresa.formats.wire import Shape
from ripresa.store import drills as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.files_in import whole_file
from ripresa.web.numbers import Count, Once
from ripresa.web.shapes.drills import DrillShape, drill_shape

api = blueprint("scores", "/api/scores")

LARGEST_FILE = 5_000_000
_MIDI_START = b"MThd"


class ScoreFile(Shape):
    """A file: its bytes in base 64."""

    base64: str


class PartShape(Shape):
    """A part: its name, how many bars it has, what may be chosen of it at once, and all of it in words."""

    name: str
    bars: int
    most_bars: int
    words: str


class PartList(Shape):
    """The parts that have notes."""

    parts: list[PartShape]


class TakeBars(ScoreFile, Once):
    """Which bars of which part (from 0) become a drill, and its title."""

    part: Count = 0
    first_bar: Count = 1
    last_bar: Count = 4
    title: str = Field(max_length=200)


class TakenShape(Shape):
    """The new drill, and what had to be changed, in sentences."""

    kept: DrillShape
    said: list[str]


@api.post("/parts", responses={200: PartList})
def list_parts(body: ScoreFile) -> Response:
    """The parts of a file."""
    return answer(PartList(parts=[_shape(part) for part in _parts(body.base64)]))


@api.post("/drill", responses={201: TakenShape})
def take_bars(body: TakeBars) -> Response:
    """Bars of a part as a new drill: a line in its own rhythm."""
    parts = _parts(body.base64)
    if not 0 <= body.part < len(parts):
        raise OutOfRange(f"This file has {plural(len(parts), 'part')} with notes. Choose one of them.", field="part")
    taken = drill_of(parts[body.part], body.first_bar, body.last_bar, body.title.strip() or "From a score")
    read(taken.drill)
    return answer(
        TakenShape(kept=drill_shape(store.add_drill(taken.drill, now(), body.key)), said=list(taken.said)), 201
    )


def _parts(text: str) -> tuple[Part, ...]:
    data = whole_file(text)
    if len(data) > LARGEST_FILE:
        raise Unreadable(f"This file is over {LARGEST_FILE // 1_000_000} MB. Save a part of the score.", field="file")
    return read_midi(data) if data.startswith(_MIDI_START) else read_musicxml(data)


def _shape(part: Part) -> PartShape:
    above, below = part.signature_at(part.meters[0][0])
    bars = part.bars
    return PartShape(
        name=part.name,
        bars=bars,
        most_bars=min(bars, MOST_BARS),
        words=f"{part.name}: {plural(bars, 'bar')} in {above}/{below}, {plural(len(part.notes), 'note')}",
    )
