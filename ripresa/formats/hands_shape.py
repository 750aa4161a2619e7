"""What ``ripresa sums`` prints of two hands, strings, the tongue and the breath, key by key."""

from dataclasses import dataclass

Number = int | float


@dataclass(frozen=True, slots=True)
class AgainstFigures:
    """Two hands on a leg, over one cycle: strokes and those together in beats from its start, their count words.

    ``gap_cycle`` is the smallest gap as a share of the cycle; ``bars`` is None where they do not meet on a bar line.
    """

    leg: int
    right: str
    left: str
    cycle_beats: Number
    strokes: list[str]
    together: list[str]
    words: list[str]
    gap_ms: Number
    gap_cycle: str
    right_nps: Number
    left_nps: Number
    both_nps: Number
    bars: Number | None
    phrase: list[str]


@dataclass(frozen=True, slots=True)
class ThumbFigures:
    """Notes of each hand, from 1, at which its thumb passes, and those of the right at which both do."""

    right: list[int]
    left: list[int]
    together: list[int]
    mirrored: int
    met: int


@dataclass(frozen=True, slots=True)
class BreathOf:
    """One breath: the place of its first note, how many notes it holds, for how long; why one breathes there."""

    bar: int
    beat: int
    count: str
    at: str
    notes: int
    seconds: Number
    fits: bool
    why: str


@dataclass(frozen=True, slots=True)
class ShapeFigures:
    """A grip: frets from the thickest string as they are typed, its fingers, the frets that it spans."""

    chord: str
    frets: str
    fingers: list[int]
    stretch: int


@dataclass(frozen=True, slots=True)
class StringFigures:
    """What happens across strings in a turn: changes of the pick by kind; fingers twice in a row; strings passed."""

    outside: int | None
    inside: int | None
    swept: int | None
    skipped: int | None
    twice: list[str]
    crossed: int | None
    shapes: list[ShapeFigures]


@dataclass(frozen=True, slots=True)
class BreakFigures:
    """A break between two written notes, and how often a turn goes over it."""

    below: str
    above: str
    crossings: int


@dataclass(frozen=True, slots=True)
class CircuitLeg:
    """A leg of an articulation circuit: its pattern, and its time."""

    leg: int
    pattern: str
    cycle: list[str]
    seconds: Number
