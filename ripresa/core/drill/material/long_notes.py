"""Long notes: each tone of a scale held for so many beats, with a count inside."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.run import Shape, check_start, run_pass
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import Slot
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import Instrument, Scale, parse_tonic, scale_named, show_tonic
from ripresa.core.rhythm import Meter

MOST_BEATS = 32
MOST_OCTAVES = 4


@dataclass(frozen=True, slots=True)
class LongNotes:
    """A scale in long notes, the beats of each counted inside from 1.

    Args:
        tonic, scale, shape, octaves, start: As of a scale run.
        beats: How long each note lasts, in beats. rest: Beats of silence after each, to breathe or to let go.

    Raises:
        Unreadable: The tonic is not one.
        OutOfRange: An unknown scale, or a number out of range.
    """

    kind: Literal["long_notes"] = field(default="long_notes", kw_only=True)
    tonic: str = "C"
    scale: str = "major"
    shape: Shape = "up"
    octaves: Annotated[
        int | Literal["range"], Between(1, MOST_OCTAVES, "Long notes span {least} to {most} octaves, not {value}.")
    ] = 1
    start: int = 1
    beats: Annotated[int, Between(1, MOST_BEATS, "A long note lasts {least} to {most} beats, not {value}.")] = 6
    rest: Annotated[int, Between(0, MOST_BEATS, "After it is {least} to {most} beats of silence, not {value}.")] = 2

    def __post_init__(self) -> None:
        parse_tonic(self.tonic)
        scale_named(self.scale)
        check_bounds(self, "material")
        check_start(self.start, self.tones)

    @property
    def tones(self) -> Scale:
        """The scale."""
        return scale_named(self.scale)

    @property
    def title(self) -> str:
        """What it is, in words."""
        return f"long notes in {show_tonic(self.tonic)} {self.tones.name}"

    @property
    def own_division(self) -> Fraction:
        """A note a beat: its own count."""
        return Fraction(1)

    def pass_for(self, _divisions: Sequence[Fraction], instrument: Instrument, _meter: Meter) -> NotePass:
        """Return the notes, the last one the closing tonic; each beat says its number inside the note."""
        notes, closing = run_pass(
            parse_tonic(self.tonic), self.tones, self.octaves, self.shape, "once", self.start, instrument
        )
        pitches = (*notes, closing) if closing else notes
        slots: list[Slot] = []
        for pitch in pitches:
            slots += [
                Slot(Fraction(1), 0, "hold" if beat else "note", None if beat else pitch, word=str(beat + 1))
                for beat in range(self.beats)
            ]
            slots += [Slot(Fraction(1), 0, "rest") for _ in range(self.rest)]
        described = plural(len(pitches), "note") + f" of {plural(self.beats, 'beat')}"
        return NotePass(pitches, described=described, rhythm=tuple(slots))


KIND = Kind(LongNotes(), "long notes in", "Each tone held, and counted inside: tone, breath and patience.")
