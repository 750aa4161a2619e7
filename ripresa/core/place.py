"""Places: where in time something stands, before hands and accents are given to it."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ripresa.core.meter import Meter
from ripresa.core.pitch import Pitch

Kind = Literal["note", "rest", "air", "hold"]
#: Where a cycle of hands or accents begins again.
Restart = Literal["never", "beat", "bar", "leg"]


@dataclass(frozen=True, slots=True)
class Place:
    """One stretch of time inside a bar, with what fills it.

    Args:
        onset, length: In beats of the bpm, from the drill's start.
        leg: Index of the leg, from 0.
        bar, beat: From 1.
        slot: From 0, in the division of the leg.
        division: Notes per beat of the leg here.
        kind: A note, a rest, an air stroke, or the held part of an earlier note.
        pitch: Written pitch of a note, if it has one.
    """

    onset: Fraction
    length: Fraction
    leg: int
    bar: int
    beat: int
    slot: int
    division: Fraction
    kind: Kind
    pitch: Pitch | None = None


def stretch_of(place: Place, restart: Restart) -> object:
    """Return a mark that is the same for all places in which a cycle runs on."""
    match restart:
        case "never":
            return 0
        case "leg":
            return place.leg
        case "bar":
            return place.leg, place.bar
        case "beat":
            return place.leg, place.bar, place.beat


@dataclass(slots=True)
class Cursor:
    """Walks a meter beat by beat and cuts it into slots; the one place where positions are added up.

    Nothing it hands out crosses a bar line: what would, is cut there and goes
    on as a hold.
    """

    meter: Meter
    at: Fraction = Fraction(0)
    bar: int = 1
    beat: int = 1
    slot: int = 0
    inside: Fraction = Fraction(0)

    def notes(self, leg: int, division: Fraction, pitches: tuple[Pitch | None, ...]) -> Iterator[Place]:
        """Yield a note for each pitch on the slots of a division, starting here."""
        for pitch in pitches:
            # Equal slots inside a beat of any length; below 1 a slot spans whole beats.
            length = self.meter.beats[self.beat - 1] / division
            yield from self.fill(leg, division, length, "note", pitch)

    def fill(
        self, leg: int, division: Fraction, length: Fraction, kind: Kind, pitch: Pitch | None = None
    ) -> Iterator[Place]:
        """Yield what fills so many beats from here: cut at bar lines, and silences and holds at beats too."""
        left = length
        while left:
            beat_left = self.meter.beats[self.beat - 1] - self.inside
            piece = min(left, beat_left if kind != "note" else self._bar_left(beat_left))
            yield Place(self.at, piece, leg, self.bar, self.beat, self.slot, division, kind, pitch)
            self._advance(piece)
            left -= piece
            if kind == "note":
                kind, pitch = "hold", None

    def _bar_left(self, beat_left: Fraction) -> Fraction:
        return beat_left + sum(self.meter.beats[self.beat :], Fraction(0))

    def _advance(self, length: Fraction) -> None:
        self.at += length
        self.inside += length
        self.slot += 1
        while self.inside and self.inside >= self.meter.beats[self.beat - 1]:
            self.inside -= self.meter.beats[self.beat - 1]
            self.slot = 0
            self.beat += 1
            if self.beat > len(self.meter.beats):
                self.bar, self.beat = self.bar + 1, 1
