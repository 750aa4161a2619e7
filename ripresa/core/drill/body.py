"""The body and the voice: what moves and what is said while the hands play."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, label

Movement = Literal["none", "tap", "step", "sway"]
VoiceRow = Literal["silent", "divisions", "sung", "talk"]

MOVEMENTS: dict[Movement, tuple[str, str]] = {
    "none": ("still", "Nothing is asked of the body."),
    "tap": ("a tap with the heel down", "The front of the foot, light; the beat stays in one place."),
    "step": ("a step from side to side", "Right and left in turn: the weight carries the beat."),
    "sway": ("a sway", "From side to side, slowly: large time, a loose back."),
}
VOICES: dict[VoiceRow, tuple[str, str]] = {
    "silent": ("without a word", "Only the hands."),
    "divisions": ("saying the divisions", "Every slot aloud, as long as the tongue can follow."),
    "sung": ("singing the phrase", "The ear goes in front of the hand."),
    "talk": ("talking of something else", "A test of ease: what breaks is not yet safe."),
}
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
class Body:
    """A movement at a rate of its own.

    Args:
        movement: None, a tap, a step or a sway.
        every: Beats from one movement to the next, ¼ to 16.

    Raises:
        OutOfRange: Another rate.
    """

    movement: Movement = "none"
    every: Exact = Fraction(1)

    def __post_init__(self) -> None:
        if not Fraction(1, 4) <= self.every <= SLOWEST:
            raise OutOfRange(f"The body moves every ¼ to {SLOWEST} beats, not {label(self.every)}.", field="body.every")

    def marks(self, beats: Fraction) -> Iterator[tuple[Fraction, str]]:
        """Yield (onset in beats, word) of each movement before ``beats``.

        >>> [(str(at), word) for at, word in Body("step").marks(Fraction(3))]
        [('0', 'R'), ('1', 'L'), ('2', 'R')]
        """
        words = _WORDS[self.movement]
        at, number = Fraction(0), 0
        while words and at < beats:
            yield at, words[number % len(words)]
            at, number = at + self.every, number + 1
