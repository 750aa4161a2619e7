"""One note: held through the bar, or struck on each slot of its own division."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import ClassVar, Literal

from ripresa.core.drill.second.first import First, filled, held
from ripresa.core.errors import Unreadable
from ripresa.core.grid import Place
from ripresa.core.kind import Kind
from ripresa.core.pitch import Pitch, parse_pitch

Hold = Literal["held", "repeated"]

HOLDS: dict[Hold, tuple[str, str]] = {
    "held": ("held through each bar", "A pedal: the hand rests on it and listens."),
    "repeated": ("struck on each slot", "The other hand keeps the beat, or a division of it."),
}


@dataclass(frozen=True, slots=True)
class OneKey:
    """A note that stays.

    Args:
        note: Its name with its octave, ``C3``; empty for a tap without pitch.
        hold: Held through each bar, or struck again on each slot.

    Raises:
        Unreadable: It is not a note.
    """

    #: Whether it has the rhythm of the first hand where none of its own is written.
    follows: ClassVar[bool] = False
    kind: Literal["one_key"] = field(default="one_key", kw_only=True)
    note: str = "C3"
    hold: Hold = "held"

    def __post_init__(self) -> None:
        self._pitch()

    def fill(self, places: Sequence[Place], _first: First) -> list[Place]:
        """Return the places with the note in them."""
        pitch, found, begun = self._pitch(), [], False
        for place in places:
            on_one = place.beat == 1 and place.slot == 0
            if place.kind == "note" and (self.hold == "repeated" or on_one or not begun):
                found.append(filled(place, pitch))
                begun = True
            else:
                found.append(held(place) if place.kind in {"note", "hold"} else place)
        return found

    def _pitch(self) -> Pitch | None:
        if not self.note.strip():
            return None
        try:
            return parse_pitch(self.note.strip())
        except Unreadable as error:
            raise Unreadable(error.message, field="second.plays.note") from error


KIND = Kind(OneKey(), "keeps one note", "A held note, or one that is struck again and again.")
