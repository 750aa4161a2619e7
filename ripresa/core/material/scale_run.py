"""Scale runs: a scale over so many octaves, in a shape, with a turn-round."""

from dataclasses import dataclass, field
from fractions import Fraction
from math import ceil
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.instrument import Instrument
from ripresa.core.material.notes import NotePass
from ripresa.core.pitch import Pitch, above, parse_tonic, show_tonic
from ripresa.core.scales import Scale, scale_named

Shape = Literal["up", "down", "there_and_back", "back_and_there"]
Octaves = int | Literal["match", "one_repeated"]

MOST_OCTAVES = 8

SHAPES: dict[Shape, tuple[str, str]] = {
    "there_and_back": ("there and back", "Up, then down: the usual run, and it comes back to where it started."),
    "back_and_there": ("back and there", "From the top: the way down gets the fresh hand."),
    "up": ("up", "One way only, to hear every step of it."),
    "down": ("down", "One way only, the harder one for most."),
}
TOPS: dict[Literal["once", "twice"], tuple[str, str]] = {
    "once": ("the turning note once", "Keeps seven-note scales at 2 × 7 notes an octave, so octaves match the beat."),
    "twice": ("the turning note twice", "A new stroke on the turn; adds two notes and moves every accent after it."),
}


@dataclass(frozen=True, slots=True)
class ScaleRun:
    """A scale played over some octaves.

    Args:
        tonic: ``"D"``, ``"Eb"``, ``"F#"``.
        scale: Key of a scale in ``ripresa.core.scales.SCALES``.
        shape: Up, down, there and back, back and there.
        octaves: 1 to 8; ``"match"``: as many as there are notes per beat;
            ``"one_repeated"``: one octave as many times as notes per beat,
            which takes the same beats.
        top: Whether the turning note is played once or twice.

    Raises:
        Unreadable: The tonic is not one.
        OutOfRange: An unknown scale, or octaves out of range.
    """

    kind: Literal["scale_run"] = field(default="scale_run", kw_only=True)
    tonic: str = "C"
    scale: str = "major"
    shape: Shape = "there_and_back"
    octaves: Octaves = 2
    top: Literal["once", "twice"] = "once"

    def __post_init__(self) -> None:
        parse_tonic(self.tonic)
        scale_named(self.scale)
        if isinstance(self.octaves, int) and not 1 <= self.octaves <= MOST_OCTAVES:
            raise OutOfRange(f"A run spans 1 to {MOST_OCTAVES} octaves, not {self.octaves}.", field="material.octaves")

    @property
    def title(self) -> str:
        """What it is, in words: ``D melodic minor``."""
        return f"{show_tonic(self.tonic)} {scale_named(self.scale).name}"

    def span(self, division: Fraction) -> tuple[int, int]:
        """Return (octaves, times) of a pass at this division."""
        matching = max(1, ceil(division))
        match self.octaves:
            case "match":
                return matching, 1
            case "one_repeated":
                return 1, matching
            case octaves:
                return octaves, 1

    def pass_for(self, division: Fraction, instrument: Instrument) -> NotePass:
        """Return the notes of a leg at this division.

        With d notes an octave and k octaves, there and back, top once: 2dk
        notes, and the closing tonic is note N + 1. Top twice: 2dk + 2 with
        the tonic in it. One way: dk notes and the closing tonic.
        """
        octaves, times = self.span(division)
        scale = scale_named(self.scale)
        tonic = _seat(parse_tonic(self.tonic), octaves, instrument)
        steps, closing = _contour(scale.degrees * octaves, self.shape, self.top)
        notes = tuple(_pitch(tonic, scale, index, down) for index, down in steps)
        described = plural(octaves, "octave") + (f", {times} times" if times > 1 else "")
        return NotePass(notes * times, _pitch(tonic, scale, *closing) if closing else None, described)


def _contour(top: int, shape: Shape, turn: str) -> tuple[list[tuple[int, bool]], tuple[int, bool] | None]:
    """Return the degrees in order, each with whether it belongs to the way down, and the closing one."""
    up = [(index, False) for index in range(top)]
    down = [(index, True) for index in range(top, 0, -1)]
    low, high = (0, True), (top, False)
    match shape:
        case "up":
            return up, high
        case "down":
            return down, low
        case "there_and_back" if turn == "once":
            return up + down, low
        case "there_and_back":
            return [*up, high, *down, low], None
        case "back_and_there" if turn == "once":
            return down + up, high
        case _:
            return [*down, low, *up, high], None


def _pitch(tonic: Pitch, scale: Scale, index: int, down: bool) -> Pitch:
    letters, semitones = scale.degree(index, going_down=down)
    return above(tonic, letters, semitones)


def _seat(tonic: Pitch, octaves: int, instrument: Instrument) -> Pitch:
    """Return the tonic in the octave where the run starts on this instrument.

    At its home or within the octave above; lower while the top does not fit
    and the bottom still does.
    """
    octave = tonic.octave + ceil((instrument.home - tonic.midi) / 12)
    seated = Pitch(tonic.letter, tonic.alter, octave)
    while not instrument.holds(seated.midi + 12 * octaves) and instrument.holds(seated.midi - 12):
        seated = Pitch(seated.letter, seated.alter, seated.octave - 1)
    return seated
