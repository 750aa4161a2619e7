"""A click written as a count: the way back from a cycle to words."""

from collections import defaultdict
from math import lcm

from ripresa.core.drill.click.cycle import ClickCycle, ClickLevel
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.rhythm import Meter, slot_word

#: Bars of a cycle that can be written down, and places of a beat.
MOST_BARS, MOST_PLACES = 8, 16


def click_text(cycle: ClickCycle, meter: Meter, turn: Fraction | None = None) -> str:
    """Return a cycle as a typed click; empty where nothing clicks in its one bar.

    Args:
        turn: Beats of a pass of the drill: a click that comes round with it begins anew with the meters.

    Raises:
        OutOfRange: It goes over more than 8 bars or over part of the meters that take turns, or divides a beat into
            more than 16.
    """
    bars = int(meter.bars_passed(cycle.length))
    if bars > MOST_BARS:
        raise OutOfRange(
            f"This click comes round after {plural(bars, 'bar')}, and places are pressed in up to {MOST_BARS}. "
            "Choose a shorter one first, such as every beat.",
            field="click",
        )
    if not meter.is_plain and bars % len(meter.bars) and cycle.length != turn:
        # Typed, it would go on with the next meter where this one begins again with the first.
        raise OutOfRange(
            f"This click comes round after {plural(bars, 'bar')}, the meters after {len(meter.bars)}. "
            "Choose one that comes round with them first, such as every beat.",
            field="click",
        )
    if not cycle.clicks and bars == 1:
        return ""
    inside: dict[tuple[int, int], dict[Fraction, ClickLevel]] = defaultdict(dict)
    for position, level in cycle.clicks:
        bar, beat, rest = meter.place(position)
        inside[bar, beat][rest / meter.beats_of(bar)[beat - 1]] = level
    written = []
    for bar in range(1, bars + 1):
        words = [
            _beat(beat, inside[bar, beat]) for beat in range(1, len(meter.beats_of(bar)) + 1) if (bar, beat) in inside
        ]
        written.append(" ".join(words) or "(1)")
    return " | ".join(written)


def _beat(beat: int, clicks: dict[Fraction, ClickLevel]) -> str:
    division = lcm(*(at.denominator for at in clicks))
    if division > MOST_PLACES:
        raise OutOfRange(
            f"A click in beat {beat} lies on no place that can be written, 1 to {MOST_PLACES} a beat. "
            "Choose another one first, such as every beat.",
            field="click",
        )
    words = [
        _sign(level) + slot_word(Fraction(division), beat, int(at * division)) for at, level in sorted(clicks.items())
    ]
    return " ".join(words if Fraction(0) in clicks else [f"({slot_word(Fraction(division), beat, 0)})", *words])


def _sign(level: ClickLevel) -> str:
    return ">" if level == "strong" else ""
