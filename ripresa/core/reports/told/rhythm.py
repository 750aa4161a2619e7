"""How a rhythm lies to the beat, what its cells are, and how long an uneven bar lasts, in sentences."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import groupby

from ripresa.core.drill.click import CLICK_PLANS
from ripresa.core.drill.material import Cells, Count, own_rhythm
from ripresa.core.exact import Fraction, decimal, division_label, label, listed, plural
from ripresa.core.reading import Reading, read
from ripresa.core.reports.click import off_the_beat
from ripresa.core.reports.motion import on_numbers
from ripresa.core.reports.speed import leg_speeds
from ripresa.core.reports.told.paragraph import Paragraph
from ripresa.core.rhythm import leg_meters, span_seconds

_MOST_BARS_COUNTED = 16
_CELLS = "ABCDEFGH"


def numbers_told(reading: Reading) -> Iterator[Paragraph]:
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
    yield Paragraph("To the beat", tuple(sentences))


def cells_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield the cells of mixed cells and their order; nothing for other material."""
    material = reading.drill.material
    if not isinstance(material, Cells):
        return
    order = material.order(leg_meters(reading.drill.meter)[0])
    named = " | ".join(" ".join(_CELLS[cell] for cell in bar) for bar in order)
    cells = zip(_CELLS, material.text.split(";"), strict=False)
    letters = ", ".join(f"{letter} is “{text.strip()}”" for letter, text in cells)
    yield Paragraph(f"Cells over {plural(len(order), 'bar')}", (f"{letters}.",), named, "The cells, bar by bar")


def _turns_told(reading: Reading) -> Iterator[str]:
    """Yield with which of the bars that take turns a pass ends, where that is not the last of them."""
    turns = len(reading.meter.bars)
    over = reading.bar_count % turns
    if over and len(leg_meters(reading.drill.meter)) == 1:
        yield (
            f"A pass of {plural(reading.bar_count, 'bar')} ends after {over} of the {turns} that take turns, and the "
            "next begins with the first of them again."
        )


def _slots_told(reading: Reading, bpm: Fraction) -> Iterator[str]:
    """Yield how far apart the notes of each division are in each length of beat, the shortest first."""
    known = dict.fromkeys(
        (leg.divisions, speed.gaps)
        for leg, speed in zip(reading.legs, leg_speeds(reading), strict=True)
        if len(speed.gaps) > 1 and reading.drill.swing.ratio == 1
    )
    for divisions, gaps in known:
        told = [
            f"{decimal(span_seconds(gap, bpm) * 1000, 1)} ms apart in a beat of {label(gap * divisions[0])}"
            for gap in reversed(gaps)
        ]
        yield f"With {division_label(*divisions)} a beat the notes are {listed(told)}."


def bar_told(reading: Reading, bpm: Fraction) -> Iterator[Paragraph]:
    """Yield how long an uneven bar lasts, and when a running click is back on its 1; nothing for even ones."""
    meter = reading.meter
    beats = [beat for bar in meter.bars for beat in bar.beats]
    if len(set(beats)) == 1 and meter.is_plain:
        return
    lengths = " | ".join(" + ".join(label(beat) for beat in bar.beats) for bar in dict.fromkeys(meter.bars))
    seconds = decimal(span_seconds(meter.cycle_beats, bpm), 3)
    running = CLICK_PLANS["through"].cycle(meter)
    off = len(off_the_beat(running, meter))
    yield Paragraph(
        "The bar" if meter.is_plain else "The bars",
        (
            f"{meter.name}: {lengths} = {plural(meter.cycle_beats, 'beat')}, {seconds} s at {label(bpm)}.",
            *_slots_told(reading, bpm),
            *_turns_told(reading),
            f"A click that runs through on each {meter.counted_name} falls off the beat {off} times, "
            f"and is back on 1 after {plural(meter.bars_passed(running.length), 'bar')}."
            if off
            else f"A click that runs through on each {meter.counted_name} meets every beat.",
        ),
    )
