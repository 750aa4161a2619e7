"""The brief: a drill as the sentence that the bench is made of, for paper and for whoever reads it aloud.

What the bench has as words to press are words here too, so that paper can set them in bold. Words that only repeat what
is usual are left out.
"""

from collections.abc import Iterable, Iterator, Sequence
from typing import Any

from ripresa.core.drill import (
    ARTICULATIONS,
    CLOSINGS,
    ENTERING,
    FEET,
    FINGERINGS,
    MOVEMENTS,
    REDUCTIONS,
    SEAMS,
    VOICES,
    VOICINGS,
    Drill,
    Leg,
)
from ripresa.core.drill.accents import ACCENTS, EachBeat, EveryNth
from ripresa.core.drill.hands import (
    ARTICULATION_PATTERNS,
    CIRCUITS,
    CYCLES,
    HAND_LEADS,
    HANDS,
    LEADS,
    ODD_SCHOOLS,
    RESTARTS,
    Articulated,
    ByOrder,
    ByPlace,
    Economy,
    Letters,
)
from ripresa.core.drill.material import (
    AS_ON_STRINGS,
    MATERIALS,
    own_rhythm,
)
from ripresa.core.drill.second import BALANCES, HOLDS, INTERVALS, PLAYS, STARTS
from ripresa.core.drill.second import FIGURES as BROKEN
from ripresa.core.exact import Fraction, division_label, label, listed, plural
from ripresa.core.pitch import LEVELS, instrument_named, show_tonic
from ripresa.core.reading import Reading
from ripresa.core.reports.told.brief_material import MATERIALS_TOLD
from ripresa.core.reports.told.words import Run, runs, times, word
from ripresa.core.rhythm import RATIOS, RUNS, SYSTEMS, meter_named

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
    rhythm = _often(len(drill.legs)) if own_rhythm(material) else f", {_stepping(drill.legs)}"
    seam = f", {word(SEAMS[drill.seam][0])}" if drill.seam != "hold" else ""
    closing = ""
    if any(leg.has_closing for leg in reading.legs) and drill.closing != "by_seam":
        closing = f", the closing tonic {word(CLOSINGS[drill.closing][0])}"
    played = f"{word(name)} {MATERIALS_TOLD[material.kind](material)}"
    yield f"Play {played}, in {word(drill.meter)}{rhythm}{seam}{closing}{_joined(_in_time(drill))}."
    if drill.hands.kind != "none":
        yield f"{_hands(drill)}{_joined(_on_the_instrument(drill))}."
    elif drill.fingering != "none" or drill.ornaments:
        yield f"{_capital_run(list(_on_the_instrument(drill)))}."
    if drill.accents.kind != "none" and drill.accents != EachBeat():
        yield f"Accent {_accents(drill.accents)}."
    if drill.hits.is_written or drill.hits.fills:
        yield f"{_hits(drill)}."
    if drill.second.is_there:
        yield f"The left hand {_second(drill)}."
    moving = list(with_the_body(drill))
    if moving:
        yield f"{_capital_run(moving)}."
    sounding = list(_sounding(reading))
    if sounding:
        yield f"{_capital_run(sounding)}."
    click = drill.click.words
    sign = meter_named(drill.meter).sign
    instrument = instrument_named(drill.instrument).name
    level = f", {word(LEVELS[drill.level][0])}" if drill.level != "full" else ""
    played_on = f", for {word(instrument)}{level}" if drill.instrument != "any" else level
    yield f"Click {word(click)} at {sign} = {word(label(drill.bpm))}{played_on}."


def _joined(parts: Iterable[str]) -> str:
    return "".join(f", {part}" for part in parts)


def _capital_run(parts: Sequence[str]) -> str:
    """Return parts as one clause that begins a sentence; the mark of a word to press comes before its letter."""
    text = ", ".join(parts)
    start = next(at for at, sign in enumerate(text) if sign.isalnum())
    return text[:start] + text[start].upper() + text[start + 1 :]


def _often(count: int) -> str:
    return f", {word(times(count))}" if count > 1 else ""


