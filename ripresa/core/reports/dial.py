"""The dial: how an ordinary metronome is set to give a click plan."""

from dataclasses import dataclass

from ripresa.core.drill.click import ClickCycle
from ripresa.core.exact import Fraction, label, short
from ripresa.core.rhythm import Meter, slot_name

#: Mechanical metronomes and most others begin here.
LOWEST_SETTING = Fraction(40)
#: What divides a beat further is not counted by anyone.
_MOST_SLOTS = 16


@dataclass(frozen=True, slots=True)
class Dial:
    """What to set, and what the first click means.

    Args:
        clicks_a_minute: The setting; None where clicks are uneven or absent.
        gap_seconds: Seconds from click to click; None likewise.
        first_click: Where the first click falls; None without clicks.
        sentence: All of it in words.
    """

    clicks_a_minute: Fraction | None
    gap_seconds: Fraction | None
    first_click: str | None
    sentence: str

    @property
    def is_below_lowest(self) -> bool:
        """Whether the setting lies under what most metronomes offer (40)."""
        return self.clicks_a_minute is not None and self.clicks_a_minute < LOWEST_SETTING


def dial(cycle: ClickCycle, meter: Meter, bpm: Fraction) -> Dial:
    """Return the setting of an ordinary metronome for a click cycle at a tempo.

    A cycle of c even clicks over b beats gives bpm · c / b clicks a minute.

    >>> from ripresa.core.drill.click import CLICK_PLANS
    >>> from ripresa.core.rhythm import METERS
    >>> meter = METERS["4/4"]
    >>> dial(CLICK_PLANS["two_and_four"].cycle(meter), meter, Fraction(96)).sentence
    'Set it to 48. Its first click is beat 2.'
    """
    if not cycle.clicks:
        return Dial(None, None, None, "No click: leave the metronome off.")
    first = named(cycle.clicks[0][0], meter)
    gaps = set(cycle.gaps)
    if len(gaps) > 1:
        return Dial(None, None, first, f"No single setting: the clicks are uneven. The first is {first}.")
    gap = gaps.pop()
    rate = bpm / gap
    if rate < LOWEST_SETTING:
        sentence = f"{short(rate)} clicks a minute, below most metronomes’ lowest. The first is {first}."
    else:
        sentence = f"Set it to {label(rate)}. Its first click is {first}."
    return Dial(rate, 60 / rate, first, sentence)


def drift_heard(gap_seconds: Fraction, error: Fraction) -> Fraction:
    """Return how far off the next click is heard, in seconds: gap × error.

    >>> drift_heard(Fraction(80, 9), Fraction(1, 100))
    Fraction(4, 45)
    """
    return gap_seconds * error


def named(position: Fraction, meter: Meter) -> str:
    """Return a position of a click in words: ``beat 2``, ``the & of beat 1``, ``bar 2, the a of beat 4``."""
    bar, beat, inside = meter.place(position)
    length = meter.beats_of(bar)[beat - 1]
    share = inside / length
    if not inside:
        place = f"beat {beat}"
    elif share.denominator <= _MOST_SLOTS:
        name = slot_name(Fraction(share.denominator), share.numerator, length)
        place = f"beat {beat}, {name}" if " " in name else f"the {name} of beat {beat}"
    else:
        place = f"{label(inside)} of a beat after beat {beat}"
    return place if bar == 1 else f"bar {bar}, {place}"
