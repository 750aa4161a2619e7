"""The sums as plain JSON values, for pipes and for whoever wants to check them: what ``ripresa sums`` prints.

docs/commands.md says what each number is; ``sums_schema`` is the schema of all of it.
"""

from dataclasses import asdict, dataclass
from fractions import Fraction
from typing import Any

from pydantic import TypeAdapter

from ripresa.core.drill.material import Line
from ripresa.core.exact import division_label
from ripresa.core.grid import LegReading
from ripresa.core.reading import Reading
from ripresa.core.reports import (
    Groups,
    Start,
    Sums,
    click_figures,
    dial,
    ending,
    landings,
    named,
    paragraphs,
    statements,
    sums,
    warnings,
)
from ripresa.core.rhythm import span_seconds
from ripresa.formats.reading_json import number

Number = int | float


@dataclass(frozen=True, slots=True)
class Where:
    """A place: bar and beat from 1, its count word, its name (empty on the beat), beats from the start of the drill."""

    bar: int
    beat: int
    count: str
    name: str
    at: str


@dataclass(frozen=True, slots=True)
class LegFigures:
    """A leg: beats of the bpm with what its seam adds; speed and gap of the closest notes, straight; gaps as played."""

    leg: int
    division: str
    divisions: list[str]
    start: str
    notes: int
    beats: Number
    bars: Number
    seconds: Number
    nps: Number
    gap_ms: Number
    gaps_ms: list[Number]


@dataclass(frozen=True, slots=True)
class LoadFigures:
    """What one hand, direction, finger or syllable does: notes, motions with air strokes, most a second."""

    symbol: str
    strikes: int
    motions: int
    nps: Number


@dataclass(frozen=True, slots=True)
class GearFigures:
    """A change of division: milliseconds from note to note, their ratio, per cent of speed, whether it is under 1.3."""

    before: str
    after: str
    gap_ms_before: Number
    gap_ms_after: Number
    gap_ratio: Number
    speed_change_percent: Number
    is_narrow: bool


@dataclass(frozen=True, slots=True)
class FitFigures:
    """How the pass of a leg fits the bar; the closing tonic is None without one."""

    leg: int
    notes: int
    beats: Number
    bars: Number
    last_note: str
    closing: str | None
    plays_closing: bool
    missing_beats: Number


@dataclass(frozen=True, slots=True)
class BeatHome:
    """Notes and beats of the meter until a group starts on a beat again."""

    notes: int
    beats: Number


@dataclass(frozen=True, slots=True)
class BarHome:
    """Notes, bars and groups until a group starts on a bar line again."""

    notes: int
    bars: Number
    groups: int


@dataclass(frozen=True, slots=True)
class GroupFigures:
    """The groups of a leg; homes are None where none comes. ``end`` is where what follows a line stands."""

    leg: int
    division: str
    size: int
    restart: str
    beat_home: BeatHome | None
    bar_home: BarHome | None
    starts: list[Where]
    beats_hit: list[int]
    cut: list[int]
    end: Where | None


@dataclass(frozen=True, slots=True)
class LeadFigures:
    """When the lead of a leg is home: 1 beat where every beat starts alike; what starts the beats until then."""

    leg: int
    division: str
    home_beats: int | None
    home_bars: int | None
    starts: list[str | None]


@dataclass(frozen=True, slots=True)
class Leads:
    """The lead of each leg, and what each hand does over the drill, the busiest first."""

    home_beats: int | None
    home_bars: int | None
    load: list[LoadFigures]
    legs: list[LeadFigures]


@dataclass(frozen=True, slots=True)
class Station:
    """A station of an accent walk: its count word, and the hands that play it."""

    count: str
    hands: list[str]


@dataclass(frozen=True, slots=True)
class WalkFigures:
    """An accent walk on a leg."""

    leg: int
    division: str
    stations: list[Station]
    home_bars: int
    home_notes: int
    seconds: Number
    walked_bars: Number
    gap: int | None
    home_gap: int | None


