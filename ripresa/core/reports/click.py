"""The click in figures: tempo played against clicks a minute, drift heard, and where it falls off the beat."""

from collections.abc import Iterator
from fractions import Fraction

from ripresa.core.drill.click import ClickCycle
from ripresa.core.exact import decimal, label, plural
from ripresa.core.reports.dial import dial, drift_heard, named
from ripresa.core.rhythm import Meter

#: Places off the beat that are named; the rest is counted.
_MOST_NAMED = 4
_ONE_PER_CENT = Fraction(1, 100)


def off_the_beat(cycle: ClickCycle, meter: Meter) -> tuple[Fraction, ...]:
    """Return the positions of a cycle, in beats, at which a click is on no beat.

    >>> from ripresa.core.drill.click import CLICK_PLANS
    >>> from ripresa.core.rhythm import METERS
    >>> seven = METERS["7/8 (2+2+3)"]
    >>> [str(at) for at in off_the_beat(CLICK_PLANS["through"].cycle(seven), seven)]
    ['3', '4', '5', '6']
    """
    starts = set(meter.beat_starts())
    return tuple(at for at, _ in cycle.clicks if at % meter.bar_length not in starts)


def click_report(cycle: ClickCycle, meter: Meter, bpm: Fraction) -> Iterator[str]:
    """Yield what there is to say of a click at a tempo, a sentence each."""
    set_to = dial(cycle, meter, bpm)
    count = len(cycle.clicks)
    if count:
        rate = bpm * count / cycle.length
        played = f"{label(bpm)} bpm are played, {decimal(rate, 2).rstrip('0').rstrip('.')} clicks a minute are heard"
        if set_to.gap_seconds is None:
            gaps = f"{plural(count, 'click')} in {plural(cycle.length, 'beat')}, not evenly"
            longest = max(cycle.gaps) * 60 / bpm
        else:
            gaps = f"{decimal(set_to.gap_seconds, 2)} s from one to the next"
            longest = set_to.gap_seconds
        yield f"{played}: {gaps}."
        heard = drift_heard(longest, _ONE_PER_CENT) * 1000
        over = "at the next click" if set_to.gap_seconds else "at the end of the longest silence"
        yield f"Playing 1 % too fast or too slow is {decimal(heard, 0)} ms {over}."
    yield set_to.sentence
    off = off_the_beat(cycle, meter)
    if off and len(off) < count:
        first = ", ".join(named(at, meter) for at in off[:_MOST_NAMED]) + (" …" if len(off) > _MOST_NAMED else "")
        bars = plural(cycle.length / meter.bar_length, "bar")
        yield f"{len(off)} of its {plural(count, 'click')} in {bars} fall off the beat: {first}."
    elif off:
        yield "It is never on the beat: the beats are the student’s own."
