"""In contrary motion: the line mirrored in its scale, degree by degree."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import ClassVar, Literal

from ripresa.core.drill.second.first import SEVEN, First, with_pitches
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Place
from ripresa.core.kind import Kind
from ripresa.core.pitch import Pitch, degree_of, directions, on_degree

Start = Literal["same", "third", "fifth", "sixth", "octave", "two_octaves"]

#: Start → octaves and degrees under the first note of the other hand, its name, and why one would choose it.
STARTS: dict[Start, tuple[int, int, str, str]] = {
    "same": (0, 0, "the same note", "Both thumbs begin on one key: fingers and thumb passings are alike."),
    "octave": (1, 0, "an octave below", "Room for both thumbs; the fingers are alike."),
    "two_octaves": (2, 0, "two octaves below", "Wide apart: the arms open."),
    "third": (0, 2, "a third below", "Another fingering in each hand."),
    "fifth": (0, 4, "a fifth below", "Another fingering in each hand."),
    "sixth": (0, 5, "a sixth below", "Another fingering in each hand."),
}


@dataclass(frozen=True, slots=True)
class Contrary:
    """The first hand in a mirror: where it goes a degree up, this one goes a degree down.

    Args:
        start: Where it begins, under the first note of the other hand.
    """

    #: Whether it has the rhythm of the first hand where none of its own is written.
    follows: ClassVar[bool] = True
    kind: Literal["contrary"] = field(default="contrary", kw_only=True)
    start: Start = "same"

    def fill(self, places: Sequence[Place], first: First) -> list[Place]:
        """Return the places with the mirrored line in them.

        Raises:
            OutOfRange: The material has no scale to be mirrored in, or not seven notes for a third, fifth or sixth.
        """
        tonic, tones = first.tonic, first.tones
        begin = next((pitch for pitch in first.pitches if pitch), None)
        if tonic is None or tones is None or begin is None:
            raise OutOfRange(
                "Contrary motion mirrors a scale, and this material has none. Take a scale, an arpeggio or a line "
                "with pitches, or let the other hand play a line of its own.",
                field="second.plays.kind",
            )
        ways = directions(first.pitches)
        octaves, steps, name, _ = STARTS[self.start]
        if steps and tones.degrees != SEVEN:
            raise OutOfRange(
                f"“{name}” counts in a scale of seven notes, and this material has {tones.degrees}. Begin on the same "
                "note, or an octave below.",
                field="second.plays.start",
            )
        under = octaves * tones.degrees + steps
        middle, _ = degree_of(begin, tonic, tones, going_down=ways[0])

        def mirrored(pitch: Pitch | None, down: bool) -> Pitch | None:
            if pitch is None:
                return None
            number, raised = degree_of(pitch, tonic, tones, going_down=down)
            return on_degree(2 * middle - number - under, -raised, tonic, tones, going_down=not down)

        moved = [mirrored(pitch, down) for pitch, down in zip(first.pitches, ways, strict=True)]
        closing = mirrored(first.closing, ways[-1]) if first.closing else moved[0]
        return with_pitches(places, [*moved, closing], first)


KIND = Kind(Contrary(), "goes the other way", "Contrary motion: a mirror, in which both hands use the same fingers.")
