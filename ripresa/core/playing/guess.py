"""Where was beat 1? A guess held against the bar lines of what was played."""

from dataclasses import dataclass

from ripresa.core.exact import Fraction, decimal
from ripresa.core.reading import Reading
from ripresa.core.rhythm import place_name, span_seconds

#: Nearer to beat 1 than a quarter of a beat is on it: our choice, what a hand that knows the place does not miss.
ON_IT = Fraction(1, 4)
#: Slots of a beat in which a guess beside it is named.
_NAMED = 4
_WORDS = ("", "e", "&", "a")


@dataclass(frozen=True, slots=True)
class Guess:
    """A guess.

    Args:
        off: Beats from the nearest beat 1, later above 0. is_right: Whether it was there. told: In a sentence.
    """

    off: Fraction
    is_right: bool
    told: str


def guess_of(reading: Reading, bpm: Fraction, seconds: Fraction, start: Fraction = Fraction(0)) -> Guess:
    """Return what a press says of where beat 1 is taken to be.

    Args:
        seconds: When it was pressed, from the beginning of the turn. start: Where what goes round begins, in beats.
    """
    meter = reading.meter
    at = (start + seconds * bpm / 60) % reading.loop_beats
    bar, _, _ = meter.place(at)
    before, after = meter.bar_start(bar), meter.bar_start(bar + 1)
    off = at - before if at - before <= after - at else at - after
    apart = decimal(abs(span_seconds(abs(off), bpm)) * 1000, 0)
    if abs(off) <= ON_IT:
        late = f"{apart} ms {'after' if off > 0 else 'before'} it"
        return Guess(off, True, f"On beat 1: {late if off else 'to the moment'}.")
    # Named by the nearest of four slots of its beat.
    slots = round(off * _NAMED)
    near = (before if off > 0 else after) + Fraction(slots, _NAMED)
    bar, beat, inside = meter.place(near % reading.loop_beats)
    named = place_name(bar, beat, _WORDS[int(inside * _NAMED) % _NAMED])
    side = "after" if off > 0 else "before"
    return Guess(off, False, f"That was {named}: {decimal(abs(off), 1)} beats {side} the nearest beat 1, {apart} ms.")