def _stepping(legs: tuple[Leg, ...]) -> str:
    if len(set(legs)) == 1:
        often = f", {word(times(len(legs)))}" if len(legs) > 1 else ""
        unit = "note" if legs[0] == Leg(Fraction(1)) else "notes"
        return f"with {word(_legs(legs[:1]))} {unit} per beat{often}"
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
            anew = len(hands.cycle) > 1 and hands.restart != "never"
            return said + (f" that {word(RESTARTS[hands.restart][0])}" if anew else "")
        case ByPlace():
            odd = f" and {word(ODD_SCHOOLS[hands.odd][0])}" if _has_odd(drill) else ""
            return f"{word(_capital(name))} {word(LEADS[hands.lead][0])}{odd}"
        case Letters():
            odd = f" and {word(ODD_SCHOOLS[hands.odd][0])}" if _has_odd(drill) and not hands.pattern else ""
            said = " ".join(hands.pattern) if hands.pattern else HAND_LEADS[hands.lead][0]
            return f"{word(_capital(name))}: {word(said)}{odd}"
        case Economy():
            return f"{word(_capital(name))} {word(LEADS[hands.lead][0])}"
        case Articulated():
            known: dict[str, str] = {key: name for key, (_, name, _) in ARTICULATION_PATTERNS.items()}
            known |= {key: name for key, (_, name, _) in CIRCUITS.items()}
            pattern = known[hands.pattern]
            anew = hands.restart != Articulated().restart
            return f"{word(_capital(name))}: {word(pattern)}" + (
                f" that {word(RESTARTS[hands.restart][0])}" if anew else ""
            )
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
            anew = (
                f", a count that {word(RESTARTS[accents.restart][0])}" if accents.restart != EveryNth().restart else ""
            )
            return f"the first of every {word(accents.size)} notes{anew}"
        case "walk":
            bars = plural(Fraction(accents.bars), "bar")
            wide = f", {word(accents.width)} wide" if accents.width > 1 else ""
            return f"{word(name)}{wide}, moving every {word(bars)}"
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


def _in_time(drill: Drill) -> Iterator[str]:
    """Yield how its time is bent, counted, and what of it is played."""
    if drill.swing.ratio != 1:
        name = next((name for ratio, name, _ in RATIOS if ratio == drill.swing.ratio), None)
        pairs = {2: "eighths", 4: "sixteenths"}[drill.swing.on]
        yield f"{word(name or f'with a swing of {label(drill.swing.ratio)}')} on {word(pairs)}"
    if drill.counting.system != "numbers" or drill.counting.runs != "bar":
        counting = drill.counting
        said = [SYSTEMS[counting.system][0]] * (counting.system != "numbers")
        said += [RUNS[counting.runs][0]] * (counting.runs != "bar")
        yield f"counted {' '.join(word(one) for one in said)}"
    if drill.reduce.part != "everything":
        hand = f" {word(drill.reduce.hand)}" if drill.reduce.part == "hand" else ""
        burst = f" of {word(drill.reduce.beats)} beats" if drill.reduce.part == "burst" else ""
        yield f"playing {word(REDUCTIONS[drill.reduce.part][0])}{hand}{burst}"


def _on_the_instrument(drill: Drill) -> Iterator[str]:
    """Yield how the hands lie, and which notes they do not strike."""
    if drill.fingering != "none":
        yield word(FINGERINGS[drill.fingering][0])
    if drill.ornaments:
        yield word(f"{plural(len(drill.ornaments), 'note')} not struck")


def _hits(drill: Drill) -> str:
    hits = drill.hits
    said = f"Hits on {word(hits.text)}" if hits.is_written else "Hits where it is accented"
    if hits.is_written and hits.again:
        said += f", again after {word(plural(Fraction(hits.again), 'bar'))}"
    if not hits.fills:
        return f"{said}, all between them filled"
    bars = plural(Fraction(hits.bars), "bar") if hits.bars > 1 else "bar"
    return f"{said}, filled with {word(' '.join(str(one) for one in hits.fills))} notes, a number each {word(bars)}"


def with_the_body(drill: Drill) -> Iterator[str]:
    """Yield what foot, body and voice do, and when they enter."""
    foot, body = drill.foot, drill.body
    if foot.which != "none":
        yield f"{word(FEET[foot.which][0])} {_every(foot.every, foot.pattern)}"
    if body.movement != "none":
        yield f"with {word(MOVEMENTS[body.movement][0])} {_every(body.every, body.pattern)}"
    if drill.voice != "silent":
        prompt = f": {word(drill.prompt)}" if drill.voice == "talk" and drill.prompt else ""
        yield f"{word(VOICES[drill.voice][0])}{prompt}"
    late = [(name, bar) for name, bar in drill.enters.order if bar > 1]
    if late:
        yield listed([f"{ENTERING[name][0]} from bar {word(bar)}" for name, bar in late])


def _every(every: Fraction, pattern: str) -> str:
    if pattern.strip():
        return f"on {word(pattern)}"
    return f"every {word(plural(every, 'beat') if every != 1 else 'beat')}"


def _sounding(reading: Reading) -> Iterator[str]:
    """Yield how long notes sound, where they lie, and how long a breath is."""
    drill = reading.drill
    if drill.articulation != 1:
        name = next((name for share, name, _ in ARTICULATIONS if share == drill.articulation), None)
        yield f"notes {word(name or f'sounding for {label(drill.articulation)} of their length')}"
    if drill.register:
        octaves = "an octave" if abs(drill.register) == 1 else f"{abs(drill.register)} octaves"
        stays = any(leg.described.endswith(AS_ON_STRINGS) for leg in reading.legs)
        side = "higher" if drill.register > 0 else "lower"
        yield word(f"{octaves} {side}") + (f", but {AS_ON_STRINGS}" if stays else "")
    if drill.voicing != "as_written":
        yield word(VOICINGS[drill.voicing][0])
    if drill.folded:
        yield word("folded into the range")
    if drill.breath:
        yield f"one breath lasting {word(label(drill.breath))} seconds"
