"""The sums as plain JSON values, for pipes and for whoever wants to check them: what ``ripresa sums`` prints.

docs/commands.md says what each number is; ``sums_schema`` is the schema of all of it.
"""

from dataclasses import asdict
from typing import Any

from ripresa.core.drill.material import Line, Strum
from ripresa.core.exact import Fraction, division_label
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
    slowest_of_one_breath,
    sounding_key,
    statements,
    sums,
    warnings,
)
from ripresa.core.rhythm import span_seconds
from ripresa.formats.hands_json import (
    against_figures,
    break_figures,
    breath_figures,
    circuit_figures,
    string_figures,
    thumb_figures,
)
from ripresa.formats.reading_json import number
from ripresa.formats.sums_shape import (
    BarHome,
    BeatHome,
    BreathFigures,
    ClickSums,
    FitFigures,
    GearFigures,
    GroupFigures,
    LandingFigures,
    LeadFigures,
    Leads,
    LegFigures,
    LoadFigures,
    Station,
    SumsFile,
    Told,
    Twin,
    WalkFigures,
    Where,
)
from ripresa.formats.wire import WireSchema, adapter


def sums_values(reading: Reading, bpm: Fraction) -> dict[str, Any]:
    """Return all that is told of a reading at a tempo as plain values."""
    return asdict(sums_file(reading, sums(reading, bpm), bpm))


def sums_schema() -> dict[str, Any]:
    """Return the JSON Schema of what ``sums_values`` returns."""
    return adapter(SumsFile).json_schema(schema_generator=WireSchema)


def sums_file(reading: Reading, found: Sums, bpm: Fraction) -> SumsFile:
    """Return the sums of a reading at a tempo as they are printed."""
    slowest, material = slowest_of_one_breath(reading), reading.drill.material
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
        against=against_figures(found.against, bpm),
        thumbs=thumb_figures(reading),
        strings=string_figures(reading),
        breath_plan=breath_figures(found.breaths),
        one_breath_bpm=None if slowest is None else number(slowest),
        breaks=break_figures(reading),
        sounding_key=key[1] if (key := sounding_key(reading)) else None,
        circuit=circuit_figures(reading, bpm),
        steps=[list(step) for step in material.steps] if isinstance(material, Strum) else [],
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
