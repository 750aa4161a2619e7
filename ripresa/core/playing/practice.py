"""Practice on the stand: a part of a drill goes round, before and after it was moved, in turn with the teacher.

None of these changes the drill: each makes another reading or performance of it.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise
from typing import TypeVar

from ripresa.core.drill import Drill, Reduce, Step, reduce_of
from ripresa.core.drill.material import Count, Line
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import label
from ripresa.core.playing.lead import Said
from ripresa.core.playing.performance import BackTone, BarSpan, Performance, Tone
from ripresa.core.reading import Reading
from ripresa.core.rhythm import SLOWEST_BPM, setting, span_seconds

MOST_TURNS = 8
#: Slow tempi of a pair, as shares of the other one.
SLOWS: tuple[tuple[Fraction, str], ...] = (
    (Fraction(1, 2), "half the tempo"),
    (Fraction(3, 5), "three fifths of the tempo"),
    (Fraction(2, 3), "two thirds of the tempo"),
    (Fraction(3, 4), "three quarters of the tempo"),
)
_HAIR = 1e-9
#: What has a length of its own and goes round with the drill; and that, or a bar.
S = TypeVar("S", Tone, Said, BackTone)
R = TypeVar("R", Tone, Said, BackTone, BarSpan)


@dataclass(frozen=True, slots=True)
class Window:
    """A part of a drill that goes round: from a beat, for so many beats, and what it is called."""

    start: Fraction
    beats: Fraction
    name: str


def at_step(drill: Drill, step: Step) -> Drill:
    """Return a drill as it is played at a step of its way in."""
    reduce = reduce_of(step, drill.hands)
    # Steps that play everything leave a part that the teacher took out as it is.
    return drill if reduce == Reduce() else replace(drill, reduce=reduce)


def slowed(bpm: Fraction, share: Fraction) -> Fraction:
    """Return the slow tempo of a pair, in whole bpm.

    Raises:
        OutOfRange: A share that is not from ¼ to below 1.

    >>> slowed(Fraction(96), Fraction(3, 5))
    Fraction(58, 1)
    """
    if not Fraction(1, 4) <= share < 1:
        raise OutOfRange(f"Slow is from ¼ to below all of the tempo, not {label(share)}.", field="slow")
    return max(SLOWEST_BPM, setting(bpm * share, "whole"))


def before_it_was_moved(drill: Drill) -> Drill:
    """Return a drill with its rhythm or line where it was before it was moved; the same where nothing is moved."""
    material = drill.material
    if isinstance(material, Count):
        return replace(drill, material=replace(material, shift=0))
    if isinstance(material, Line):
        return replace(drill, material=replace(material, shift=Fraction(0)))
    return drill


def seams(reading: Reading) -> tuple[Window, ...]:
    """Return the seams between the legs, each with the beat on either side, in order."""
    found = []
    for before, after in pairwise(reading.legs):
        start = max(Fraction(0), after.start - _beat_before(reading, after.start))
        end = after.start + reading.meter.beats[reading.meter.place(after.start)[1] - 1]
        found.append(Window(start, end - start, f"the seam {before.index + 1} to {after.index + 1}"))
    return tuple(found)


def bars_window(reading: Reading, first: int, last: int) -> Window:
    """Return bars ``first`` to ``last``, from 1, as a part that goes round.

    Raises:
        OutOfRange: The drill has no such bars.
    """
    length = reading.meter.bar_length
    bars = int(reading.loop_beats / length)
    if not 1 <= first <= last <= bars:
        raise OutOfRange(f"Choose bars from 1 to {bars}, not {first} to {last}.", field="loop")
    name = f"bar {first}" if first == last else f"bars {first} to {last}"
    return Window((first - 1) * length, (last - first + 1) * length, name)


def within(reading: Reading, performance: Performance, window: Window) -> Performance:
    """Return the part of a performance in a window as a loop of its own; the click keeps its phase."""
    bpm = performance.bpm
    start, length = float(span_seconds(window.start, bpm)), float(span_seconds(window.beats, bpm))
    end = start + length
    # The click of a part is cut out of the whole where it stands, and goes round with it.
    rounds = int(end // performance.click_seconds) + 1
    ticks = [
        replace(tick, at=number * performance.click_seconds + tick.at)
        for number in range(rounds)
        for tick in performance.ticks
    ]

    def inside(at: float) -> bool:
        # A hair of slack: both sides come from exact beats by another rounding.
        return start - _HAIR <= at < end - _HAIR

    def cut(items: Iterable[S]) -> tuple[S, ...]:
        return tuple(
            replace(one, at=max(0.0, one.at - start), seconds=min(one.seconds, end - one.at))
            for one in items
            if inside(one.at)
        )

    return replace(
        performance,
        loop_seconds=length,
        bars=tuple(_bars(reading, window, bpm)),
        tones=cut(performance.tones),
        ticks=tuple(replace(tick, at=max(0.0, tick.at - start)) for tick in ticks if inside(tick.at)),
        click_seconds=length,
        lead=performance.lead.to_the_bar_line() if window.start else performance.lead,
        said=cut(performance.said),
        backing=cut(performance.backing),
    )


def _bars(reading: Reading, window: Window, bpm: Fraction) -> Iterator[BarSpan]:
    length = reading.meter.bar_length
    at, end = window.start, window.start + window.beats
    while at < end:
        bar = int(at // length)
        line = min((bar + 1) * length, end)
        since = bar * length
        yield BarSpan(float(span_seconds(at - window.start, bpm)), bar + 1, float(at - since), float(line - since))
        at = line


def in_turn(performance: Performance, turns: int) -> Performance:
    """Return so many turns with the notes and as many without, as one loop: the teacher’s, then the student’s.

    Raises:
        OutOfRange: Fewer than 1 or more than 8 turns.
    """
    if not 1 <= turns <= MOST_TURNS:
        raise OutOfRange(f"Take turns of 1 to {MOST_TURNS} passes, not {turns}.", field="turns")
    loop = performance.loop_seconds

    def repeated(items: Iterable[R], times: int) -> tuple[R, ...]:
        return tuple(replace(one, at=turn * loop + one.at) for turn in range(times) for one in items)

    return replace(
        performance,
        loop_seconds=2 * turns * loop,
        bars=repeated(performance.bars, 2 * turns),
        tones=repeated(performance.tones, turns),
        # Whoever plays, what accompanies and what is said goes on.
        backing=repeated(performance.backing, 2 * turns),
        said=repeated(performance.said, 2 * turns),
        yours_from=turns * loop,
    )


def _beat_before(reading: Reading, at: Fraction) -> Fraction:
    """Return the length of the beat that ends at a position on a beat."""
    _, beat, _ = reading.meter.place(at)
    return reading.meter.beats[beat - 2]
