"""The brief: a drill as the sentence that the bench is made of, for paper and for whoever reads it aloud.

What the bench has as words to press are words here too, so that paper can set them in bold. Words that only repeat what
is usual are left out.
"""

from collections.abc import Iterator
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
    MATERIALS,
    own_rhythm,
)
from ripresa.core.drill.second import BALANCES, HOLDS, INTERVALS, PLAYS, STARTS
from ripresa.core.drill.second import FIGURES as BROKEN
from ripresa.core.exact import division_label, label, plural
from ripresa.core.pitch import LEVELS, instrument_named, show_tonic
from ripresa.core.reading import Reading
from ripresa.core.reports.told.brief_material import MATERIALS_TOLD
from ripresa.core.reports.told.words import Run, runs, times, word
from ripresa.core.rhythm import RATIOS, SYSTEMS, meter_named

#: More legs than that are told by their number.
_MOST_LEGS = 12


def brief_runs(reading: Reading) -> tuple[Run, ...]:
    """Return a drill as one sentence or a few."""
    drill = reading.drill
    return runs(" ".join(part for part in _sentences(reading, drill) if part))


def brief(reading: Reading) -> str:
    """Return a drill as one sentence or a few, in plain text."""
    return "".join(run.text for run in brief_runs(reading))


def _sentences(reading: Reading, drill: Drill) -> Iterator[str]:
    material: Any = drill.material
    name = next(kind.name for kind in MATERIALS if kind.value == material.kind)
    rhythm = word(times(len(drill.legs))) if own_rhythm(material) else _stepping(drill.legs)
    seam = f", {word(SEAMS[drill.seam][0])}" if len(drill.legs) > 1 or drill.seam != "hold" else ""
    closing = ""
    if any(leg.has_closing for leg in reading.legs) and drill.closing != "by_seam":
        closing = f", the closing tonic {word(CLOSINGS[drill.closing][0])}"
    played = f"{word(name)} {MATERIALS_TOLD[material.kind](material)}"
    yield f"Play {played}, in {word(drill.meter)}, {rhythm}{seam}{closing}."
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
    yield f"Click {word(click)} at {sign} = {word(label(drill.bpm))}, for {word(instrument)}{more}."


def _stepping(legs: tuple[Leg, ...]) -> str:
    if len(set(legs)) == 1:
        often = f", {word(times(len(legs)))}" if len(legs) > 1 else ""
        return f"with {word(_legs(legs[:1]))} notes per beat{often}"
    return f"stepping {word(_legs(legs))} notes per beat"


def _legs(legs: tuple[Leg, ...]) -> str:
    shown = [division_label(*leg.divisions) for leg in legs]
    if len(shown) > _MOST_LEGS:
        shown = [*shown[: _MOST_LEGS - 1], f"… ({len(legs)} legs)"]
    return " → ".join(shown)


def _hands(drill: Drill) -> str:
    hands = drill.hands
    name = next(kind.name for kind in HANDS if kind.value == hands.kind)
    match hands:
        case ByOrder():
            ready = next((found for cycle, found in CYCLES.values() if cycle == hands.cycle), None)
            signs = " ".join(hands.cycle)
            said = word(_capital(f"{ready} ({signs})")) if ready else f"{word(_capital(name))} {word(signs)}"
            return said + (f" that {word(RESTARTS[hands.restart][0])}" if len(hands.cycle) > 1 else "")
        case ByPlace():
            odd = f" and {word(ODD_SCHOOLS[hands.odd][0])}" if _has_odd(drill) else ""
            return f"{word(_capital(name))} {word(LEADS[hands.lead][0])}{odd}"
        case Economy():
            return f"{word(_capital(name))} {word(LEADS[hands.lead][0])}"
        case Articulated():
            known: dict[str, str] = {key: name for key, (_, name, _) in ARTICULATION_PATTERNS.items()}
            known |= {key: name for key, (_, name, _) in CIRCUITS.items()}
            pattern = known[hands.pattern]
            return f"{word(_capital(name))}: {word(pattern)} that {word(RESTARTS[hands.restart][0])}"
        case _:
            return word(_capital(name))


