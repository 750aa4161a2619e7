"""What material hands to a reading: the notes of one pass, in order, without time."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import Slot, altered
from ripresa.core.pitch import Instrument, Pitch, Scale, degree_of, directions, on_degree

#: What is said of a pass that lies on its strings and cannot go elsewhere.
AS_ON_STRINGS = "on its strings as written"


@dataclass(frozen=True, slots=True)
class NotePass:
    """One pass through the material on one leg.

    Args:
        notes: Written pitches in order; None for a note without pitch.
        closing: The closing tonic that belongs to the pass but is not among
            its notes: note N + 1. None where the pass ends on its own.
        described: What the pass is, in words: ``"2 octaves"``.
        goes_on: Whether what follows it goes on as the divisions do; else, with a rhythm of its own, it begins again.
        rhythm: Slots of a material that brings its own rhythm; empty where
            the leg's divisions give it. Its notes are those of ``notes``.
        second: Onsets of a second layer under it, in beats from the start of the pass; it begins
            again after ``second_beats``.
    """

    notes: tuple[Pitch | None, ...]
    closing: Pitch | None = None
    described: str = ""
    rhythm: tuple[Slot, ...] = ()
    second: tuple[Fraction, ...] = ()
    second_beats: Fraction = Fraction(0)
    goes_on: bool = False

    @property
    def sounded(self) -> tuple[Pitch | None, ...]:
        """Its notes, and the closing tonic if there is one, whether it is played or not."""
        return self.notes if self.closing is None else (*self.notes, self.closing)

    def moved(self, octaves: int, instrument: Instrument) -> "NotePass":
        """Return the pass so many octaves higher: the same onsets in another register.

        What says its strings goes twelve frets along them; where one of them is open or the neck ends, all of it stays.
        """
        if not octaves:
            return self
        frets = 12 * octaves
        along = [_along(slot, frets, instrument) if _is_on_strings(slot) else slot for slot in self.rhythm]
        if None in along:
            return replace(self, described=f"{self.described}, {AS_ON_STRINGS}".removeprefix(", "))

        def move(pitch: Pitch | None) -> Pitch | None:
            return replace(pitch, octave=pitch.octave + octaves) if pitch else None

        return replace(self, rhythm=tuple(slot for slot in along if slot))._mapped(move)

    def folded(self, instrument: Instrument) -> "NotePass":
        """Return the pass with what is out of range moved into it by octaves; its description says how many notes."""

        def fold(pitch: Pitch | None) -> Pitch | None:
            return instrument.folded(pitch) if pitch else None

        moved = sum(bool(pitch) and fold(pitch) != pitch for pitch in self.notes)
        described = self.described + (f", {plural(moved, 'note')} folded" if moved else "")
        made = self._mapped(fold)
        # What is moved lies elsewhere than its strings say: where, the fingering of the drill says.
        rhythm = tuple(
            altered(slot, touch=None, how=replace(slot.how, plucks=())) if slot.pitch != before.pitch else slot
            for slot, before in zip(made.rhythm, self.rhythm, strict=True)
        )
        return replace(made, described=described, rhythm=rhythm)

    def unpitched(self) -> "NotePass":
        """Return the pass as it is struck where nothing has a pitch: the same onsets, no closing tonic."""
        rhythm = tuple(altered(slot, pitch=None, chord=None, touch=None) for slot in self.rhythm)
        return replace(self, notes=(None,) * len(self.notes), closing=None, rhythm=rhythm)

    def stepped(self, steps: int, tonic: Pitch, tones: Scale) -> "NotePass":
        """Return the pass so many steps of a scale higher; what is raised out of it stays raised."""
        row = [
            on_degree(number + steps, raised, tonic, tones, going_down=way) if pitch else None
            for pitch, way in zip(self.sounded, directions(self.sounded), strict=True)
            for number, raised in [degree_of(pitch, tonic, tones, going_down=way) if pitch else (0, 0)]
        ]
        again = iter(row)
        rhythm = tuple(altered(slot, pitch=next(again)) if slot.kind == "note" else slot for slot in self.rhythm)
        notes = tuple(row[: len(self.notes)])
        return replace(self, notes=notes, closing=row[-1] if self.closing else None, rhythm=rhythm)

    def _mapped(self, change: Callable[[Pitch | None], Pitch | None]) -> "NotePass":
        return replace(
            self,
            notes=tuple(change(pitch) for pitch in self.notes),
            closing=change(self.closing),
            rhythm=tuple(altered(slot, pitch=change(slot.pitch)) for slot in self.rhythm),
        )


def _is_on_strings(slot: Slot) -> bool:
    """Whether a slot says on which strings it is played."""
    return bool(slot.how.plucks) or (slot.touch is not None and slot.touch.string is not None)


def _along(slot: Slot, frets: int, instrument: Instrument) -> Slot | None:
    """Return a slot so many frets along its strings; None where one of them is open or the neck ends."""
    touch, plucks = slot.touch, slot.how.plucks
    lying = [pluck.fret for pluck in plucks] + ([touch.fret] if touch and touch.fret is not None else [])
    if not all(fret and 0 < fret + frets <= instrument.frets for fret in lying):
        return None
    moved = tuple(replace(pluck, fret=pluck.fret + frets) for pluck in plucks)
    if touch and touch.fret is not None:
        position = None if touch.position is None else touch.position + frets
        touch = replace(touch, fret=touch.fret + frets, position=position)
    return altered(slot, touch=touch, how=replace(slot.how, plucks=moved))
