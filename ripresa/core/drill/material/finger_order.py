"""Finger orders: the four fingers of the left hand in one of their 24 orders, on a string or across them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise, permutations
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.picked import with_strings
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import How, Ornament, Pluck, Slot, Touch, slot_numbers
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import Instrument, Pitch, above
from ripresa.core.rhythm import Meter

Path = Literal["one", "up", "down", "there_and_back", "skip"]
Legato = Literal["none", "hammer_pull", "slide"]

#: All orders of the four fingers, from 1 2 3 4 to 4 3 2 1.
ORDERS: tuple[str, ...] = tuple(" ".join(order) for order in permutations("1234"))
#: What is chosen for all of them, one after the other.
ALL = "all"
PATHS: dict[Path, tuple[str, str]] = {
    "one": ("on one string", "The order alone, without a change of string."),
    "up": ("across the strings, thick to thin", "The order on each string, towards the thin ones."),
    "down": ("across the strings, thin to thick", "The order on each string, towards the thick ones."),
    "there_and_back": ("across the strings and back", "To the thin ones and home."),
    "skip": ("skipping strings", "6 4 5 3 4 2 3 1: the pick crosses a string that does not sound."),
}
LEGATOS: dict[Legato, tuple[str, str]] = {
    "none": ("all struck", "Every note with the right hand."),
    "hammer_pull": ("hammered and pulled", "On the notes that you name the left hand makes the sound."),
    "slide": ("slid to", "On the notes that you name the finger before goes there by a slide."),
}
_HIGHEST = 12


@dataclass(frozen=True, slots=True)
class FingerOrder:
    """Fingers in an order, fret by fret from a position.

    Args:
        order: ``"1 2 3 4"`` or another of the 24, or ``"all"``.
        path: On one string, or which way across them.
        string: The string on which it is played, or begins, from 1, the thinnest.
        position: The fret of the first finger.
        shift: Frets by which it moves on after each pass, up to the neck's end or back below 0.
        passes: How often it is played, each time so many frets on.
        legato: How notes that are not struck are reached; slurred: which of the four they are, from 1.

    Raises:
        OutOfRange: An unknown order, or a number out of range.
    """

    kind: Literal["finger_order"] = field(default="finger_order", kw_only=True)
    order: str = "1 2 3 4"
    path: Path = "one"
    string: Annotated[int, Between(1, 6, "Strings are numbered {least} to {most}, not {value}.")] = 1
    position: Annotated[
        int, Between(1, _HIGHEST, "A position is named by a fret from {least} to {most}, not {value}.")
    ] = 5
    shift: Annotated[int, Between(-4, 4, "The hand moves on by {least} to {most} frets, not {value}.")] = 0
    passes: Annotated[int, Between(1, 24, "An order is played {least} to {most} times, not {value}.")] = 1
    legato: Legato = "none"
    slurred: tuple[int, ...] = (2, 4)

    def __post_init__(self) -> None:
        check_bounds(self, "material")
        if self.order != ALL and self.order not in ORDERS:
            raise OutOfRange(
                f"“{self.order}” is not an order of the four fingers. Write each of 1 2 3 4 once, with spaces, or all.",
                field="material.order",
            )
        if any(not 1 <= one <= 4 for one in self.slurred) or len(self.slurred) > 4:
            raise OutOfRange("Name notes of the four that are slurred: 2 4.", field="material.slurred")

    @property
    def title(self) -> str:
        """What it is, in words."""
        return "the fingers in all 24 orders" if self.order == ALL else f"the fingers {self.order}"

    @property
    def orders(self) -> tuple[str, ...]:
        """The orders that are played, one after the other."""
        return ORDERS if self.order == ALL else (self.order,)

    @property
    def own_division(self) -> None:
        """It has no rhythm of its own: the legs give it."""
        return None

    def pass_for(self, divisions: Sequence[Fraction], instrument: Instrument, _meter: Meter) -> NotePass:
        """Return the notes of a leg, each on its string and fret.

        Raises:
            OutOfRange: The instrument has no such string, or the neck ends before the last position.
        """
        played = with_strings(instrument)
        taken = list(self._taken(played))
        pitches = [_pitch(played, pluck) for _, pluck in taken]
        ornaments = self._ornaments(pitches)
        slots = tuple(
            Slot(division, number, "note", pitch, touch=touch, how=How(None, (pluck,), ornament))
            for (division, number), pitch, (touch, pluck), ornament in zip(
                slot_numbers(divisions), pitches, taken, ornaments, strict=False
            )
        )
        described = plural(len(self.orders), "order") + (f", {self.passes} times" if self.passes > 1 else "")
        return NotePass(tuple(pitches), described=described, rhythm=slots, goes_on=False)

    def _taken(self, instrument: Instrument) -> Iterator[tuple[Touch, Pluck]]:
        """Yield how each note is taken by the left hand, and which string sounds."""
        strings = self.strings(instrument)
        for number in range(self.passes):
            position = self.position + number * self.shift
            if position < 1 or position + 3 > instrument.frets:
                raise OutOfRange(
                    f"Pass {number + 1} would stand in position {position}, and the neck has positions 1 to "
                    f"{instrument.frets - 3}. Play it less often, or begin elsewhere.",
                    field="material.passes",
                )
            for order in self.orders:
                for string in strings:
                    for finger in map(int, order.split()):
                        fret = position + finger - 1
                        yield Touch(finger, string, fret, position), Pluck(string, fret)

    def strings(self, instrument: Instrument) -> tuple[int, ...]:
        """Return the strings of one pass, in order.

        Raises:
            OutOfRange: The instrument has fewer strings.
        """
        count = len(instrument.strings)
        if self.string > count:
            raise OutOfRange(
                f"{instrument.name} has {plural(count, 'string')}, and no string {self.string}.",
                field="material.string",
            )
        up = tuple(range(count, 0, -1))
        match self.path:
            case "one":
                return (self.string,)
            case "up":
                return up
            case "down":
                return up[::-1]
            case "there_and_back":
                return up + up[-2::-1]
            case "skip":
                return tuple(one for pair in zip(up, up[2:], strict=False) for one in pair)

    def _ornaments(self, pitches: Sequence[Pitch]) -> list[Ornament | None]:
        """Return how each note is reached: hammered where it goes up on its string, pulled where it goes down."""
        found: list[Ornament | None] = [None]
        for number, (before, after) in enumerate(pairwise(pitches), start=1):
            # The first of the four stands on a string of its own, or after a shift: it is struck.
            inside = number % 4 and number % 4 + 1 in self.slurred and self.legato != "none"
            if not inside:
                found.append(None)
            elif self.legato == "slide":
                found.append("slide")
            else:
                found.append("hammer" if after.midi > before.midi else "pull")
        return found


#: Semitones over C → letter by which a fret without a key is spelt, sharps upwards.
_LETTERS = (0, 0, 1, 1, 2, 3, 3, 4, 4, 5, 5, 6)
_C = Pitch(0, 0, 4)


def _pitch(instrument: Instrument, pluck: Pluck) -> Pitch:
    octaves, over = divmod(instrument.fretted(pluck.string, pluck.fret) - _C.midi, 12)
    return above(_C, _LETTERS[over] + 7 * octaves, over + 12 * octaves)


KIND = Kind(FingerOrder(), "finger orders", "The four fingers of the left hand in their 24 orders.")
