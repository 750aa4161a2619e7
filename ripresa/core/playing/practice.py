"""Practice on the stand: a part of a drill goes round, before and after it was moved, in turn with the teacher.

None of these changes the drill: each makes another reading or performance of it.
"""

from dataclasses import replace
from itertools import pairwise

from ripresa.core.drill import Drill, Reduce, Step, reduce_of
from ripresa.core.drill.click import OfTheSlots
from ripresa.core.drill.material import Count, Line
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label, plural
from ripresa.core.playing.score import Window
from ripresa.core.reading import Reading
from ripresa.core.rhythm import SLOWEST_BPM, setting

#: Slow tempi of a pair, as shares of the other one.
SLOWS: tuple[tuple[Fraction, str], ...] = (
    (Fraction(1, 2), "half the tempo"),
    (Fraction(3, 5), "three fifths of the tempo"),
    (Fraction(2, 3), "two thirds of the tempo"),
    (Fraction(3, 4), "three quarters of the tempo"),
)


def at_step(drill: Drill, step: Step) -> Drill:
    """Return a drill as it is played at a step of its way in."""
    reduce = reduce_of(step, drill.hands, drill.faster_hand)
    counting = next((one.counting for one in drill.stage_counts if one.step == step), None)
    if counting is not None:
        drill = replace(drill, counting=counting)
    if step == "over_click":
        return replace(drill, reduce=reduce, click=OfTheSlots(which="other_hand"))
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
        return replace(drill, material=replace(material, shift=Fraction(0), stage_shifts=()))
    return drill


def seams(reading: Reading) -> tuple[Window, ...]:
    """Return the seams between the legs, each with the beat on either side, in order."""
    meter = reading.meter
    found = []
    for before, after in pairwise(reading.legs):
        start, _ = next(meter.beats_before(after.start))
        end = after.start + meter.beat_at(after.start)
        found.append(Window(start, end - start, f"the seam {before.index + 1} to {after.index + 1}"))
    return tuple(found)


def bars_window(reading: Reading, first: int, last: int) -> Window:
    """Return bars ``first`` to ``last``, from 1, as a part that goes round.

    Raises:
        OutOfRange: The drill has no such bars.
    """
    bars = reading.bar_count
    if not 1 <= first <= last <= bars:
        raise OutOfRange(f"Choose bars from 1 to {bars}, not {first} to {last}.", field="loop")
    name = f"bar {first}" if first == last else f"bars {first} to {last}"
    start = reading.meter.bar_start(first)
    return Window(start, reading.meter.bar_start(last + 1) - start, name)


def beat_window(reading: Reading, beat: int) -> Window:
    """Return a beat, from 0, with the one on either side as far as there are any, as a part that goes round.

    Raises:
        OutOfRange: The drill has no such beat.
    """
    beats = int(reading.loop_beats)
    if not 0 <= beat < beats:
        raise OutOfRange(f"This drill has {plural(beats, 'beat')}. Choose one of them, from 0.", field="loop")
    start = max(0, beat - 1)
    bar, number, _ = reading.meter.place(Fraction(beat))
    return Window(Fraction(start), Fraction(min(beats, beat + 2) - start), f"around bar {bar}, beat {number}")


def is_drill_itself(step: Step | None) -> bool:
    """Return whether a step of a way in is the drill as it is written, so that it is a take and not practice."""
    return step in {None, "whole"}
