"""The shapes of the sums column: the numbers of a drill in words and rows."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from fractions import Fraction
from itertools import groupby

from pydantic import BaseModel

from ripresa.core.drill.click import CLICK_PLANS
from ripresa.core.drill.material import Cells, Count, own_rhythm
from ripresa.core.exact import decimal, division_label, label, plural
from ripresa.core.grid import Event, roman
from ripresa.core.reading import Reading, read
from ripresa.core.reports import (
    Home,
    Landing,
    Sums,
    WalkSums,
    beat_starts,
    breath_sums,
    flips,
    loads,
    off_the_beat,
    on_numbers,
    positions,
    same_way,
)
from ripresa.core.rhythm import GearChange, span_seconds

_MOST_POSITIONS = 6
_MOST_BARS_COUNTED = 16
_CELLS = "ABCDEFGH"
_WAY = {"D": "down", "U": "up"}


class LegShape(BaseModel):
    """The numbers of one leg, ready to show."""

    index: int
    division: str
    nps: str
    gap_ms: str
    notes: int
    beats: str
    bars: str
    seconds: str
    described: str
    fit: str


class GearShape(BaseModel):
    """A change of division in words."""

    name: str
    sentence: str
    is_narrow: bool


class TwinShape(BaseModel):
    """The same speed at another division."""

    division: str
    bpm: str


class HomeShape(BaseModel):
    """When groups and the lead come home on a division."""

    title: str
    sentences: list[str]
    starts: str


def working(bpm: Fraction, division: Fraction) -> str:
    """Return how a speed is worked out: ``108 bpm = 1.8 beats a second; × 4 = 7.2 notes a second``."""
    beats = bpm / 60
    return (
        f"{label(bpm)} bpm = {_short(beats)} beats a second; "
        f"× {label(division)} = {_short(beats * division)} notes a second"
    )


def _short(value: Fraction) -> str:
    text = decimal(value, 2)
    return text.rstrip("0").rstrip(".")


def leg_shapes(found: Sums) -> list[LegShape]:
    """Return the numbers of each leg."""
    return [
        LegShape(
            index=row.leg.index,
            division=division_label(*row.leg.divisions),
            nps=decimal(row.nps, 1),
            gap_ms=" / ".join(decimal(gap * 1000, 1) for gap in row.gaps),
            notes=row.leg.notes,
            beats=label(row.beats),
            bars=label(row.bars),
            seconds=decimal(row.seconds, 1),
            described=row.leg.described,
            fit=row.fit.sentence,
        )
        for row in found.legs
    ]


def gear_shape(change: GearChange) -> GearShape:
    """Return a change of division in words."""
    before, after = (decimal(gap * 1000, 1) for gap in (change.gap_before, change.gap_after))
    percent = change.speed_change * 100
    sign = "+" if percent > 0 else ""
    return GearShape(
        name=f"{division_label(change.before)} → {division_label(change.after)}",
        sentence=(
            f"{before} → {after} ms, gap × {decimal(change.gap_ratio, 3)}, speed {sign}{decimal(percent, 0)} %. "
            "The beat does not move."
        ),
        is_narrow=change.is_narrow,
    )


def home_shape(home: Home) -> HomeShape | None:
    """Return when groups and the lead come home; None where there is nothing to say."""
    sentences = []
    title = f"{division_label(home.division)} a beat"
    if home.groups and home.groups.crosses_beat:
        title = f"Groups of {home.groups.size} on {division_label(home.division)} a beat"
        sentences.append(
            f"Home on a beat after {plural(home.groups.beat_notes, 'note')}, "
            f"{plural(home.groups.beat_beats, 'beat')}; on a bar line after "
            f"{plural(home.groups.bar_notes, 'note')}, {plural(home.groups.bars, 'bar')}, "
            f"{plural(home.groups.groups, 'group')}."
        )
    if len(set(home.cut)) > 1:
        title = f"Groups on {division_label(home.division)} a beat"
        sizes = " + ".join(str(size) for size in home.cut)
        sentences.append(f"Cut off where they start anew: {sizes} notes in the first bar.")
    if home.lead_beats and home.lead_beats != 1:
        sentences.append(f"The same hand is back on a beat after {plural(home.lead_beats, 'beat')}.")
    if not sentences:
        return None
    return HomeShape(title=title, sentences=sentences, starts=_starts(home.landings))


def walk_shape(walk: WalkSums) -> HomeShape:
    """Return an accent walk in words."""
    named = ", ".join(" ".join([word, "/".join(hands)]).strip() for word, hands in walk.stations)
    sentences = [
        f"{plural(len(walk.stations), 'station')}: {named}.",
        f"Home after {plural(walk.bars, 'bar')}, {plural(walk.notes, 'note')}, {decimal(walk.seconds, 1)} s.",
        f"From one station to the next {plural(walk.gap, 'note')}, on the return home {walk.home_gap}.",
    ]
    if walk.walked_bars < walk.bars:
        sentences.append(f"This leg lasts {plural(walk.walked_bars, 'bar')}: it does not come home.")
    return HomeShape(title=f"Accent walk on {division_label(walk.division)} a beat", sentences=sentences, starts="")


def numbers_shapes(reading: Reading) -> Iterator[HomeShape]:
    """Yield how a counted rhythm lies to the beat, before and after it was moved; nothing for other material."""
    material = reading.drill.material
    if not own_rhythm(material):
        return
    on, notes = on_numbers(reading)
    sentences = [f"{on} of {plural(notes, 'note')} fall on a number."]
    if isinstance(material, Count) and material.shift:
        before, _ = on_numbers(read(replace(reading.drill, material=replace(material, shift=0))))
        sentences.append(f"Before it was moved: {before}.")
    bars = [len(list(inside)) for _, inside in groupby(reading.notes, key=lambda event: event.bar)]
    if len(set(bars)) > 1 and len(bars) <= _MOST_BARS_COUNTED:
        sentences.append(f"Notes in each bar: {', '.join(str(count) for count in bars)}.")
    yield HomeShape(title="To the beat", sentences=sentences, starts="")
    if isinstance(material, Cells):
        order = material.order(reading.meter)
        named = " | ".join(" ".join(_CELLS[cell] for cell in bar) for bar in order)
        cells = zip(_CELLS, material.text.split(";"), strict=False)
        letters = ", ".join(f"{letter} is “{text.strip()}”" for letter, text in cells)
        yield HomeShape(title=f"Cells over {plural(len(order), 'bar')}", sentences=[f"{letters}."], starts=named)


def hands_shapes(reading: Reading, bpm: Fraction) -> Iterator[HomeShape]:
    """Yield what the hands do, in words; nothing where none are written."""
    found = loads(reading, bpm)
    if not found:
        return
    busiest = found[0]
    shares = ", ".join(
        f"{load.symbol} {load.strikes}" + (f" of {load.motions} motions" if load.motions > load.strikes else "")
        for load in found
    )
    sentences = [f"Notes each plays: {shares}."]
    if busiest.peak_nps:
        sentences.append(f"The motion that limits: {busiest.symbol}, {decimal(busiest.peak_nps, 1)} times a second.")
    starts = beat_starts(reading)
    if starts:
        sentences.append(f"Beats start with {' '.join(starts)} …")
    sentences += [
        f"{before.count} and the next {after.count} both go {_WAY[before.stroke or 'D']}, with no air stroke between."
        for before, after in same_way(reading)
    ]
    sentences += [
        f"From {division_label(one)} to {division_label(double)} a beat the & turns round."
        for one, double in flips(reading)
    ]
    yield HomeShape(title="Hands", sentences=sentences, starts="")


def neck_shapes(reading: Reading) -> Iterator[HomeShape]:
    """Yield the positions on the neck, in words; nothing where none are worked out."""
    found = positions(reading)
    if not found:
        return
    changes = [f"{roman(position)} from {event.place_name}" for event, position in found[1:]]
    said = "; ".join([f"Position {roman(found[0][1])}", *changes[:_MOST_POSITIONS]])
    more = len(changes) - _MOST_POSITIONS
    sentences = [said + (f"; and {more} more changes." if more > 0 else ".")]
    sentences.append("By least movement: the hand stays where four frets reach, and goes the short way.")
    yield HomeShape(title="On the neck", sentences=sentences, starts="")


def breath_shapes(reading: Reading, bpm: Fraction, marks: Sequence[Event]) -> Iterator[HomeShape]:
    """Yield what a breath holds and where to breathe, in words; nothing where breath does not matter."""
    found = breath_sums(reading, bpm)
    if not found:
        return
    seconds, sign = label(reading.drill.breath), reading.meter.sign
    sentences = [
        f"{division_label(*one.leg.divisions)} a beat: {plural(one.beats, 'beat')} in a breath of {seconds} s need "
        f"{sign} = {_short(one.needed_bpm)} or more" + ("." if one.fits else f", and this is {label(bpm)}.")
        for one in found
    ]
    if marks:
        named = "; ".join(event.place_name for event in marks[:_MOST_POSITIONS])
        sentences.append(f"Breathe before {named}" + (" …" if len(marks) > _MOST_POSITIONS else "."))
    yield HomeShape(title="Breath", sentences=list(dict.fromkeys(sentences)), starts="")


def bar_shapes(reading: Reading, bpm: Fraction) -> Iterator[HomeShape]:
    """Yield how long an uneven bar lasts, and when a running click is back on its 1; nothing for even ones."""
    meter = reading.meter
    if len(set(meter.beats)) == 1:
        return
    bars = meter.bar_length.denominator
    lengths = " + ".join(label(beat) for beat in meter.beats)
    seconds = decimal(span_seconds(meter.bar_length, bpm), 3)
    sentences = [f"{meter.name}: {lengths} = {plural(meter.bar_length, 'beat')}, {seconds} s at {label(bpm)}."]
    running = CLICK_PLANS["through"].cycle(meter)
    off = len(off_the_beat(running, meter))
    sentences.append(
        f"A click that runs through on each {meter.counted_name} falls off the beat {off} times, "
        f"and is back on 1 after {plural(bars, 'bar')}."
        if off
        else f"A click that runs through on each {meter.counted_name} meets every beat."
    )
    yield HomeShape(title="The bar", sentences=sentences, starts="")


def _starts(landings: tuple[Landing, ...]) -> str:
    bars = (
        ", ".join(str(one.beat) if one.slot == 0 else f"{one.beat}{one.count}" for one in inside)
        for _, inside in groupby(landings, key=lambda one: one.bar)
    )
    return " | ".join(bars)
