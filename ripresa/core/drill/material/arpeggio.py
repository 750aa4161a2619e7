"""Arpeggios: the tones of a chord over so many octaves, in a shape, with a turn-round."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.run import Shape, Span, Top, run_pass, spanned
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import Instrument, Scale, chord_named, parse_tonic, show_tonic
from ripresa.core.rhythm import Meter

MOST_OCTAVES = 8


@dataclass(frozen=True, slots=True)
class Arpeggio:
    """A chord played tone by tone.

    Args:
        tonic: Its root, ``"D"``, ``"Eb"``.
        chord: Key of a chord in ``ripresa.core.pitch.CHORDS``.
        shape, top: As in a scale run.
        octaves: 1 to 8, or as in a scale run.
        start: Tone of the chord on which it starts, from 1: its inversion, there and back to that tone.

    Raises:
        Unreadable: The root is not one.
        OutOfRange: An unknown chord, or octaves out of range.
    """

    kind: Literal["arpeggio"] = field(default="arpeggio", kw_only=True)
    tonic: str = "C"
    chord: str = "major_triad"
    shape: Shape = "there_and_back"
    octaves: Annotated[Span, Between(1, MOST_OCTAVES, "An arpeggio spans {least} to {most} octaves, not {value}.")] = 2
    top: Top = "once"
    start: int = 1

    def __post_init__(self) -> None:
        parse_tonic(self.tonic)
        chord_named(self.chord)
        check_bounds(self, "material")
        if not 1 <= self.start <= self.tones.degrees:
            raise OutOfRange(
                f"A {self.tones.name} chord has tones 1 to {self.tones.degrees}, and not {self.start}.",
                field="material.start",
            )

    @property
    def tones(self) -> Scale:
        """The tones of the chord, as a scale over one octave."""
        return chord_named(self.chord)

    @property
    def title(self) -> str:
        """What it is, in words: ``E♭ minor seventh arpeggio``."""
        return f"{show_tonic(self.tonic)} {chord_named(self.chord).name} arpeggio"

    @property
    def own_division(self) -> None:
        """It has no rhythm of its own: the legs give it."""
        return None

    def pass_for(self, divisions: Sequence[Fraction], instrument: Instrument, _meter: Meter) -> NotePass:
        """Return the notes of a leg: with d tones an octave, counted as in a scale run."""
        octaves, times, described = spanned(self.octaves, divisions)
        notes, closing = run_pass(
            parse_tonic(self.tonic), self.tones, octaves, self.shape, self.top, self.start, instrument, circle=False
        )
        return NotePass(notes * times, closing, described)


KIND = Kind(Arpeggio(), "the arpeggio of", "The tones of a chord, one after the other.")
