"""Targets: where a climb leads; a tempo, a speed, a band of speeds, or something that no speed tells."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import ByKind, Exact, Fraction, label
from ripresa.core.kind import Kind
from ripresa.core.rhythm import FASTEST_BPM, band_place, bpm_for_speed

MOST_STEPS, LONGEST_STEP = 40, 80


def _check_division(division: Fraction) -> None:
    if division <= 0:
        raise OutOfRange("Notes per beat have to be above 0.", field="target.division")


@dataclass(frozen=True, slots=True)
class BpmTarget:
    """A target tempo in bpm."""

    kind: Literal["bpm"] = field(default="bpm", kw_only=True)
    bpm: Exact = Fraction(120)

    def tempo(self) -> Fraction:
        """Return the tempo."""
        return self.bpm


def usual_target(start: Fraction) -> Fraction:
    """Return the tempo that a climb from a start is offered to lead to, in bpm: ours, until someone chooses.

    120 from below it; from there on the next even twenty that is a tenth above the start at least.

    >>> [int(usual_target(Fraction(start))) for start in (60, 112, 120, 144, 980)]
    [120, 140, 140, 160, 1000]
    """
    least = start * Fraction(11, 10)
    return min(FASTEST_BPM, max(Fraction(120), -(-least // 20) * Fraction(20)))


@dataclass(frozen=True, slots=True)
class SpeedTarget:
    """A target speed in notes a second at a division."""

    kind: Literal["speed"] = field(default="speed", kw_only=True)
    nps: Exact = Fraction(8)
    division: Exact = Fraction(4)

    def __post_init__(self) -> None:
        _check_division(self.division)
        if self.nps <= 0:
            raise OutOfRange("A speed has to be above 0 notes a second.", field="target")

    def tempo(self) -> Fraction:
        """Return the tempo that gives the speed: 60 · n/s / notes per beat."""
        return bpm_for_speed(self.nps, self.division)


@dataclass(frozen=True, slots=True)
class BandTarget:
    """A band of speeds in notes a second: below, inside or above; the climb leads to its lower edge.

    Raises:
        OutOfRange: The upper edge is not above the lower one.
    """

    kind: Literal["band"] = field(default="band", kw_only=True)
    low: Exact = Fraction(8)
    high: Exact = Fraction(9)
    division: Exact = Fraction(4)

    def __post_init__(self) -> None:
        _check_division(self.division)
        if not 0 < self.low < self.high:
            raise OutOfRange(
                f"A band goes from a speed to a faster one, not from {label(self.low)} to {label(self.high)} "
                "notes a second.",
                field="target",
            )

    def tempo(self) -> Fraction:
        """Return the tempo of the lower edge: both edges belong to the band."""
        return bpm_for_speed(self.low, self.division)

    def place(self, nps: Fraction) -> Literal["below", "inside", "above"]:
        """Return where a speed stands to the band."""
        return band_place(nps, self.low, self.high)


@dataclass(frozen=True, slots=True)
class SteadyTarget:
    """Steadiness: the tempo stays, and the click ladder alone is climbed."""

    kind: Literal["steady"] = field(default="steady", kw_only=True)

    def tempo(self) -> None:
        """Return no tempo: it stays."""


def _check_steps(steps: tuple[str, ...]) -> None:
    if not 1 <= len(steps) <= MOST_STEPS or any(not one.strip() or len(one) > LONGEST_STEP for one in steps):
        raise OutOfRange(
            f"Write 1 to {MOST_STEPS} steps of up to {LONGEST_STEP} signs, one a line.", field="target.steps"
        )
    if len(set(steps)) < len(steps):
        raise OutOfRange("A step stands twice. Keep one of them, or tell them apart.", field="target.steps")


@dataclass(frozen=True, slots=True)
class HeartTarget:
    """By heart: the tempo stays, and the page goes away step by step."""

    kind: Literal["heart"] = field(default="heart", kw_only=True)
    steps: tuple[str, ...] = (
        "from the page",
        "the page turned, a look allowed",
        "by heart",
        "by heart, talking of something else",
    )

    def __post_init__(self) -> None:
        _check_steps(self.steps)

    def tempo(self) -> None:
        """Return no tempo: it stays."""


@dataclass(frozen=True, slots=True)
class HitList:
    """A list of things to get right, one after the other, at a tempo that stays."""

    kind: Literal["hits"] = field(default="hits", kw_only=True)
    steps: tuple[str, ...] = ("the notes", "the rhythm", "the accents")

    def __post_init__(self) -> None:
        _check_steps(self.steps)

    def tempo(self) -> None:
        """Return no tempo: it stays."""


Target = Annotated[BpmTarget | SpeedTarget | BandTarget | SteadyTarget | HeartTarget | HitList, ByKind()]
#: All kinds of target, in the order in which they are offered.
TARGETS: tuple[Kind[Target], ...] = (
    Kind(BpmTarget(), "a tempo of", "Where the piece stands."),
    Kind(SpeedTarget(), "a speed of", "Notes a second, whatever the division: speeds compare between drills."),
    Kind(BandTarget(), "a band of", "A little more or less is as good: below, inside or above."),
    Kind(SteadyTarget(), "steadiness", "The tempo stays; the click is taken away step by step."),
    Kind(HeartTarget(), "playing by heart", "The tempo stays; the page is taken away."),
    Kind(HitList(), "a list of hits", "The tempo stays; one thing after the other is got right."),
)


def is_without_speed(target: Target) -> bool:
    """Return whether the tempo stays and something else is climbed."""
    return isinstance(target, SteadyTarget | HeartTarget | HitList)
