"""Rung rules: how the steps of a climb are spaced. Each is stated in a sentence before the try."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from decimal import Decimal, localcontext
from itertools import pairwise
from typing import Annotated, Literal

from ripresa.core.climbs.bare import Bare, at_tempi, check_many, raised
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import ByKind, Exact, Fraction, capital, division_label, label, plural
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.rhythm import Settings, setting

_BPM_STEP = Between(
    Fraction(1, 2),
    100,
    "A step of {value} bpm cannot be used. Use {least} to {most} bpm.",
    "4 bpm are few at 120 and many at 60.",
)


@dataclass(frozen=True, slots=True)
class PerCent:
    """Each rung is so many per cent above the one before: the same effort at every height.

    Args:
        step: Per cent, above 0 up to 100.
    """

    kind: Literal["percent"] = field(default="percent", kw_only=True)
    step: Annotated[
        Exact,
        Between(
            Fraction(1, 100),
            100,
            "A step of {value} % leads nowhere. Use more than 0, up to {most} %.",
            "4 per cent is what a patient teacher takes; 2 near the top.",
        ),
    ] = Fraction(4)

    def __post_init__(self) -> None:
        check_bounds(self, "rule")

    @property
    def words(self) -> str:
        """The rule as it is told."""
        return f"{label(self.step)} % a step"

    def tempi(self, start: Fraction) -> Iterator[Fraction]:
        """Yield exact tempi from the start on, without end."""
        factor = 1 + self.step / 100
        while True:
            yield start
            start *= factor

    def steps(self, start: Fraction, goal: Fraction, settings: Settings) -> tuple[Bare, ...]:
        """Return the steps to a goal."""
        return at_tempi(raised(self.tempi(start), start, goal, settings).tempi)


@dataclass(frozen=True, slots=True)
class EvenSteps:
    """Each rung is so many bpm above the one before: easy to count by hand.

    Args:
        step: bpm, ½ to 100.
    """

    kind: Literal["even"] = field(default="even", kw_only=True)
    step: Annotated[Exact, _BPM_STEP] = Fraction(4)

    def __post_init__(self) -> None:
        check_bounds(self, "rule")

    @property
    def words(self) -> str:
        """The rule as it is told."""
        return f"{label(self.step)} bpm a step"

    def tempi(self, start: Fraction) -> Iterator[Fraction]:
        """Yield exact tempi from the start on, without end."""
        while True:
            yield start
            start += self.step

    def steps(self, start: Fraction, goal: Fraction, settings: Settings) -> tuple[Bare, ...]:
        """Return the steps to a goal."""
        return at_tempi(raised(self.tempi(start), start, goal, settings).tempi)


@dataclass(frozen=True, slots=True)
class Checkpoints:
    """A few wide steps of the same ratio, start and target among them.

    Args:
        count: Checkpoints, 2 to 12.
    """

    kind: Literal["checkpoints"] = field(default="checkpoints", kw_only=True)
    count: Annotated[
        int, Between(2, 12, "{value} checkpoints cannot be used. Use {least} to {most}.", "The start is the first one.")
    ] = 5

    def __post_init__(self) -> None:
        check_bounds(self, "rule")

    @property
    def words(self) -> str:
        """The rule as it is told."""
        return f"{self.count} checkpoints, each as many times faster as the one before"

    def tempi(self, start: Fraction, goal: Fraction) -> Iterator[Fraction]:
        """Yield start · (goal / start)^(k / (n − 1)) for each k, to forty digits, and then the goal again."""
        with localcontext() as context:
            context.prec = 40
            low, ratio = _decimal(start), _decimal(goal / start)
            found = [Fraction(low * ratio ** (Decimal(k) / (self.count - 1))) for k in range(1, self.count - 1)]
        yield start
        yield from found
        while True:
            yield goal

    def steps(self, start: Fraction, goal: Fraction, settings: Settings) -> tuple[Bare, ...]:
        """Return the steps to a goal."""
        return at_tempi(raised(self.tempi(start, goal), start, goal, settings).tempi)


@dataclass(frozen=True, slots=True)
class ZigZag:
    """A large step up and a smaller one back, in turn: each tempo but the ends is met twice.

    Args:
        step: bpm up. back: bpm down after it, less than up.
    """

    kind: Literal["zigzag"] = field(default="zigzag", kw_only=True)
    step: Annotated[Exact, _BPM_STEP] = Fraction(8)
    back: Annotated[Exact, _BPM_STEP] = Fraction(4)

    def __post_init__(self) -> None:
        check_bounds(self, "rule")

    @property
    def words(self) -> str:
        """The rule as it is told."""
        return f"{label(self.step)} bpm up and {label(self.back)} back in turn"

    def steps(self, start: Fraction, goal: Fraction, settings: Settings) -> tuple[Bare, ...]:
        """Return the steps until the goal is first touched; where a setting does not move there is no step.

        Raises:
            OutOfRange: It goes back by as much as up, or there would be more than 200.
        """
        if self.back >= self.step:
            raise OutOfRange(
                f"{label(self.step)} up and {label(self.back)} back never arrive. Go back by less than up.",
                field="rule.back",
            )
        found, exact, is_up = [start], start, True
        while exact < goal:
            exact = min(goal, exact + self.step) if is_up else exact - self.back
            is_up = not is_up
            tempo = goal if exact == goal else setting(exact, settings)
            if tempo != found[-1]:
                found.append(tempo)
            check_many(len(found))
        return at_tempi(found)


@dataclass(frozen=True, slots=True)
class DivideThenRaise:
    """At the first tempo through the divisions, then the beat is raised with the last of them: n/s never falls.

    Args:
        divisions: Notes per beat, rising, 2 to 8 of them. step: bpm by which the beat is raised then.

    Raises:
        OutOfRange: Divisions that do not rise.
    """

    kind: Literal["divide"] = field(default="divide", kw_only=True)
    divisions: tuple[Exact, ...] = (Fraction(2), Fraction(3), Fraction(4))
    step: Annotated[Exact, _BPM_STEP] = Fraction(4)

    def __post_init__(self) -> None:
        check_bounds(self, "rule")
        if not 2 <= len(self.divisions) <= 8 or self.divisions[0] <= 0 or self.divisions[-1] > 16:
            raise OutOfRange("Divide through 2 to 8 divisions, up to 16 notes a beat: 2 3 4.", field="rule.divisions")
        if any(after <= before for before, after in pairwise(self.divisions)):
            raise OutOfRange("The divisions have to rise, so that no step is slower: 2 3 4.", field="rule.divisions")

    @property
    def words(self) -> str:
        """The rule as it is told."""
        through = ", ".join(division_label(one) for one in self.divisions)
        return f"{through} a beat first, then {label(self.step)} bpm a step in {division_label(self.divisions[-1])}"

    def steps(self, start: Fraction, goal: Fraction, settings: Settings) -> tuple[Bare, ...]:
        """Return the steps to a goal that is a tempo of the last division."""
        last = self.divisions[-1]
        first = tuple(Bare(start, division) for division in self.divisions)
        if goal == start:
            return first
        tempi = raised(EvenSteps(self.step).tempi(start), start, goal, settings).tempi
        return (*first, *at_tempi(tempi[1:], last))


@dataclass(frozen=True, slots=True)
class Bursts:
    """At the target tempo from the first: a few beats, a rest as long, then more beats; last of all, all of it.

    Args:
        beats: How many beats sound before they rest, rising, 1 to 8 numbers.

    Raises:
        OutOfRange: Numbers that do not rise.
    """

    kind: Literal["bursts"] = field(default="bursts", kw_only=True)
    beats: tuple[int, ...] = (1, 2, 4, 8)

    def __post_init__(self) -> None:
        if not 1 <= len(self.beats) <= 8 or not all(1 <= one <= 64 for one in self.beats):
            raise OutOfRange("Bursts have 1 to 8 lengths of 1 to 64 beats: 1 2 4 8.", field="rule.beats")
        if any(after <= before for before, after in pairwise(self.beats)):
            raise OutOfRange("Each burst has to be longer than the one before: 1 2 4 8.", field="rule.beats")

    @property
    def words(self) -> str:
        """The rule as it is told."""
        return f"bursts of {', '.join(map(str, self.beats))} beats at the target, then all of it"

    def steps(self, _start: Fraction, goal: Fraction, _settings: Settings) -> tuple[Bare, ...]:
        """Return the steps, all of them at the goal."""
        return (*(Bare(goal, burst=one) for one in self.beats), Bare(goal))


RungRule = Annotated[PerCent | EvenSteps | Checkpoints | ZigZag | DivideThenRaise | Bursts, ByKind()]
#: All kinds of rule, in the order in which they are offered.
RULES: tuple[Kind[RungRule], ...] = (
    Kind(PerCent(), "per cent", "The same effort at every height: steps grow with the tempo."),
    Kind(EvenSteps(), "bpm", "Even steps: easy to count by hand, harder at the bottom than at the top."),
    Kind(Checkpoints(), "checkpoints", "Few and wide, each as many times faster: for one who learns in leaps."),
    Kind(ZigZag(), "zig-zag", "Up by more, back by less: each tempo is met again with ease behind it."),
    Kind(DivideThenRaise(), "divide, then raise", "First more notes a beat, then a faster beat: speed never falls."),
    Kind(Bursts(), "bursts", "At the target from the first, a beat at a time: for what is played otherwise when slow."),
)
#: Those in which the speed in notes a second never falls from a rung to the next.
NEVER_FALLS = ("percent", "even", "checkpoints", "divide", "bursts")


def rule_sentence(rule: RungRule) -> str:
    """Return the rule as a sentence, with what it promises of the speed."""
    promise = ", and the speed never falls" if rule.kind in NEVER_FALLS else ""
    return f"{capital(rule.words)}{promise}."


def beats_told(beats: int) -> str:
    """Return what a burst is called."""
    return f"{plural(beats, 'beat')}, then rest"


def _decimal(value: Fraction) -> Decimal:
    return Decimal(value.numerator) / Decimal(value.denominator)
