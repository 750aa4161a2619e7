"""In parallel: the same line, an octave or an interval of the scale lower."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import ClassVar, Literal

from ripresa.core.drill.second.first import SEVEN, First, with_pitches
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Place
from ripresa.core.kind import Kind
from ripresa.core.pitch import Pitch, degree_of, directions, on_degree

Interval = Literal[
    "octave", "two_octaves", "third", "sixth", "tenth", "third_from_left", "sixth_from_left", "tenth_from_left"
]

#: Interval → octaves and steps of the scale by which it is lower, its name, and why one would choose it.
INTERVALS: dict[Interval, tuple[int, int, str, str]] = {
    "octave": (1, 0, "an octave lower", "The usual way: both hands say the same, with other fingers."),
    "two_octaves": (2, 0, "two octaves lower", "The same, with room between the hands: each is heard by itself."),
    "third": (0, 2, "a third lower", "Thumbs pass at other places: each hand has to know its own way."),
    "sixth": (0, 5, "a sixth lower", "As thirds turned over; the hands lie well apart."),
    "tenth": (0, 9, "a tenth lower", "Thirds with an octave between them: the fullest sound."),
    "third_from_left": (0, 2, "from the keynote, the right hand a third higher", "As scales in thirds are printed."),
    "sixth_from_left": (0, 5, "from the keynote, the right hand a sixth higher", "The left hand is at home."),
    "tenth_from_left": (0, 9, "from the keynote, the right hand a tenth higher", "The left hand is at home."),
}


_FROM_LEFT = "_from_left"


@dataclass(frozen=True, slots=True)
class Parallel:
    """The line of the first hand, lower.

    Args:
        interval: Octaves keep every pitch; thirds, sixths and tenths count in the scale, which needs seven notes.
            The left hand begins lower than the line, or has the keynote, and the line of the right one is raised.
    """

    #: Whether it has the rhythm of the first hand where none of its own is written.
    follows: ClassVar[bool] = True
    kind: Literal["parallel"] = field(default="parallel", kw_only=True)
    interval: Interval = "octave"

    @property
    def raises_first(self) -> int:
        """Steps of the scale by which the first hand is moved, so that the second one has the keynote."""
        _, steps, _, _ = INTERVALS[self.interval]
        if not self.interval.endswith(_FROM_LEFT):
            return 0
        return (steps + SEVEN // 2) % SEVEN - SEVEN // 2

    def fill(self, places: Sequence[Place], first: First) -> list[Place]:
        """Return the places with the line in them.

        Raises:
            OutOfRange: A third, sixth or tenth of what has no scale of seven notes.
        """
        octaves, steps, name, _ = INTERVALS[self.interval]
        if steps and (first.tones is None or first.tones.degrees != SEVEN):
            raise OutOfRange(
                f"“{name}” counts in a scale of seven notes, and this material has none. Take an octave.",
                field="second.plays.interval",
            )
        ways = directions(first.pitches)

        def lower(pitch: Pitch | None, down: bool) -> Pitch | None:
            if pitch is None or first.tonic is None or first.tones is None or not steps:
                return replace(pitch, octave=pitch.octave - octaves) if pitch else None
            number, raised = degree_of(pitch, first.tonic, first.tones, going_down=down)
            return on_degree(number - steps, raised, first.tonic, first.tones, going_down=down)

        moved = [lower(pitch, down) for pitch, down in zip(first.pitches, ways, strict=True)]
        closing = lower(first.closing, ways[-1]) if first.closing else moved[0]
        return with_pitches(places, [*moved, closing], first)


KIND = Kind(Parallel(), "plays the same", "In parallel: both hands go the same way at the same time.")
