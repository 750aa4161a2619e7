"""One note, or a clap: rhythm alone."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import Slot, slot_numbers
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import LETTERS, Instrument
from ripresa.core.rhythm import Meter

LONGEST = 256
Say = Literal["count", "forward", "backward"]
SAYS: dict[Say, tuple[str, str]] = {
    "count": ("counted", "The count words are said, or nothing."),
    "forward": ("with the letters forward", "C D E …: the names come as fast as the notes."),
    "backward": ("with the letters backward", "C B A …: harder, and as useful."),
}


@dataclass(frozen=True, slots=True)
class OneNote:
    """The same note on every slot, for so many beats a leg: one string, one key, claps.

    Args:
        beats: Length of a leg in beats, 1 to 256.
        say: The count words, or the letters of the notes in turn, forward or backward.
        first: The letter that is said first, A to G.

    Raises:
        OutOfRange: Fewer or more beats than that, or another letter.
    """

    kind: Literal["one_note"] = field(default="one_note", kw_only=True)
    beats: Annotated[
        int,
        Between(
            1,
            LONGEST,
            "A leg on one note lasts {least} to {most} beats, not {value}.",
            "How many beats each leg lasts.",
        ),
    ] = 4
    say: Say = "count"
    first: str = "C"

    def __post_init__(self) -> None:
        check_bounds(self, "material")
        if self.first not in LETTERS:
            raise OutOfRange(f"“{self.first}” is not a letter of a note. Begin with A to G.", field="material.first")

    @property
    def title(self) -> str:
        """What it is, in words."""
        return "one note" if self.say == "count" else "the letters of the notes"

    @property
    def own_division(self) -> None:
        """It has no rhythm of its own: the legs give it."""
        return None

    def pass_for(self, divisions: Sequence[Fraction], _instrument: Instrument, _meter: Meter) -> NotePass:
        """Return a note for each slot that starts within the beats of the leg."""
        at = Fraction(0)
        slots: list[Slot] = []
        for division, number in slot_numbers(divisions):
            if at >= self.beats:
                break
            at += 1 / division
            slots.append(Slot(division, number, word=self._letter(len(slots))))
        notes = (None,) * len(slots)
        described = plural(self.beats, "beat")
        return NotePass(notes, described=described, rhythm=() if self.say == "count" else tuple(slots), goes_on=True)

    def _letter(self, number: int) -> str:
        step = number if self.say == "forward" else -number
        return LETTERS[(LETTERS.index(self.first) + step) % len(LETTERS)]


KIND = Kind(OneNote(beats=8), "one note", "One string, one key or a clap: rhythm alone.")
