"""A line of its own."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from itertools import cycle
from typing import ClassVar, Literal

from ripresa.core.drill.material import Line
from ripresa.core.drill.second.first import First, filled, held
from ripresa.core.errors import RipresaError
from ripresa.core.grid import Place, altered
from ripresa.core.kind import Kind
from ripresa.core.pitch import INSTRUMENTS

#: Where degrees of its own line lie: the octave under middle C.
_HOME = 48


@dataclass(frozen=True, slots=True)
class OwnLine:
    """A phrase of its own, a note a slot, that begins again by itself.

    Args:
        text: Its notes, as a typed line has them: ``C3 G3 E3 G3``, ``1 5 3 5``, ``r`` rests, ``*2`` lasts two slots.
        tonic: What degrees count from.

    Raises:
        Unreadable, OutOfRange: As the line of a drill.
    """

    #: Whether it has the rhythm of the first hand where none of its own is written.
    follows: ClassVar[bool] = False
    kind: Literal["line"] = field(default="line", kw_only=True)
    text: str = "1 5 3 5"
    tonic: str = "C"

    def __post_init__(self) -> None:
        try:
            self._line()
        except RipresaError as error:
            place = (error.field or "material.text").removeprefix("material")
            raise type(error)(error.message, field=f"second.plays{place}") from error

    def fill(self, places: Sequence[Place], first: First) -> list[Place]:
        """Return the places with the line in them, slot by slot."""
        instrument = replace(INSTRUMENTS["piano_left"], home=_HOME)
        divisions = list(dict.fromkeys(place.division for place in places))
        rhythm = cycle(self._line().pass_for(divisions, instrument, first.meter).rhythm)
        found = []
        for place in places:
            if place.kind != "note":
                found.append(place)
                continue
            slot = next(rhythm)
            if slot.kind == "note":
                found.append(altered(filled(place, slot.pitch), accent=slot.accent))
            else:
                found.append(altered(held(place), kind=slot.kind))
        return found

    def _line(self) -> Line:
        return Line(text=self.text, tonic=self.tonic)


KIND = Kind(OwnLine(), "plays a line of its own", "Two voices: write what the other hand plays, note by note.")
