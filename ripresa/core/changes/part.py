"""A part of a drill that is practised by itself: a seam, some bars, a hand, a division, a step of the way in.

It makes another drill of it, and perhaps a window that goes round. Whatever plays it and whatever measures it works
with the reading of those.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ripresa.core.changes.tools import doubled, halved
from ripresa.core.drill import ENTERING, REDUCTIONS, STEPS, Drill, Entering, Leg, Reduce, Step
from ripresa.core.drill.material import own_rhythm
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, change_label, division_label, listed, plural
from ripresa.core.playing import Window, at_step, bars_window, beat_window, before_it_was_moved, is_drill_itself, seams
from ripresa.core.reading import Reading


@dataclass(frozen=True, slots=True)
class Bars:
    """Bars that go round, from 1, the last one in."""

    first: int
    last: int


@dataclass(frozen=True, slots=True)
class Part:
    """What is practised of a drill; all of it where nothing is said.

    Args:
        step: A step of its way in. unmoved: As it was before it was moved.
        divide: Divided twice or half as much, which keeps the speed at half or double the tempo.
        reduce: Some of its notes alone, the rest in silence.
        division: The legs of one division alone. only: All of it in one division.
        burst: So many beats of it sound, to the note that they arrive on, then they rest as long.
        articulation: Another share of its length for which each note sounds.
        layers: Only the first so many of its layers, in the order in which they enter, 1 to 4.
        bars: Bars that go round; seam: the change between two legs, from 0; beat: a beat, from 0, with its neighbours.
    """

    step: Step | None = None
    unmoved: bool = False
    divide: Literal["twice", "half"] | None = None
    reduce: Reduce | None = None
    division: Exact | None = None
    articulation: Exact | None = None
    bars: Bars | None = None
    seam: int | None = None
    only: Exact | None = None
    burst: int | None = None
    layers: int | None = None
    beat: int | None = None

    def __post_init__(self) -> None:
        if self.layers is not None and not 1 <= self.layers <= len(ENTERING):
            raise OutOfRange(f"A drill has 1 to {len(ENTERING)} layers, not {self.layers}.", field="layers")

    @property
    def is_all(self) -> bool:
        """Whether it is the drill as it is written."""
        return is_drill_itself(self.step) and replace(self, step=None) == Part()


def practised(drill: Drill, part: Part) -> Drill:
    """Return a drill as a part of it is played.

    Raises:
        OutOfRange: A part that the drill does not have.
    """
    if part.unmoved:
        drill = before_it_was_moved(drill)
    if part.divide:
        drill = doubled(drill) if part.divide == "twice" else halved(drill)
    if part.division is not None:
        drill = _division_alone(drill, part.division)
    if part.only is not None:
        drill = all_in(drill, part.only)
    if part.step:
        drill = at_step(drill, part.step)
    if part.articulation is not None:
        drill = replace(drill, articulation=part.articulation)
    if part.burst is not None:
        drill = replace(drill, reduce=Reduce(part="burst", beats=part.burst))
    return replace(drill, reduce=part.reduce) if part.reduce else drill


def present_layers(drill: Drill) -> tuple[tuple[Entering, int], ...]:
    """Return the layers that a drill has, with the bar in which each enters, in that order."""
    has: dict[Entering, bool] = {
        "foot": drill.foot.which != "none",
        "movement": drill.body.movement != "none",
        "count": drill.voice != "silent" or drill.enters.count > 1,
        "hands": True,
    }
    return tuple((name, bar) for name, bar in drill.enters.order if has[name])


def layers_of(drill: Drill, part: Part) -> tuple[Entering, ...] | None:
    """Return the layers that are there, in the order in which they enter; None where all are."""
    if part.layers is None:
        return None
    return tuple(name for name, _ in present_layers(drill)[: part.layers])


def window_of(reading: Reading, part: Part, between: Sequence[Window] | None = None) -> Window | None:
    """Return what goes round of a reading, None where all of it does.

    Args:
        between: Its seams, where they are known already.

    Raises:
        OutOfRange: A seam, bars or a beat that it does not have.
    """
    if part.bars:
        return bars_window(reading, part.bars.first, part.bars.last)
    if part.beat is not None:
        return beat_window(reading, part.beat)
    if part.seam is None:
        return None
    found = seams(reading) if between is None else between
    if not 0 <= part.seam < len(found):
        raise OutOfRange(f"This drill has {plural(len(found), 'seam')} between legs. Choose one of them.", field="loop")
    return found[part.seam]


def part_named(reading: Reading, part: Part) -> str:
    """Return what a part is called, in a few words; empty for all of a drill.

    Raises:
        OutOfRange: A seam or bars that the drill does not have.
    """
    window_of(reading, part)
    found = []
    layers = layers_of(reading.drill, part)
    if layers:
        found.append(f"{listed([ENTERING[one][0] for one in layers])} alone")
    if part.seam is not None:
        legs = reading.legs
        before, after = legs[part.seam : part.seam + 2]
        found.append(f"the change {change_label(before.leaves, after.enters)}")
    elif part.beat is not None:
        found.append(beat_window(reading, part.beat).name)
    elif part.bars:
        first, last = part.bars.first, part.bars.last
        found.append(f"bar {first}" if first == last else f"bars {first} to {last}")
    return ", ".join((*found, *told_part(part)))


def told_part(part: Part) -> list[str]:
    """Return what a part leaves of a drill, or changes in it, in a few words each; bars and seams need its reading."""
    found = []
    if part.division is not None:
        found.append(f"the {division_label(part.division)} a beat alone")
    if part.only is not None:
        found.append(f"all of it in {division_label(part.only)} a beat")
    if part.burst is not None:
        found.append(f"bursts of {plural(part.burst, 'beat')}")
    if part.step and not is_drill_itself(part.step):
        found.append(STEPS[part.step][0])
    if part.reduce and part.reduce != Reduce():
        hand = part.reduce.part == "hand"
        found.append(f"{part.reduce.hand} alone" if hand else REDUCTIONS[part.reduce.part][0])
    if part.divide:
        found.append("twice the division" if part.divide == "twice" else "half the division")
    if part.unmoved:
        found.append("before it was moved")
    if part.articulation is not None:
        found.append("shorter notes")
    return found


def with_division(drill: Drill, instead: int, division: int) -> Drill | None:
    """Return a drill with one division in place of another, under a title of its own; None where it has no such leg."""
    if own_rhythm(drill.material) or not any(instead in leg.divisions for leg in drill.legs):
        return None
    other = {Fraction(instead): Fraction(division)}
    legs = tuple(Leg(other.get(leg.division, leg.division), _in_place(leg.following, other)) for leg in drill.legs)
    return replace(drill, legs=legs, title=f"{drill.title[:180]}, {division} a beat")


def _in_place(divisions: Sequence[Fraction], other: Mapping[Fraction, Fraction]) -> tuple[Fraction, ...]:
    return tuple(other.get(one, one) for one in divisions)


def all_in(drill: Drill, division: Fraction) -> Drill:
    """Return a drill with all of its material in one division.

    Raises:
        OutOfRange: Its rhythm is its own.
    """
    if own_rhythm(drill.material):
        raise OutOfRange("The rhythm of this drill is its own, so that it has no other division.", field="only")
    return replace(drill, legs=(Leg(division),))


def _division_alone(drill: Drill, division: Fraction) -> Drill:
    if own_rhythm(drill.material):
        return drill
    legs = tuple(leg for leg in drill.legs if division in leg.divisions)
    if not legs:
        raise OutOfRange(f"No leg of this drill has {division_label(division)} a beat.", field="division")
    return replace(drill, legs=(Leg(division),))