def _has_odd(drill: Drill) -> bool:
    return any(division.numerator % 2 for leg in drill.legs for division in leg.divisions if division > 1)


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _accents(accents: Any) -> str:
    name = next(kind.name for kind in ACCENTS if kind.value == accents.kind)
    match accents.kind:
        case "every_nth":
            return f"{word(name)}, in groups of {word(accents.size)} whose count {word(RESTARTS[accents.restart][0])}"
        case "walk":
            bars = plural(Fraction(accents.bars), "bar")
            return f"{word(name)}, {word(accents.width)} wide, moving every {word(bars)}"
        case "typed":
            signs = " ".join(_SIGNS[level] for level in accents.cycle)
            return f"{word(name)} {word(signs)} that {word(RESTARTS[accents.restart][0])}"
        case _:
            return word(name)


_SIGNS = {"accent": ">", "plain": "-", "ghost": "o"}


def _second(drill: Drill) -> str:
    second, plays = drill.second, drill.second.plays
    name = next(kind.name for kind in PLAYS if kind.value == plays.kind)
    divisions = f"{word(_legs(second.legs))} notes per beat" if second.legs else "in the same rhythm"
    balance = f", {word(BALANCES[second.balance][2])}" if second.balance != "alike" else ""
    phrase = f"; both together are said {word(second.phrase)}" if second.phrase else ""
    return f"{word(name)} {_plays(plays)}, {divisions}{balance}{phrase}"


def _plays(plays: Any) -> str:
    match plays.kind:
        case "parallel":
            return word(INTERVALS[plays.interval][2])
        case "contrary":
            return f"from {word(STARTS[plays.start][2])}"
        case "line":
            return f"{word(plays.text)} on {word(show_tonic(plays.tonic))}"
        case "one_key":
            return f"{word(plays.note or 'a tap')}, {word(HOLDS[plays.hold][0])}"
        case "chords":
            return f"{word(plays.chords)} {word(BROKEN[plays.figure][1])}"
        case _:
            return ""


def _more(drill: Drill) -> Iterator[str]:
    if drill.level != "full":
        yield word(LEVELS[drill.level][0])
    if drill.swing.ratio != 1:
        name = next((name for ratio, name, _ in RATIOS if ratio == drill.swing.ratio), None)
        pairs = {2: "eighths", 4: "sixteenths"}[drill.swing.on]
        yield f"{word(name or f'with a swing of {label(drill.swing.ratio)}')} on {word(pairs)}"
    if drill.fingering != "none":
        yield word(FINGERINGS[drill.fingering][0])
    if drill.counting.system != "numbers":
        yield f"counted {word(SYSTEMS[drill.counting.system][0])}"
    if drill.articulation != 1:
        name = next((name for share, name, _ in ARTICULATIONS if share == drill.articulation), None)
        yield f"notes {word(name or f'sounding for {label(drill.articulation)} of their length')}"
    if drill.breath:
        yield f"one breath lasting {word(label(drill.breath))} seconds"
    if drill.reduce.part != "everything":
        hand = f" {word(drill.reduce.hand)}" if drill.reduce.part == "hand" else ""
        burst = f" of {word(drill.reduce.beats)} beats" if drill.reduce.part == "burst" else ""
        yield f"playing {word(REDUCTIONS[drill.reduce.part][0])}{hand}{burst}"
    if drill.body.movement != "none":
        every = plural(drill.body.every, "beat") if drill.body.every != 1 else "beat"
        yield f"with {word(MOVEMENTS[drill.body.movement][0])} every {word(every)}"
    if drill.voice != "silent":
        yield word(VOICES[drill.voice][0])
    if drill.register:
        octaves = "an octave" if abs(drill.register) == 1 else f"{abs(drill.register)} octaves"
        yield word(f"{octaves} {'higher' if drill.register > 0 else 'lower'}")
    if drill.folded:
        yield word("folded into the range")