@dataclass(frozen=True, slots=True)
class LandingFigures:
    """Where a leg's pass is over: the place of what follows, what is missing to the next 1.

    For a line also where it enters, where its second statement would, after how many bars and statements it is
    home, and where it would end at twice the division; None for the rest.
    """

    leg: int
    division: str
    end: Where
    missing_slots: int
    missing_beats: Number
    enters: Where | None
    second: Where | None
    home_bars: Number | None
    home_statements: int | None
    doubled_end: Where | None
    doubled_missing_slots: int | None


@dataclass(frozen=True, slots=True)
class ClickSums:
    """The click: clicks a minute; seconds from one to the next, the longest where uneven; ms that 1 % comes to then."""

    per_minute: Number
    gap: Number | None
    is_even: bool
    drift_1_percent: Number | None
    dial: str
    off_beat: list[str]


@dataclass(frozen=True, slots=True)
class BreathFigures:
    """The breath of a leg: beats of its pass, seconds of a breath, the slowest tempo that fits, whether this does."""

    leg: int
    beats: Number
    breath_seconds: Number
    needed_bpm: Number
    fits: bool


@dataclass(frozen=True, slots=True)
class Twin:
    """The same speed at another division."""

    division: str
    bpm: Number


@dataclass(frozen=True, slots=True)
class Told:
    """A paragraph, as the app shows it."""

    title: str
    sentences: list[str]
    starts: str


@dataclass(frozen=True, slots=True)
class SumsFile:
    """All that is told of a drill at a tempo."""

    title: str
    bpm: Number
    meter: str
    notes: int
    beats: Number
    bars: Number
    seconds: Number
    legs: list[LegFigures]
    peak_nps: Number
    average_nps: Number
    limiting: LoadFigures | None
    motions_nps: Number | None
    strikes_nps: Number | None
    gears: list[GearFigures]
    fit: list[FitFigures]
    groups: list[GroupFigures]
    lead: Leads | None
    walk: list[WalkFigures]
    landing: list[LandingFigures]
    click: ClickSums
    breath: list[BreathFigures]
    twins: list[Twin]
    told: list[Told]
    warnings: list[str]


def sums_values(reading: Reading, bpm: Fraction) -> dict[str, Any]:
    """Return all that is told of a reading at a tempo as plain values."""
    return asdict(sums_file(reading, sums(reading, bpm), bpm))


def sums_schema() -> dict[str, Any]:
    """Return the JSON Schema of what ``sums_values`` returns."""
    return TypeAdapter(SumsFile).json_schema()


def sums_file(reading: Reading, found: Sums, bpm: Fraction) -> SumsFile:
    """Return the sums of a reading at a tempo as they are printed."""
    return SumsFile(
        title=reading.drill.title,
        bpm=number(bpm),
        meter=reading.meter.name,
        notes=found.notes,
        beats=number(found.beats),
        bars=number(found.bars),
        seconds=number(found.seconds),
        legs=_legs(found),
        peak_nps=number(found.speeds.peak_nps),
        average_nps=number(found.speeds.average_nps),
        limiting=_loads(found)[0] if found.limiting else None,
        motions_nps=number(found.motions.motions_nps) if found.motions else None,
        strikes_nps=number(found.motions.strikes_nps) if found.motions else None,
        gears=[
            GearFigures(
                division_label(change.before),
                division_label(change.after),
                number(change.gap_before * 1000),
                number(change.gap_after * 1000),
                number(change.gap_ratio),
                number(change.speed_change * 100),
                change.is_narrow,
            )
            for change in found.gears
        ],
        fit=[
            FitFigures(
                row.leg.index + 1,
                row.fit.notes,
                number(row.fit.beats),
                number(row.fit.bars),
                row.fit.last_note,
                row.fit.closing,
                row.fit.plays_closing,
                number(row.fit.missing_beats),
            )
            for row in found.legs
        ],
        groups=[_group(group) for group in found.groups],
        lead=_leads(found),
        walk=_walks(found, bpm),
        landing=_landings(reading),
        click=_click(reading, bpm),
        breath=[
            BreathFigures(
                one.leg.index + 1,
                number(one.beats),
                number(reading.drill.breath),
                number(one.needed_bpm),
                one.fits,
            )
            for one in found.breath
        ],
        twins=[Twin(division_label(division), number(tempo)) for division, tempo in found.twins],
        told=[Told(one.title, list(one.sentences), one.starts) for one in paragraphs(reading, found, bpm)],
        warnings=list(warnings(reading)),
    )


