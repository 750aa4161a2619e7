"""The body and the voice: what moves and what is said while the hands play."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, label
from ripresa.core.grid import counted
from ripresa.core.rhythm import Meter, parse_named

Foot = Literal["none", "right", "left", "in_turn"]
Movement = Literal["none", "tap", "step", "sway"]
VoiceRow = Literal["silent", "divisions", "sung", "groups", "talk"]

MOVEMENTS: dict[Movement, tuple[str, str]] = {
    "none": ("still", "Nothing is asked of the body."),
    "tap": ("a tap with the heel down", "The front of the foot, light; the beat stays in one place."),
    "step": ("a step from side to side", "Right and left in turn: the weight carries the beat."),
    "sway": ("a sway", "From side to side, slowly: large time, a loose back."),
}
VOICES: dict[VoiceRow, tuple[str, str]] = {
    "silent": ("without a word", "Only the hands."),
    "divisions": ("saying the divisions", "Every slot aloud, as long as the tongue can follow."),
    "sung": ("singing the phrase", "On the names of its notes: the ear goes in front of the hand."),
    "groups": ("saying the numbers of the groups", "One to so many, whatever the beat does: the other stream."),
    "talk": ("talking of something else", "A test of ease: what breaks is not yet safe."),
}
FEET: dict[Foot, tuple[str, str]] = {
    "none": ("no foot", "The feet are still."),
    "right": ("the right foot", "Its heel stays down: the front of the foot taps, lightly."),
    "left": ("the left foot", "The other foot: the beat has to be there on either side."),
    "in_turn": ("the feet in turn", "Right and left: the weight goes from side to side."),
}
_FOOT_WORDS: dict[Foot, tuple[str, ...]] = {"none": (), "right": ("R",), "left": ("L",), "in_turn": ("R", "L")}
#: The other foot, in one press.
OTHER_FOOT: dict[Foot, Foot] = {"right": "left", "left": "right", "none": "none", "in_turn": "in_turn"}
LONGEST_PATTERN, LONGEST_PROMPT = 200, 120
_WORDS: dict[Movement, tuple[str, ...]] = {"none": (), "tap": ("tap",), "step": ("R", "L"), "sway": ("→", "←")}
SLOWEST = 16
#: Beats from one movement to the next with which a movement begins; a sway takes the half note.
USUAL_RATES: dict[Movement, Fraction] = {
    "none": Fraction(1),
    "tap": Fraction(1),
    "step": Fraction(1),
    "sway": Fraction(2),
}


@dataclass(frozen=True, slots=True)
class FootLayer:
    """The foot under all: which one, and when it taps.

    Args:
        which: None, the right or the left one, or both in turn.
        every: Beats from one tap to the next, ¼ to 16.
        pattern: A count of its own instead, that begins again by itself: ``"1 3"``, ``"1 2 3 | 1 2 3 4"``.

    Raises:
        Unreadable: A word of the pattern cannot be read.
        OutOfRange: Another rate, or an overlong pattern.
    """

    which: Foot = "none"
    every: Exact = Fraction(1)
    pattern: str = ""

    def __post_init__(self) -> None:
        _check(self.every, self.pattern, "foot")

    def marks(self, beats: Fraction, meter: Meter) -> Iterator[tuple[Fraction, str]]:
        """Yield (onset in beats, word) of each tap before ``beats``.

        >>> from ripresa.core.rhythm import METERS
        >>> [(str(at), word) for at, word in FootLayer("left", pattern="1 3").marks(Fraction(8), METERS["4/4"])]
        [('0', 'L'), ('2', 'L'), ('4', 'L'), ('6', 'L')]
        """
        return _marks(_FOOT_WORDS[self.which], self.every, self.pattern, beats, meter, "foot")


@dataclass(frozen=True, slots=True)
class Body:
    """A movement at a rate of its own.

    Args:
        movement: None, a tap, a step or a sway.
        every: Beats from one movement to the next, ¼ to 16.
        pattern: Steps as a count instead, that begins again by itself: ``"1 2 3 (4)"``.

    Raises:
        Unreadable: A word of the pattern cannot be read.
        OutOfRange: Another rate, or an overlong pattern.
    """

    movement: Movement = "none"
    every: Exact = Fraction(1)
    pattern: str = ""

    def __post_init__(self) -> None:
        _check(self.every, self.pattern, "body")

    def marks(self, beats: Fraction, meter: Meter) -> Iterator[tuple[Fraction, str]]:
        """Yield (onset in beats, word) of each movement before ``beats``.

        >>> from ripresa.core.rhythm import METERS
        >>> [(str(at), word) for at, word in Body("step").marks(Fraction(3), METERS["4/4"])]
        [('0', 'R'), ('1', 'L'), ('2', 'R')]
        """
        return _marks(_WORDS[self.movement], self.every, self.pattern, beats, meter, "body")


def _check(every: Fraction, pattern: str, field: str) -> None:
    if not Fraction(1, 4) <= every <= SLOWEST:
        raise OutOfRange(f"The body moves every ¼ to {SLOWEST} beats, not {label(every)}.", field=f"{field}.every")
    if len(pattern) > LONGEST_PATTERN:
        raise OutOfRange(f"A pattern has up to {LONGEST_PATTERN} signs, not {len(pattern)}.", field=f"{field}.pattern")
    if pattern.strip():
        parse_named(pattern, "the pattern", f"{field}.pattern")


def _marks(
    words: tuple[str, ...], every: Fraction, pattern: str, beats: Fraction, meter: Meter, field: str
) -> Iterator[tuple[Fraction, str]]:
    if not words:
        return
    if pattern.strip():
        onsets = [
            at for at, _ in counted(pattern, meter, f"the pattern of the {field}", f"{field}.pattern").until(beats)
        ]
    else:
        onsets = [number * every for number in range(int(-(-beats // every)))]
    for number, at in enumerate(onsets):
        yield at, words[number % len(words)]
