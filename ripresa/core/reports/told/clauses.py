"""The clauses that a drill is told in, with its words to press marked: of the brief, and of what changed."""

from typing import Any

from ripresa.core.drill import (
    ENTERING,
    FEET,
    MOVEMENTS,
    REDUCTIONS,
    VOICES,
    Drill,
    Leg,
)
from ripresa.core.drill.accents import ACCENTS, EveryNth
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
from ripresa.core.drill.second import BALANCES, HOLDS, INTERVALS, PLAYS, STARTS
from ripresa.core.drill.second import FIGURES as BROKEN
from ripresa.core.exact import Fraction, capital, division_label, listed, plural
from ripresa.core.pitch import show_tonic
from ripresa.core.reports.told.words import word
from ripresa.core.rhythm import division_name

#: What swings in pairs, by the slots of a beat that a swing is on.
SWUNG = {2: "eighths", 4: "sixteenths"}
#: More legs than that are told by their number.
_MOST_LEGS = 12


def legs_told(legs: tuple[Leg, ...], counted: Fraction | None = None) -> str:
    """Return the divisions of stages, in order; many are told by their number.

    Args:
        counted: The note that bpm counts: they are called by their names then, else by their numbers.
    """
    shown = [division_name(leg.divisions, counted) if counted else division_label(*leg.divisions) for leg in legs]
    if len(shown) > _MOST_LEGS:
        shown = [*shown[: _MOST_LEGS - 1], f"… ({len(legs)} legs)"]
    return " → ".join(shown)


def hands_told(drill: Drill) -> str:
    """Return how the hands play."""
    hands = drill.hands
    name = next(kind.name for kind in HANDS if kind.value == hands.kind)
    match hands:
        case ByOrder():
            ready = next((found for cycle, found in CYCLES.values() if cycle == hands.cycle), None)
            signs = " ".join(hands.cycle)
            said = word(capital(f"{ready} ({signs})")) if ready else f"{word(capital(name))} {word(signs)}"
            anew = len(hands.cycle) > 1 and hands.restart != "never"
            return said + (f" that {word(RESTARTS[hands.restart][0])}" if anew else "")
        case ByPlace():
            odd = f" and {word(ODD_SCHOOLS[hands.odd][0])}" if _has_odd(drill) else ""
            return f"{word(capital(name))} {word(LEADS[hands.lead][0])}{odd}"
        case Letters():
            odd = f" and {word(ODD_SCHOOLS[hands.odd][0])}" if _has_odd(drill) and not hands.pattern else ""
            said = " ".join(hands.pattern) if hands.pattern else HAND_LEADS[hands.lead][0]
            return f"{word(capital(name))}: {word(said)}{odd}"
        case Economy():
            return f"{word(capital(name))} {word(LEADS[hands.lead][0])}"
        case Articulated():
            known: dict[str, str] = {key: name for key, (_, name, _) in ARTICULATION_PATTERNS.items()}
            known |= {key: name for key, (_, name, _) in CIRCUITS.items()}
            pattern = known[hands.pattern]
            anew = hands.restart != Articulated().restart
            return f"{word(capital(name))}: {word(pattern)}" + (
                f" that {word(RESTARTS[hands.restart][0])}" if anew else ""
            )
        case _:
            return word(capital(name))


def _has_odd(drill: Drill) -> bool:
    return any(division.numerator % 2 for leg in drill.legs for division in leg.divisions if division > 1)


def accents_told(accents: Any) -> str:
    """Return what is accented."""
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


def second_told(drill: Drill) -> str:
    """Return what the left hand plays."""
    second, plays = drill.second, drill.second.plays
    name = next(kind.name for kind in PLAYS if kind.value == plays.kind)
    divisions = f"{word(legs_told(second.legs))} notes per beat" if second.legs else "in the same rhythm"
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


def reduce_told(drill: Drill) -> str:
    """Return what of it is played."""
    hand = f" {word(drill.reduce.hand)}" if drill.reduce.part == "hand" else ""
    burst = f" of {word(drill.reduce.beats)} beats" if drill.reduce.part == "burst" else ""
    return f"{word(REDUCTIONS[drill.reduce.part][0])}{hand}{burst}"


def hits_told(drill: Drill) -> str:
    """Return where the hits are, and what fills the room between them."""
    hits = drill.hits
    said = f"Hits on {word(hits.text)}" if hits.is_written else "Hits where it is accented"
    if hits.is_written and hits.again:
        said += f", again after {word(plural(Fraction(hits.again), 'bar'))}"
    if not hits.fills:
        return f"{said}, all between them filled"
    bars = plural(Fraction(hits.bars), "bar") if hits.bars > 1 else "bar"
    return f"{said}, filled with {word(' '.join(str(one) for one in hits.fills))} notes, a number each {word(bars)}"


def foot_told(drill: Drill) -> str:
    """Return which foot keeps the time, and how often."""
    foot = drill.foot
    every = f" {_every(foot.every, foot.pattern)}" if foot.which != "none" else ""
    return f"{word(FEET[foot.which][0])}{every}"


def movement_told(drill: Drill) -> str:
    """Return how the body moves, and how often."""
    body = drill.body
    every = f" {_every(body.every, body.pattern)}" if body.movement != "none" else ""
    return f"{word(MOVEMENTS[body.movement][0])}{every}"


def voice_told(drill: Drill) -> str:
    """Return what the voice does."""
    return word(VOICES[drill.voice][0])


def entries_told(drill: Drill) -> str:
    """Return which layers come in later; empty where none does."""
    late = [(name, bar) for name, bar in drill.enters.order if bar > 1]
    return listed([f"{ENTERING[name][0]} from bar {word(bar)}" for name, bar in late])


def _every(every: Fraction, pattern: str) -> str:
    if pattern.strip():
        return f"on {word(pattern)}"
    return f"every {word(plural(every, 'beat') if every != 1 else 'beat')}"
