"""What material hands to a reading: the notes of one pass, in order, without time."""

from dataclasses import dataclass

from ripresa.core.pitch import Pitch
from ripresa.core.place import Slot


@dataclass(frozen=True, slots=True)
class NotePass:
    """One pass through the material on one leg.

    Args:
        notes: Written pitches in order; None for a note without pitch.
        closing: The closing tonic that belongs to the pass but is not among
            its notes: note N + 1. None where the pass ends on its own.
        described: What the pass is, in words: ``"2 octaves"``.
        rhythm: Slots of a material that brings its own rhythm; empty where
            the leg's divisions give it. Its notes are those of ``notes``.
    """

    notes: tuple[Pitch | None, ...]
    closing: Pitch | None = None
    described: str = ""
    rhythm: tuple[Slot, ...] = ()
