"""The brief: a drill as the sentence that the bench is made of, for paper and for whoever reads it aloud.

What the bench has as words to press are words here too, so that paper can set them in bold. Words that only repeat what
is usual are left out.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from ripresa.core.drill import (
    ARTICULATIONS,
    CLOSINGS,
    FINGERINGS,
    MOVEMENTS,
    REDUCTIONS,
    SEAMS,
    VOICES,
    Drill,
    Leg,
)
from ripresa.core.drill.accents import ACCENTS
from ripresa.core.drill.hands import (
    ARTICULATION_PATTERNS,
    CIRCUITS,
    CYCLES,
    HANDS,
    LEADS,
    ODD_SCHOOLS,
    RESTARTS,
    Articulated,
    ByOrder,
    ByPlace,
    Economy,
)
from ripresa.core.drill.material import (
    AFTERS,
    AGAINS,
    ALL,
    BASSES,
    FIGURES,
    LEGATOS,
    MATERIALS,
    MIXES,
    OWN,
    PATHS,
    RHYTHMS,
    SAYS,
    SHAPES,
    TOPS,
    WAYS,
    octaves_words,
    own_rhythm,
)
from ripresa.core.drill.second import BALANCES, HOLDS, INTERVALS, PLAYS, STARTS
from ripresa.core.drill.second import FIGURES as BROKEN
from ripresa.core.exact import division_label, label, plural
from ripresa.core.pitch import CHORDS, LEVELS, SCALES, instrument_named, show_tonic
from ripresa.core.reading import Reading
from ripresa.core.rhythm import RATIOS, SYSTEMS, meter_named

#: More legs than that are told by their number.
_MOST_LEGS = 12
#: Around a word while a sentence is put together: signs that no text may hold.
_OPEN, _CLOSE = "\ue000", "\ue001"


@dataclass(frozen=True, slots=True)
class Run:
    """A stretch of a sentence, and whether it is one of its words."""

    text: str
    is_word: bool = False


def brief_runs(reading: Reading) -> tuple[Run, ...]:
    """Return a drill as one sentence or a few."""
    drill = reading.drill
    return _runs(" ".join(part for part in _sentences(reading, drill) if part))


def brief(reading: Reading) -> str:
    """Return a drill as one sentence or a few, in plain text."""
    return "".join(run.text for run in brief_runs(reading))


def _word(text: object) -> str:
    return f"{_OPEN}{_plain(str(text))}{_CLOSE}"


def _plain(text: str) -> str:
    return text.replace(_OPEN, "").replace(_CLOSE, "")


def _runs(sentence: str) -> tuple[Run, ...]:
    found = []
    for number, piece in enumerate(sentence.split(_OPEN)):
        word, closed, rest = piece.partition(_CLOSE)
        if number and closed:
            found += [Run(word, is_word=True), Run(rest)]
        else:
            found.append(Run(piece))
    return tuple(run for run in found if run.text)


def _sentences(reading: Reading, drill: Drill) -> Iterator[str]:
    material: Any = drill.material
    name = next(kind.name for kind in MATERIALS if kind.value == material.kind)
    rhythm = _word(_times(len(drill.legs))) if own_rhythm(material) else _stepping(drill.legs)
    seam = f", {_word(SEAMS[drill.seam][0])}" if len(drill.legs) > 1 or drill.seam != "hold" else ""
    closing = ""
    if any(leg.has_closing for leg in reading.legs) and drill.closing != "by_seam":
        closing = f", the closing tonic {_word(CLOSINGS[drill.closing][0])}"
    yield f"Play {_word(name)} {_MATERIALS[material.kind](material)}, in {_word(drill.meter)}, {rhythm}{seam}{closing}."
    if drill.hands.kind != "none":
        yield f"{_hands(drill)}."
    if drill.accents.kind != "none":
        yield f"Accent {_accents(drill.accents)}."
    if drill.second.is_there:
        yield f"The left hand {_second(drill)}."
    click = drill.click.words
    sign = meter_named(drill.meter).sign
    more = "".join(f", {part}" for part in _more(drill))
    instrument = instrument_named(drill.instrument).name
    yield f"Click {_word(click)} at {sign} = {_word(label(drill.bpm))}, for {_word(instrument)}{more}."


def _times(count: int) -> str:
    return {1: "once", 2: "twice"}.get(count, f"{count} times")


def _stepping(legs: tuple[Leg, ...]) -> str:
    if len(set(legs)) == 1:
        times = f", {_word(_times(len(legs)))}" if len(legs) > 1 else ""
        return f"with {_word(_legs(legs[:1]))} notes per beat{times}"
    return f"stepping {_word(_legs(legs))} notes per beat"


def _legs(legs: tuple[Leg, ...]) -> str:
    shown = [division_label(*leg.divisions) for leg in legs]
    if len(shown) > _MOST_LEGS:
        shown = [*shown[: _MOST_LEGS - 1], f"… ({len(legs)} legs)"]
    return " → ".join(shown)


def _scale_run(run: Any) -> str:
    scale = "own steps" if run.scale == OWN else SCALES[run.scale].name
    own = f" {_word(run.own)}" if run.scale == OWN else ""
    start = f", starting {_word(f'on degree {run.start}')}" if run.start != 1 else ""
    return (
        f"{_word(show_tonic(run.tonic))} {_word(scale)}{own} {_word(SHAPES[run.shape][0])}, "
        f"{_word(octaves_words(run.octaves))}{start}{_turn(run)}"
    )


def _arpeggio(run: Any) -> str:
    return (
        f"{_word(show_tonic(run.tonic))} {_word(CHORDS[run.chord].name)} {_word(SHAPES[run.shape][0])}, "
        f"{_word(octaves_words(run.octaves))}{_turn(run)}"
    )


def _turn(run: Any) -> str:
    return "" if run.shape in {"up", "down"} else f", {_word(TOPS[run.top][0])}"


def _sequence(sequence: Any) -> str:
    tones = SCALES[sequence.scale].name if sequence.scale in SCALES else f"{CHORDS[sequence.scale].name} chord"
    ready = next((name for figure, name in FIGURES.values() if figure == sequence.figure), None)
    figure = _word(ready) if ready else f"your own figure {_word(' '.join(str(one) for one in sequence.figure))}"
    return (
        f"{_word(show_tonic(sequence.tonic))} {_word(tones)} over {_word(octaves_words(sequence.octaves))} in {figure} "
        f"{_word(WAYS[sequence.way][0])}"
    )


def _count(count: Any) -> str:
    under = f", over {_word(count.under)}" if count.under else ""
    return f"{_word(count.text)}{_moved(Fraction(count.shift), 'slot', count.around)}{under}"


def _moved(shift: Fraction, unit: str, around: bool) -> str:
    if not shift:
        return ""
    end = "wrapped round" if around else "over the bar line"
    return f", moved {_word(plural(shift, unit))} {_word(end)}"


def _line(line: Any) -> str:
    through = f", through the chords {_word(line.through)}" if line.through else f", {_word(AFTERS[line.after][0])}"
    unit = "slot" if line.rhythm == "legs" else "beat"
    return (
        f"{_word(line.text)} on {_word(show_tonic(line.tonic))}, {_word(RHYTHMS[line.rhythm][0])}{through}"
        f"{_moved(line.shift, unit, line.around)}"
    )


def _cells(cells: Any) -> str:
    drawn = f" for {_word(cells.bars)} bars, draw {_word(cells.seed)}" if cells.mix == "drawn" else ""
    return f"{_word(cells.text)}, {_word(MIXES[cells.mix][0])}{drawn}"


def _strum(strum: Any) -> str:
    step = f", {_word(f'up to step {strum.step}')}" if strum.step else ""
    return f"{_word(strum.chords)} as {_word(strum.pattern)}{step}"


def _picked(picked: Any) -> str:
    rhythm = f", in the rhythm {_word(picked.rhythm)}" if picked.rhythm else ""
    return (
        f"{_word(picked.chords)}: {_word(picked.pattern)} that {_word(AGAINS[picked.again][0])}, the thumb on "
        f"{_word(BASSES[picked.bass][0])}{rhythm}"
    )


def _finger_order(order: Any) -> str:
    string = f", string {_word(order.string)}" if order.path == "one" else ""
    shift = f", moving on by {_word(plural(Fraction(order.shift), 'fret'))}" if order.shift else ""
    slurred = f" on notes {_word(' '.join(str(one) for one in order.slurred))}" if order.slurred else ""
    legato = f", {_word(LEGATOS[order.legato][0])}{slurred}" if order.legato != "none" else ""
    fingers = "all 24 orders" if order.order == ALL else order.order
    return (
        f"{_word(fingers)} {_word(PATHS[order.path][0])}{string} from fret {_word(order.position)}, "
        f"{_word(_times(order.passes))}{shift}{legato}"
    )


def _long_notes(notes: Any) -> str:
    rest = f", then {_word(notes.rest)} of silence" if notes.rest else ""
    return (
        f"{_word(show_tonic(notes.tonic))} {_word(SCALES[notes.scale].name)}, {_word(octaves_words(notes.octaves))} "
        f"{_word(SHAPES[notes.shape][0])}, each {_word(notes.beats)} beats long{rest}"
    )


def _one_note(note: Any) -> str:
    first = f" from {_word(note.first)}" if note.say != "count" else ""
    return f"for {_word(note.beats)} beats a leg, {_word(SAYS[note.say][0])}{first}"


_MATERIALS: dict[str, Callable[[Any], str]] = {
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


def _hands(drill: Drill) -> str:
    hands = drill.hands
    name = next(kind.name for kind in HANDS if kind.value == hands.kind)
    match hands:
        case ByOrder():
            ready = next((found for cycle, found in CYCLES.values() if cycle == hands.cycle), None)
            signs = " ".join(hands.cycle)
            said = _word(_capital(f"{ready} ({signs})")) if ready else f"{_word(_capital(name))} {_word(signs)}"
            return said + (f" that {_word(RESTARTS[hands.restart][0])}" if len(hands.cycle) > 1 else "")
        case ByPlace():
            odd = f" and {_word(ODD_SCHOOLS[hands.odd][0])}" if _has_odd(drill) else ""
            return f"{_word(_capital(name))} {_word(LEADS[hands.lead][0])}{odd}"
        case Economy():
            return f"{_word(_capital(name))} {_word(LEADS[hands.lead][0])}"
        case Articulated():
            known: dict[str, str] = {key: name for key, (_, name, _) in ARTICULATION_PATTERNS.items()}
            known |= {key: name for key, (_, name, _) in CIRCUITS.items()}
            pattern = known[hands.pattern]
            return f"{_word(_capital(name))}: {_word(pattern)} that {_word(RESTARTS[hands.restart][0])}"
        case _:
            return _word(_capital(name))


def _has_odd(drill: Drill) -> bool:
    return any(division.numerator % 2 for leg in drill.legs for division in leg.divisions if division > 1)


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _accents(accents: Any) -> str:
    name = next(kind.name for kind in ACCENTS if kind.value == accents.kind)
    match accents.kind:
        case "every_nth":
            return (
                f"{_word(name)}, in groups of {_word(accents.size)} whose count {_word(RESTARTS[accents.restart][0])}"
            )
        case "walk":
            bars = plural(Fraction(accents.bars), "bar")
            return f"{_word(name)}, {_word(accents.width)} wide, moving every {_word(bars)}"
        case "typed":
            signs = " ".join(_SIGNS[level] for level in accents.cycle)
            return f"{_word(name)} {_word(signs)} that {_word(RESTARTS[accents.restart][0])}"
        case _:
            return _word(name)


_SIGNS = {"accent": ">", "plain": "-", "ghost": "o"}


def _second(drill: Drill) -> str:
    second, plays = drill.second, drill.second.plays
    name = next(kind.name for kind in PLAYS if kind.value == plays.kind)
    divisions = f"{_word(_legs(second.legs))} notes per beat" if second.legs else "in the same rhythm"
    balance = f", {_word(BALANCES[second.balance][2])}" if second.balance != "alike" else ""
    phrase = f"; both together are said {_word(second.phrase)}" if second.phrase else ""
    return f"{_word(name)} {_plays(plays)}, {divisions}{balance}{phrase}"


def _plays(plays: Any) -> str:
    match plays.kind:
        case "parallel":
            return _word(INTERVALS[plays.interval][2])
        case "contrary":
            return f"from {_word(STARTS[plays.start][2])}"
        case "line":
            return f"{_word(plays.text)} on {_word(show_tonic(plays.tonic))}"
        case "one_key":
            return f"{_word(plays.note or 'a tap')}, {_word(HOLDS[plays.hold][0])}"
        case "chords":
            return f"{_word(plays.chords)} {_word(BROKEN[plays.figure][1])}"
        case _:
            return ""


def _more(drill: Drill) -> Iterator[str]:
    if drill.level != "full":
        yield _word(LEVELS[drill.level][0])
    if drill.swing.ratio != 1:
        name = next((name for ratio, name, _ in RATIOS if ratio == drill.swing.ratio), None)
        pairs = {2: "eighths", 4: "sixteenths"}[drill.swing.on]
        yield f"{_word(name or f'with a swing of {label(drill.swing.ratio)}')} on {_word(pairs)}"
    if drill.fingering != "none":
        yield _word(FINGERINGS[drill.fingering][0])
    if drill.counting.system != "numbers":
        yield f"counted {_word(SYSTEMS[drill.counting.system][0])}"
    if drill.articulation != 1:
        name = next((name for share, name, _ in ARTICULATIONS if share == drill.articulation), None)
        yield f"notes {_word(name or f'sounding for {label(drill.articulation)} of their length')}"
    if drill.breath:
        yield f"one breath lasting {_word(label(drill.breath))} seconds"
    if drill.reduce.part != "everything":
        hand = f" {_word(drill.reduce.hand)}" if drill.reduce.part == "hand" else ""
        burst = f" of {_word(drill.reduce.beats)} beats" if drill.reduce.part == "burst" else ""
        yield f"playing {_word(REDUCTIONS[drill.reduce.part][0])}{hand}{burst}"
    if drill.body.movement != "none":
        every = plural(drill.body.every, "beat") if drill.body.every != 1 else "beat"
        yield f"with {_word(MOVEMENTS[drill.body.movement][0])} every {_word(every)}"
    if drill.voice != "silent":
        yield _word(VOICES[drill.voice][0])
    if drill.register:
        octaves = "an octave" if abs(drill.register) == 1 else f"{abs(drill.register)} octaves"
        yield _word(f"{octaves} {'higher' if drill.register > 0 else 'lower'}")
    if drill.folded:
        yield _word("folded into the range")
