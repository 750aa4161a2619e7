"""The click in figures: tempo played against clicks a minute, drift heard, and where it falls off the beat."""

from collections.abc import Iterator
from dataclasses import dataclass

from ripresa.core.drill.click import ClickCycle
from ripresa.core.exact import Fraction, decimal, label, plural, short
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
    return tuple(at for at, _ in cycle.clicks if meter.to_beat(at))


@dataclass(frozen=True, slots=True)
class ClickFigures:
    """A click in figures.

    Args:
        per_minute: Clicks a minute that are heard; 0 for none.
        gap_seconds: From one click to the next, where they are uneven the longest; None without clicks.
        is_even: Whether all gaps are alike.
        drift_seconds: How far off the click after that gap is heard when one plays 1 % too fast or too slow.
        off_beat: Positions of its cycle, in beats, at which it is on no beat.
    """

    per_minute: Fraction
    gap_seconds: Fraction | None
    is_even: bool
    drift_seconds: Fraction | None
    off_beat: tuple[Fraction, ...]


def click_figures(cycle: ClickCycle, meter: Meter, bpm: Fraction) -> ClickFigures:
    """Return a click in figures at a tempo."""
    gaps = cycle.gaps
    if not gaps:
        return ClickFigures(Fraction(0), None, False, None, ())
    longest = max(gaps) * 60 / bpm
    return ClickFigures(
        per_minute=bpm * len(cycle.clicks) / cycle.length,
        gap_seconds=longest,
        is_even=len(set(gaps)) == 1,
        drift_seconds=drift_heard(longest, _ONE_PER_CENT),
        off_beat=off_the_beat(cycle, meter),
    )


def click_report(cycle: ClickCycle, meter: Meter, bpm: Fraction) -> Iterator[str]:
    """Yield what there is to say of a click at a tempo, a sentence each."""
    found = click_figures(cycle, meter, bpm)
    count = len(cycle.clicks)
    if found.gap_seconds is not None and found.drift_seconds is not None:
        played = f"{label(bpm)} bpm are played, {short(found.per_minute)} clicks a minute are heard"
        gaps = (
            f"{decimal(found.gap_seconds, 2)} s from one to the next"
            if found.is_even
            else f"{plural(count, 'click')} in {plural(cycle.length, 'beat')}, not evenly"
        )
        yield f"{played}: {gaps}."
        over = "at the next click" if found.is_even else "at the end of the longest silence"
        yield f"Playing 1 % too fast or too slow is {decimal(found.drift_seconds * 1000, 0)} ms {over}."
    yield dial(cycle, meter, bpm).sentence
    off = found.off_beat
    if off and len(off) < count:
        first = ", ".join(named(at, meter) for at in off[:_MOST_NAMED]) + (" …" if len(off) > _MOST_NAMED else "")
        bars = plural(meter.bars_passed(cycle.length), "bar")
        yield f"{len(off)} of its {plural(count, 'click')} in {bars} fall off the beat: {first}."
    elif off:
        yield "It is never on the beat: the beats are the student’s own."
