"""Sequences: a figure that steps through a scale or a chord, one degree at a time."""

from collections.abc import Sequence as Several
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.run import Octaves, RunTone, Top, check_start, octaves_for, pitch_of, seat
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import CHORDS, Instrument, Scale, parse_tonic, scale_named, show_tonic
from ripresa.core.rhythm import Meter

Way = Literal["up", "down", "there_and_back"]

MOST_OCTAVES = 4
LONGEST_FIGURE = 16
WAYS: dict[Way, tuple[str, str]] = {
    "there_and_back": ("up and back", "Up with the figure, down with its mirror."),
    "up": ("up", "Each figure starts one degree higher."),
    "down": ("down", "Each figure starts one degree lower, and turns the other way."),
}
#: Figures by name: degrees from where the figure starts, 0 being that tone.
FIGURES: dict[str, tuple[tuple[int, ...], str]] = {
    "thirds": ((0, 2), "thirds"),
    "fourths": ((0, 3), "fourths"),
    "fifths": ((0, 4), "fifths"),
    "sixths": ((0, 5), "sixths"),
    "threes": ((0, 1, 2), "groups of three"),
    "fours": ((0, 1, 2, 3), "groups of four"),
    "fives": ((0, 1, 2, 3, 4), "groups of five"),
    "broken": ((0, 2, 1), "broken threes"),
    "five_fingers": ((0, 1, 2, 3, 4, 3, 2, 1), "five fingers up and back"),
}


@dataclass(frozen=True, slots=True)
class Sequence:
    """A figure on each degree in turn, as long as it stays inside the octaves.

    Over R tones a figure of n neighbours gives R − n + 1 figures.

    Args:
        tonic: ``"D"``, ``"Eb"``.
        scale: Key of a scale in ``SCALES`` or of a chord in ``CHORDS``.
        octaves: 1 to 4, or as in a scale run; R is degrees × octaves + 1, the upper tonic in.
        figure: Degrees from where the figure starts, 2 to 16 of them, −14 to 14.
        way: Up, down (the figure mirrored), or up and back.
        start: Degree on which the first figure starts, from 1; its tones lie that much higher.
        top: Whether the figure at the turn is played once, or again on the way down.

    Raises:
        Unreadable: The tonic is not one.
        OutOfRange: An unknown scale, octaves or a figure out of range, or a figure wider than the octaves.
    """

    kind: Literal["sequence"] = field(default="sequence", kw_only=True)
    tonic: str = "C"
    scale: str = "major"
    octaves: Annotated[
        Octaves, Between(1, MOST_OCTAVES, "A sequence spans {least} to {most} octaves, not {value}.")
    ] = 1
    figure: tuple[int, ...] = (0, 2)
    way: Way = "there_and_back"
    start: int = 1
    top: Top = "twice"

    def __post_init__(self) -> None:
        parse_tonic(self.tonic)
        check_bounds(self, "material")
        if not 2 <= len(self.figure) <= LONGEST_FIGURE or any(abs(degree) > 14 for degree in self.figure):
            raise OutOfRange(
                f"A figure has 2 to {LONGEST_FIGURE} degrees from −14 to 14. Write them with spaces: 0 2 1.",
                field="material.figure",
            )
        check_start(self.start, self.tones)
        least = self.octaves if isinstance(self.octaves, int) else 1
        if not self._starts(least):
            raise OutOfRange(
                f"This figure is wider than {plural(least, 'octave')} of {self.tones.name}.",
                field="material.figure",
            )

    @property
    def tones(self) -> Scale:
        """The scale or chord it steps through."""
        return CHORDS[self.scale] if self.scale in CHORDS else scale_named(self.scale)

    @property
    def title(self) -> str:
        """What it is, in words: ``C major in thirds``."""
        named = next((name for figure, name in FIGURES.values() if figure == self.figure), None)
        return f"{show_tonic(self.tonic)} {self.tones.name} in {named or 'figures of ' + str(len(self.figure))}"

    @property
    def own_division(self) -> None:
        """It has no rhythm of its own: the legs give it."""
        return None

    def pass_for(self, divisions: Several[Fraction], instrument: Instrument, _meter: Meter) -> NotePass:
        """Return the notes of a leg: figure after figure."""
        octaves, times = octaves_for(self.octaves, divisions)
        top = self.tones.degrees * octaves
        moved = self.start - 1
        up = [[(start + degree, False) for degree in self.figure] for start in self._starts(octaves)]
        # Mirrored about the middle of the octaves: the way down starts on the top as the way up did on the tonic.
        down = [[(top - index, True) for index, _ in figure] for figure in up]
        # Turned once, the way down begins with the second of its figures.
        back = down[1:] if self.top == "once" else down
        figures: list[list[RunTone]] = {"up": up, "down": down, "there_and_back": up + back}[self.way]
        tonic = seat(parse_tonic(self.tonic), octaves, instrument)
        notes = tuple(
            pitch_of(tonic, self.tones, (index + moved, down)) for figure in figures for index, down in figure
        )
        described = f"{plural(len(figures), 'figure')} of {len(self.figure)}" + (
            f", {times} times" if times > 1 else ""
        )
        return NotePass(notes * times, None, described)

    def _starts(self, octaves: int) -> range:
        """Return on which tones, from the lowest tonic, the figure stays inside."""
        top = self.tones.degrees * octaves
        return range(max(0, -min(self.figure)), top - max(0, *self.figure) + 1)


KIND = Kind(Sequence(), "a sequence in", "A figure that steps through a scale, one degree at a time.")
