"""The shape of a reading: rows for the rail, and the sums column, at a tempo."""

from typing import Literal

from ripresa.core.changes import is_pressable
from ripresa.core.drill import DIVISIONS
from ripresa.core.drill.accents import Walk
from ripresa.core.drill.material import Cells, FingerOrder, LongNotes, Picked, own_rhythm
from ripresa.core.exact import Fraction, decimal, division_label, label, plural, short
from ripresa.core.pitch import STANDARD_STRINGS, Shape
from ripresa.core.playing import Pulse, voice_row
from ripresa.core.reading import Reading, count_text
from ripresa.core.reports import (
    Paragraph,
    WarnedOf,
    accents_added,
    click_report,
    closest_told,
    group_rows,
    paragraphs,
    peak_of,
    sums,
    warned,
    working,
)
from ripresa.core.rhythm import division_name
from ripresa.web.shapes.rail import RowShape, row_shapes
from ripresa.web.shapes.sent import Sent
from ripresa.web.shapes.sums import (
    GearShape,
    GroupHomeShape,
    HomeShape,
    LegShape,
    TwinShape,
    gear_shape,
    group_home_shape,
    home_shape,
    leg_shapes,
)

#: Bars that are shown as a count; a longer drill is known by its first bars.
MOST_BARS_COUNTED = 4


class WarningShape(Sent, frozen=True):
    """What the teacher has to know, and the line of the drill that it stands beside."""

    line: Literal["notes", "left hand"]
    of: WarnedOf
    sentence: str


class GripShape(Sent, frozen=True):
    """A grip, the thickest string first: frets (0 open, none silent), fingers (0 none), the fret it begins at."""

    symbol: str
    frets: list[int | None]
    fingers: list[int]
    base: int
    words: str


class ReadingShape(Sent, frozen=True):
    """All that Bench and Stand draw of a drill at a tempo.

    ``own_rhythm``: whether its material brings its own divisions; ``has_closing``: whether it has a closing tonic;
    ``pressable``: whether notes can be pressed on and off on the rail. ``strings``: how many are drawn under it, 0 for
    none. ``stations``: the bars with which each station of a walk begins; empty without. ``cells``: whether a beat that
    is pressed goes over to another cell. ``cues``: lines of technique, with where they hold. ``two_hands``: whether the
    right hand stands above the left. ``says_holds``: whether what is held is counted.
    """

    bpm: str
    own_rhythm: bool
    has_closing: bool
    pressable: bool
    sign: str
    sign_name: str
    meter: str
    beats_a_bar: float
    rows: list[RowShape]
    stations: list[int]
    legs: list[LegShape]
    extent: str
    bars_said: str
    notes: int
    beats: str
    bars: str
    seconds: str
    peak_nps: str
    average_nps: str
    closest: str
    working: str
    gears: list[GearShape]
    twins: list[TwinShape]
    homes: list[HomeShape]
    groups: list[GroupHomeShape]
    group_size: int
    division_names: dict[str, str]
    count: str
    click: list[str]
    pulse: list[str]
    warnings: list[WarningShape]
    accents_added: str
    strings: int
    shapes: list[GripShape]
    two_hands: bool
    says_holds: bool
    cells: bool
    cues: list[str]


def reading_shape(reading: Reading, bpm: Fraction) -> ReadingShape:
    """Return the shape of a reading at a tempo."""
    found = sums(reading, bpm)
    voice = voice_row(reading, bpm)
    groups = list(group_rows(found.groups, reading))
    homes = [home_shape(told) for told in paragraphs(reading, found, bpm, has_rows=True)]
    if voice.sentences:
        homes.append(home_shape(Paragraph("Voice", tuple(voice.sentences))))
    return ReadingShape(
        bpm=label(bpm),
        own_rhythm=own_rhythm(reading.drill.material),
        has_closing=any(leg.has_closing for leg in reading.legs),
        pressable=is_pressable(reading.drill),
        sign=reading.meter.sign,
        sign_name=reading.meter.counted_name,
        meter=reading.meter.name,
        beats_a_bar=float(max(bar.length for bar in reading.meter.bars)),
        rows=list(row_shapes(reading, found.breath_marks, voice.words)),
        stations=_stations(reading),
        legs=leg_shapes(found, reading),
        extent=f"{plural(found.beats, 'beat')}, {plural(found.bars, 'bar')}, {plural(found.notes, 'note')}",
        bars_said=plural(found.bars, "bar"),
        notes=found.notes,
        beats=label(found.beats),
        bars=label(found.bars),
        seconds=decimal(found.seconds, 1),
        peak_nps=short(found.speeds.peak_nps),
        average_nps=short(found.speeds.average_nps),
        closest=closest_told(reading, bpm),
        working=working(bpm, peak_of(reading)),
        gears=[gear_shape(change) for change in found.gears],
        twins=[TwinShape(division=label(division), bpm=label(tempo)) for division, tempo in found.twins],
        homes=homes,
        groups=[group_home_shape(row) for row in groups],
        group_size=found.groups[0].size if groups else 0,
        division_names=_division_names(reading),
        count=count_text(event for event in reading.events if event.bar <= MOST_BARS_COUNTED) or "",
        click=list(click_report(reading.click_cycle, reading.meter, bpm)),
        pulse=list(Pulse().told(bpm)),
        warnings=[WarningShape(line=one.line, of=one.of, sentence=one.sentence) for one in warned(reading)],
        accents_added=accents_added(reading),
        strings=_strings(reading),
        shapes=[_grip(shape) for shape in reading.shapes],
        two_hands=bool(reading.other),
        says_holds=isinstance(reading.drill.material, LongNotes),
        cells=isinstance(reading.drill.material, Cells),
        cues=[cue.told for cue in reading.drill.cues],
    )


def _division_names(reading: Reading) -> dict[str, str]:
    """Return what each division that is offered, and each of the drill, is called in its meter."""
    every = [*((one,) for one in DIVISIONS), *(leg.divisions for leg in reading.legs)]
    return {division_label(*one): division_name(one, reading.meter.counted) for one in every}


def _stations(reading: Reading) -> list[int]:
    """Return the bars of the first leg with which the stations of a walk begin, as far as they are played."""
    walk = reading.drill.accents
    if not isinstance(walk, Walk):
        return []
    leg = reading.legs[0]
    first = reading.meter.place(leg.start)[0]
    last = max(event.bar for event in reading.events if event.leg == 0)
    return [bar for number in range(walk.stations(leg.enters)) if (bar := first + number * walk.bars) <= last]


def _strings(reading: Reading) -> int:
    """Return how many strings are drawn: where the material itself says which one sounds."""
    if not isinstance(reading.drill.material, FingerOrder | Picked):
        return 0
    return len(reading.instrument.strings) or len(STANDARD_STRINGS)


def _grip(shape: Shape) -> GripShape:
    return GripShape(
        symbol=shape.symbol,
        frets=list(shape.frets),
        fingers=list(shape.fingers),
        base=shape.base,
        words=f"{shape.symbol}: {shape.text}, the thickest string first",
    )