def _legs(found: Sums) -> list[LegFigures]:
    return [
        LegFigures(
            leg=row.leg.index + 1,
            division=_label(row.leg),
            divisions=[str(division) for division in row.leg.divisions],
            start=str(row.leg.start),
            notes=row.leg.notes,
            beats=number(row.beats),
            bars=number(row.bars),
            seconds=number(row.seconds),
            nps=number(row.nps),
            gap_ms=number(row.gap_seconds * 1000),
            gaps_ms=[number(gap * 1000) for gap in row.gaps],
        )
        for row in found.legs
    ]


def _loads(found: Sums) -> list[LoadFigures]:
    return [LoadFigures(one.symbol, one.strikes, one.motions, number(one.peak_nps)) for one in found.loads]


def _group(group: Groups) -> GroupFigures:
    beat, bar = group.beat_home, group.bar_home
    return GroupFigures(
        leg=group.leg.index + 1,
        division=_label(group.leg),
        size=group.size,
        restart=group.restart,
        beat_home=BeatHome(beat.notes, number(beat.beats)) if beat else None,
        bar_home=BarHome(bar.notes, number(bar.bars), bar.groups) if bar else None,
        starts=[_where(start) for start in group.starts],
        beats_hit=list(group.beats_hit),
        cut=list(group.cut),
        end=_where(group.end) if group.end else None,
    )


def _leads(found: Sums) -> Leads | None:
    if not found.leads and not found.loads:
        return None
    legs = [
        LeadFigures(home.leg.index + 1, _label(home.leg), home.beats, home.bars, list(home.starts))
        for home in found.leads
    ]
    first = legs[0] if legs else None
    return Leads(first.home_beats if first else None, first.home_bars if first else None, _loads(found), legs)


def _walks(found: Sums, bpm: Fraction) -> list[WalkFigures]:
    return [
        WalkFigures(
            leg=walk.leg.index + 1,
            division=_label(walk.leg),
            stations=[Station(word, list(hands)) for word, hands in walk.stations],
            home_bars=walk.bars,
            home_notes=walk.notes,
            seconds=number(span_seconds(walk.beats, bpm)),
            walked_bars=number(walk.walked_bars),
            gap=walk.gap,
            home_gap=walk.home_gap,
        )
        for walk in found.walks
    ]


def _landings(reading: Reading) -> list[LandingFigures]:
    lines = {landing.leg.index: landing for landing in landings(reading)}
    through = statements(reading) if isinstance(reading.drill.material, Line) else ()
    rows = []
    for leg in reading.legs:
        line, over = lines.get(leg.index), ending(reading, leg)
        entries, doubled = (line.entries, line.doubled) if line else (None, None)
        second = entries.second if entries else through[1].enters if len(through) > 1 and not leg.index else None
        rows.append(
            LandingFigures(
                leg=leg.index + 1,
                division=_label(leg),
                end=_where(over.end),
                missing_slots=over.missing,
                missing_beats=number(reading.meter.to_bar_line(over.end.at)),
                enters=_where(line.enters) if line else None,
                second=_where(second) if second else None,
                home_bars=number(entries.bars) if entries else None,
                home_statements=entries.statements if entries else None,
                doubled_end=_where(doubled.end) if doubled else None,
                doubled_missing_slots=doubled.missing if doubled else None,
            )
        )
    return rows


def _click(reading: Reading, bpm: Fraction) -> ClickSums:
    cycle, meter = reading.click_cycle, reading.meter
    figures = click_figures(cycle, meter, bpm)
    return ClickSums(
        per_minute=number(figures.per_minute),
        gap=None if figures.gap_seconds is None else number(figures.gap_seconds),
        is_even=figures.is_even,
        drift_1_percent=None if figures.drift_seconds is None else number(figures.drift_seconds * 1000),
        dial=dial(cycle, meter, bpm).sentence,
        off_beat=[named(at, meter) for at in figures.off_beat],
    )


def _where(start: Start) -> Where:
    return Where(start.bar, start.beat, start.count, start.name, str(start.at))


def _label(leg: LegReading) -> str:
    return division_label(*leg.divisions)
