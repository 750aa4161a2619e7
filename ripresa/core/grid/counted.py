"""Positions typed as a count, in beats: a layer of its own that begins again by itself, over bars of any meter."""

from dataclasses import dataclass
from math import lcm

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, capital, plural
from ripresa.core.rhythm import Level, Meter, Swing, parse_count

#: Bars of a count that is laid again and again.
MOST_BARS_COUNTED = 128
_STRAIGHT = Swing()


@dataclass(frozen=True, slots=True)
class Counted:
    """A count laid over bars.

    Args:
        length: Beats until it begins again; a whole number of bars.
        marks: (position in beats, level) of what sounds in it, in order.
    """

    length: Fraction
    marks: tuple[tuple[Fraction, Level], ...]

    def level_at(self, position: Fraction) -> Level | None:
        """Return the level of the mark at a position; None where there is none."""
        return dict(self.marks).get(position % self.length)

    def until(self, beats: Fraction) -> tuple[tuple[Fraction, Level], ...]:
        """Return every mark of the first so many beats."""
        rounds = range(-(-beats // self.length))
        every = ((turn * self.length + at, level) for turn in rounds for at, level in self.marks)
        return tuple((at, level) for at, level in every if at < beats)


def counted(text: str, meter: Meter, what: str, field: str, swing: Swing = _STRAIGHT, again: int = 0) -> Counted:
    """Return a count laid over the bars of a meter, as often as it takes until both begin again together.

    Args:
        what: What is counted, for the sentence: ``"the click"``.
        swing: How places are moved, as those of the notes beside which it stands.
        again: Bars after which it begins again, if more than are said.

    Raises:
        Unreadable: A word cannot be read.
        OutOfRange: It has a beat that the meter does not have, or too many bars.
    """
    said = parse_count(text)
    bars = max(said[-1].bar, again)
    if bars > MOST_BARS_COUNTED:
        raise OutOfRange(
            f"{capital(what)} goes over {bars} bars, and up to {MOST_BARS_COUNTED} begin again by themselves.",
            field=field,
        )
    turns = lcm(bars, len(meter.bars))
    found: list[tuple[Fraction, Level]] = []
    for number in range(1, turns + 1):
        bar = meter.bar(number)
        for beat in (one for one in said if one.bar == (number - 1) % bars + 1):
            if beat.of_every and beat.beat > len(bar.beats):
                continue
            if beat.beat > len(bar.beats):
                raise OutOfRange(
                    f"{capital(what)} has a beat {beat.beat}, and the meter has "
                    f"{plural(len(bar.beats), 'beat')} a bar.",
                    field=field,
                )
            start = meter.bar_start(number) + bar.beat_starts()[beat.beat - 1]
            into = Fraction(0)
            for slot, filled in enumerate(beat.slots):
                if filled.kind == "note":
                    found.append((start + bar.beats[beat.beat - 1] * into, filled.accent or "plain"))
                into += swing.share(Fraction(beat.division), slot)
    return Counted(meter.bar_start(turns + 1), tuple(found))
