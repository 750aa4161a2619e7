"""The second hand: what it plays, in which divisions, how loud and how long."""

from dataclasses import dataclass
from typing import Annotated, Literal

from ripresa.core.drill.accents import Accents, EachBeat
from ripresa.core.drill.leg import Leg
from ripresa.core.drill.second import chords, contrary, line, none, one_note, parallel
from ripresa.core.drill.second.chords import ChordsBelow
from ripresa.core.drill.second.contrary import Contrary
from ripresa.core.drill.second.line import OwnLine
from ripresa.core.drill.second.none import NoSecond
from ripresa.core.drill.second.one_note import OneKey
from ripresa.core.drill.second.parallel import Parallel
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import ByKind, Exact, Fraction, label
from ripresa.core.kind import Kind

Plays = Annotated[NoSecond | Parallel | Contrary | OwnLine | OneKey | ChordsBelow, ByKind()]
#: All kinds, in the order in which they are offered.
PLAYS: tuple[Kind[Plays], ...] = (none.KIND, parallel.KIND, contrary.KIND, line.KIND, one_note.KIND, chords.KIND)

Balance = Literal["alike", "softer", "louder"]

#: Balance → share of their loudness of the first and the second hand, its name, and why one would choose it.
BALANCES: dict[Balance, tuple[Fraction, Fraction, str, str]] = {
    "alike": (Fraction(1), Fraction(1), "as loud", "Both hands alike."),
    "softer": (Fraction(1), Fraction(1, 2), "softer", "The other hand sings: this one stays under it."),
    "louder": (Fraction(1, 2), Fraction(1), "louder", "This hand sings: the other one stays under it."),
}
MOST_LEGS = 400
LONGEST_PHRASE = 120


@dataclass(frozen=True, slots=True)
class SecondHand:
    """The left hand under a drill that the right one plays.

    Args:
        plays: What it plays.
        legs: Its divisions, a leg for each leg of the drill, in turn; empty: those of the first hand, or, for what does
            not follow it, a note a beat.
        accents: Its accents.
        articulation: Share of its length that a note sounds, above 0 to 1.
        balance: How loud it is beside the other.
        fingers: The teacher's own fingers for its notes.
        phrase: Words of one's own for the strokes of both hands together, a syllable each: ``to-ge-ther now``.

    Raises:
        OutOfRange: An articulation out of range, too many legs, or too long a phrase.
    """

    plays: Plays = NoSecond()
    legs: tuple[Leg, ...] = ()
    accents: Accents = EachBeat()
    articulation: Exact = Fraction(1)
    balance: Balance = "alike"
    phrase: str = ""
    fingers: str = ""

    def __post_init__(self) -> None:
        if not 0 < self.articulation <= 1:
            raise OutOfRange(
                f"A note sounds for a share of its length above 0 and up to 1, not {label(self.articulation)}.",
                field="second.articulation",
            )
        if len(self.legs) > MOST_LEGS:
            raise OutOfRange(f"A hand has up to {MOST_LEGS} legs, not {len(self.legs)}.", field="second.legs")

        if len(self.phrase) > LONGEST_PHRASE:
            raise OutOfRange(
                f"A phrase has up to {LONGEST_PHRASE} signs, not {len(self.phrase)}.", field="second.phrase"
            )

    @property
    def is_there(self) -> bool:
        """Whether it plays at all."""
        return not isinstance(self.plays, NoSecond)

    def own_divisions(self, index: int) -> tuple[Fraction, ...]:
        """Return its divisions on a leg of the drill, from 0; none where they are those of the first hand."""
        return self.legs[index % len(self.legs)].divisions if self.legs else ()
