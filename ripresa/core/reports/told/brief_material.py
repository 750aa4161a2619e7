"""What a drill plays, in the words of the bench: a sentence part for each kind of material."""

from collections.abc import Callable, Sequence
from typing import Any

from ripresa.core.drill.material import (
    AFTERS,
    AGAINS,
    ALL,
    BASSES,
    FIGURES,
    FITS,
    LEGATOS,
    MIXES,
    OWN,
    PATHS,
    RHYTHMS,
    SAYS,
    SHAPES,
    TOPS,
    WAYS,
    octaves_words,
)
from ripresa.core.exact import Fraction, label, listed, plural
from ripresa.core.pitch import ALL_STRINGS, CHORDS, SCALES, SPREAD_NAME, STRING_SETS, show_tonic
from ripresa.core.reports.told.words import times, word


def _scale_run(run: Any) -> str:
    scale = "own steps" if run.scale == OWN else SCALES[run.scale].name
    own = f" {word(run.own)}" if run.scale == OWN else ""
    return (
        f"{word(show_tonic(run.tonic))} {word(scale)}{own} {word(SHAPES[run.shape][0])}, "
        f"{word(octaves_words(run.octaves))}{_start(run, 'degree')}{_turn(run)}"
    )


def _arpeggio(run: Any) -> str:
    return (
        f"{word(show_tonic(run.tonic))} {word(CHORDS[run.chord].name)} {word(SHAPES[run.shape][0])}, "
        f"{word(octaves_words(run.octaves))}{_start(run, 'tone')}{_turn(run)}"
    )


def _start(run: Any, unit: str) -> str:
    return f", starting {word(f'on {unit} {run.start}')}" if run.start != 1 else ""


def _turn(run: Any) -> str:
    return "" if run.shape in {"up", "down"} or run.top == "once" else f", {word(TOPS[run.top][0])}"


def _sequence(sequence: Any) -> str:
    tones = SCALES[sequence.scale].name if sequence.scale in SCALES else f"{CHORDS[sequence.scale].name} chord"
    ready = next((name for figure, name in FIGURES.values() if figure == sequence.figure), None)
    turned_once = sequence.way == "there_and_back" and sequence.top == "once"
    top = f", {word('the figure at the turn once')}" if turned_once else ""
    figure = word(ready) if ready else f"your own figure {word(' '.join(str(one) for one in sequence.figure))}"
    return (
        f"{word(show_tonic(sequence.tonic))} {word(tones)} over {word(octaves_words(sequence.octaves))} in {figure} "
        f"{word(WAYS[sequence.way][0])}{_start(sequence, 'degree')}{top}"
    )


def _count(count: Any) -> str:
    under = f", over {word(count.under)}" if count.under else ""
    return f"{word(count.text)}{_moved([Fraction(count.shift)], 'slot', count.around)}{under}"


def _moved(shifts: Sequence[Fraction], unit: str, around: bool) -> str:
    if not any(shifts):
        return ""
    end = "wrapped round" if around else "over the bar line"
    told = listed([*(label(shift) for shift in shifts[:-1]), plural(shifts[-1], unit)])
    return f", moved {word(told)} {word(end)}"


def _line(line: Any) -> str:
    fit = f" {word(FITS[line.fit][0])}" if line.fit != "root" else ""
    after = f", {word(AFTERS[line.after][0])}" if line.after != "open" else ""
    through = f", through the chords {word(line.through)}{fit}" if line.through else after
    rhythm = f", {word(RHYTHMS[line.rhythm][0])}" if line.rhythm != "legs" else ""
    unit = "slot" if line.rhythm == "legs" else "beat"
    return (
        f"{word(line.text)} on {word(show_tonic(line.tonic))}{rhythm}{through}{_moved(line.shifts, unit, line.around)}"
    )


def _cells(cells: Any) -> str:
    drawn = f" for {word(cells.bars)} bars, draw {word(cells.seed)}" if cells.mix == "drawn" else ""
    return f"{word(cells.text)}, {word(MIXES[cells.mix][0])}{drawn}"


def _strum(strum: Any) -> str:
    step = f", {word(f'up to step {strum.step}')}" if strum.step else ""
    named = STRING_SETS[strum.strings][2] if strum.strings in STRING_SETS else SPREAD_NAME
    strings = f" {word(named)}" if strum.strings != ALL_STRINGS else ""
    return f"{word(strum.chords)}{strings} as {word(strum.pattern)}{step}"


def _picked(picked: Any) -> str:
    rhythm = f", in the rhythm {word(picked.rhythm)}" if picked.rhythm else ""
    return (
        f"{word(picked.chords)}: {word(picked.pattern)} that {word(AGAINS[picked.again][0])}, the thumb on "
        f"{word(BASSES[picked.bass][0])}{rhythm}"
    )


def _finger_order(order: Any) -> str:
    string = f", string {word(order.string)}" if order.path == "one" else ""
    shift = f", moving on by {word(plural(Fraction(order.shift), 'fret'))}" if order.shift else ""
    slurred = f" on notes {word(' '.join(str(one) for one in order.slurred))}" if order.slurred else ""
    legato = f", {word(LEGATOS[order.legato][0])}{slurred}" if order.legato != "none" else ""
    fingers = "all 24 orders" if order.order == ALL else order.order
    return (
        f"{word(fingers)} {word(PATHS[order.path][0])}{string} from fret {word(order.position)}, "
        f"{word(times(order.passes))}{shift}{legato}"
    )


def _long_notes(notes: Any) -> str:
    rest = f", then {word(notes.rest)} of silence" if notes.rest else ""
    return (
        f"{word(show_tonic(notes.tonic))} {word(SCALES[notes.scale].name)}, {word(octaves_words(notes.octaves))} "
        f"{word(SHAPES[notes.shape][0])}, each {word(notes.beats)} beats long{rest}"
    )


def _one_note(note: Any) -> str:
    said = f", {word(SAYS[note.say][0])} from {word(note.first)}" if note.say != "count" else ""
    return f"for {word(note.beats)} beats{said}"


MATERIALS_TOLD: dict[str, Callable[[Any], str]] = {
    "scale_run": _scale_run,
    "arpeggio": _arpeggio,
    "sequence": _sequence,
    "line": _line,
    "count": _count,
    "cells": _cells,
    "strum": _strum,
    "picked": _picked,
    "finger_order": _finger_order,
    "long_notes": _long_notes,
    "one_note": _one_note,
}
