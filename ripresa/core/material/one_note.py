"""One note, or a clap: rhythm alone."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.instrument import Instrument
from ripresa.core.material.notes import NotePass
from ripresa.core.meter import Meter
from ripresa.core.place import slot_numbers

LONGEST = 256


@dataclass(frozen=True, slots=True)
class OneNote:
    """The same note on every slot, for so many beats a leg: one string, one key, claps.

    Args:
        beats: Length of a leg in beats, 1 to 256.

    Raises:
        OutOfRange: Fewer or more beats than that.
    """

    kind: Literal["one_note"] = field(default="one_note", kw_only=True)
    beats: int = 4

    def __post_init__(self) -> None:
        if not 1 <= self.beats <= LONGEST:
            raise OutOfRange(f"A leg on one note lasts 1 to {LONGEST} beats, not {self.beats}.", field="material.beats")

    @property
    def title(self) -> str:
        """What it is, in words."""
        return "one note"

    def pass_for(self, divisions: Sequence[Fraction], _instrument: Instrument, _meter: Meter) -> NotePass:
        """Return a note for each slot that starts within the beats of the leg."""
        at, count = Fraction(0), 0
        for division, _ in slot_numbers(divisions):
            if at >= self.beats:
                break
            at += 1 / division
            count += 1
        return NotePass((None,) * count, described=plural(self.beats, "beat"))
