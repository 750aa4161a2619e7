"""What is said of drills: their briefs, places and sums, and what tools and variants make of them."""

import json
from collections.abc import Iterator
from dataclasses import replace

from ripresa.core.changes import TOOLS, TURNED, Where, differences, others, overridden, variant_set
from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByOrder, ByPlace
from ripresa.core.drill.material import Arpeggio, Count, Line, Material, OneNote, ScaleRun
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.grid import Event
from ripresa.core.pitch import INSTRUMENTS
from ripresa.core.reading import Reading, read
from ripresa.core.reading.fingering.key_tables import Hand
from ripresa.core.reading.fingering.keys import on_keys
from ripresa.core.reports import brief, paragraphs, sums
from ripresa.core.shelf import SHELF
from ripresa.formats.sums_json import sums_values
from tests.strategies import MAKERS, kept_drills, legs

MOST_EVENTS = 40
_SIGNS = {"accent": ">", "ghost": "~", "plain": ""}
_KINDS = {"note": "", "rest": "r", "air": "^", "hold": "-"}

MOST_EVENTS = 40
_SIGNS = {"accent": ">", "ghost": "~", "plain": ""}
_KINDS = {"note": "", "rest": "r", "air": "^", "hold": "-"}


def _event(event: Event) -> str:
    pitch = event.pitch.shown if event.pitch and event.kind == "note" else _KINDS[event.kind]
    touch = f"/{event.touch.string}.{event.touch.fret}.{event.touch.finger}" if event.touch else ""
    return (
        f"{event.count}{_SIGNS[event.accent]}{pitch}{event.stroke or ''}{touch}"
        f"{'(' if event.slurred else ''}{'!' if event.hit else ''}"
    )


def _rows(reading: Reading) -> Iterator[str]:
    for row in reading.hands:
        told = [_event(event) for event in row[:MOST_EVENTS]]
        yield f"  {row[0].layer}: {' '.join(told)}{' …' if len(row) > MOST_EVENTS else ''}"


def _told(name: str, drill: Drill) -> Iterator[str]:
    reading = read(drill)
    yield f"{name}: {' '.join(brief(reading).split())}"
    yield from _rows(reading)
    for paragraph in paragraphs(reading, sums(reading, drill.bpm), drill.bpm):
        yield from (f"  {paragraph.title}: {sentence}" for sentence in paragraph.sentences)


def drills() -> Iterator[str]:
    """Yield each ready drill: its brief, its first places, and every sentence of its sums."""
    for one in SHELF:
        yield from _told(one.key, one.drill)


def corpus() -> Iterator[str]:
    """Yield the same of every third drill of the corpus."""
    for kind in MAKERS:
        for number, drill in enumerate(kept_drills(kind)[::3]):
            yield from _told(f"{kind} {number}", replace(drill, title=kind, purpose="", prompt="", tags=()))


CHANGED = {
    "run": Drill(material=ScaleRun(octaves=1), legs=legs(2, 3), hands=ByOrder(cycle=("R", "L"))),
    "line": Drill(material=Line("1 2 >3 (4) 5 4 3 2 1"), legs=legs(4), hands=ByPlace()),
    "count": Drill(material=Count("1 & 2 & a (3) & 4"), legs=legs(1)),
    "sixes": Drill(material=OneNote(beats=4), legs=legs(6), accents=EveryNth(size=4), instrument="guitar"),
}


def of_each_kind() -> dict[str, Drill]:
    """Return the first ready drill of each kind of material, and those that are changed."""
    first: dict[str, Drill] = {one.drill.material.kind: one.drill for one in reversed(SHELF)}
    return {**first, **CHANGED}


def changes() -> Iterator[str]:
    """Yield what each tool makes of some drills, and how they differ from what each is compared with."""
    for name, drill in of_each_kind().items():
        for tool, making in TOOLS.items():
            try:
                changed = read(making.change(drill, Where()))
            except RipresaError as error:
                yield f"{name}, {tool}: {error.message}"
                continue
            yield f"{name}, {tool}: {' '.join(brief(changed).split())}"
            yield from _rows(changed)
        for turned in TURNED:
            try:
                variants = variant_set(drill, turned, drill.bpm).variants
            except RipresaError as error:
                yield f"{name}, {turned}: {error.message}"
                continue
            yield f"{name}, {turned}: {'; '.join(one.name for one in variants)}"
            yield from _rows(read(overridden(drill, variants[-1].overrides)))
        before = read(drill)
        for other in others(drill):
            yield f"{name}, {other.name}: {' '.join(differences(before, other.reading, F(60)))}"
            yield from _rows(other.reading)


def numbers() -> Iterator[str]:
    """Yield every number that is told of a drill of each kind, as the command line prints it."""
    for name, drill in of_each_kind().items():
        for key, value in sums_values(read(drill), F(96)).items():
            yield f"{name}, {key}: {json.dumps(value, ensure_ascii=False)}"


def fingers() -> Iterator[str]:
    """Yield the usual fingers of scales and arpeggios on keys, of each hand, and a scale on every instrument."""
    scales, chords = ("major", "natural_minor", "harmonic_minor", "melodic_minor"), ("major_triad", "minor_triad")
    tonics = ("C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B")
    runs: list[Material] = [ScaleRun(tonic, scale, octaves=1) for scale in scales for tonic in tonics]
    runs += [Arpeggio(tonic=tonic, chord=chord, octaves=1) for chord in chords for tonic in tonics]
    for run in runs:
        pitches = tuple(event.pitch for event in read(Drill(material=run)).events if event.kind == "note")
        hands: tuple[Hand, ...] = ("right", "left")
        told = (" ".join(str(one.finger) if one else "-" for one in on_keys(run, hand, pitches)) for hand in hands)
        yield f"{run}: {' | '.join(told)}"
    for name in INSTRUMENTS:
        for material in (ScaleRun(octaves=1), ScaleRun("Eb", "natural_minor", octaves=2)):
            try:
                reading = read(Drill(material=material, instrument=name, fingering="usual"))
            except RipresaError as error:
                yield f"{name}: {error.message}"
                continue
            yield f"{name}:"
            yield from _rows(reading)
