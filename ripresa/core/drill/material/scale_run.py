"""Scale runs: a scale over so many octaves, in a shape, with a turn-round."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.run import Shape, Span, Top, check_start, run_pass, spanned
from ripresa.core.exact import Fraction, plural
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import Instrument, Scale, parse_degrees, parse_tonic, scale_named, show_tonic
from ripresa.core.rhythm import Meter

MOST_OCTAVES = 8
#: The key of a scale whose steps are written out.
OWN = "own"


#: Octaves that are no number → how they are called, and why one would choose them.
NAMED_OCTAVES: dict[str, tuple[str, str]] = {
    "match": ("as many octaves as notes per beat", "Every leg then lasts the same beats."),
    "one_repeated": (
        "one octave, as many times as notes per beat",
        "The same beats as matching octaves, where the range ends.",
    ),
    "range": (
        "the whole range",
        "From its first note to the highest that the instrument has, down to the lowest, and back.",
    ),
}


def octaves_words(octaves: int | str) -> str:
    """Return octaves as a brief has them.

    >>> octaves_words(2), octaves_words("match")
    ('2 octaves', 'as many octaves as notes per beat')
    """
    return plural(octaves, "octave") if isinstance(octaves, int) else NAMED_OCTAVES[octaves][0]


@dataclass(frozen=True, slots=True)
class ScaleRun:
    """A scale played over some octaves.

    Args:
        tonic: ``"D"``, ``"Eb"``, ``"F#"``.
        scale: Key of a scale in ``ripresa.core.pitch.SCALES``.
        shape: Up, down, there and back, back and there.
        octaves: 1 to 8; ``"match"``: as many as there are notes per beat;
            ``"one_repeated"``: one octave as many times as notes per beat,
            which takes the same beats; ``"range"``: all that the instrument has, from the start to its ends and back.
        top: Whether the turning note is played once or twice.
        start: Degree on which it starts, from 1; a run there and back then goes round as a circle.
        own: With the scale ``"own"``: its degrees, ``"1 b2 3 4 5 b6 7"``.

    Raises:
        Unreadable: The tonic is not one, or own steps cannot be read.
        OutOfRange: An unknown scale, or octaves or a degree out of range.
    """

    kind: Literal["scale_run"] = field(default="scale_run", kw_only=True)
    tonic: str = "C"
    scale: str = "major"
    shape: Shape = "there_and_back"
    octaves: Annotated[Span, Between(1, MOST_OCTAVES, "A run spans {least} to {most} octaves, not {value}.")] = 2
    top: Top = "once"
    start: int = 1
    own: str = ""

    def __post_init__(self) -> None:
        parse_tonic(self.tonic)
        check_start(self.start, self.tones)
        check_bounds(self, "material")

    @property
    def tones(self) -> Scale:
        """The scale, with own steps read."""
        if self.scale != OWN:
            return scale_named(self.scale)
        steps = parse_degrees(self.own)
        return Scale("own steps", steps, steps)

    @property
    def title(self) -> str:
        """What it is, in words: ``D melodic minor``."""
        return f"{show_tonic(self.tonic)} {self.tones.name}"

    @property
    def own_division(self) -> None:
        """It has no rhythm of its own: the legs give it."""
        return None

    def pass_for(self, divisions: Sequence[Fraction], instrument: Instrument, _meter: Meter) -> NotePass:
        """Return the notes of a leg at these divisions, of which the fastest says how many octaves match.

        With d notes an octave and k octaves, there and back, top once: 2dk
        notes, and the closing tonic is note N + 1. Top twice: 2dk + 2 with
        the tonic in it. One way: dk notes and the closing tonic.
        """
        octaves, times, described = spanned(self.octaves, divisions)
        notes, closing = run_pass(
            parse_tonic(self.tonic), self.tones, octaves, self.shape, self.top, self.start, instrument
        )
        return NotePass(notes * times, closing, described)


KIND = Kind(ScaleRun(), "the scale of", "A run through a scale, over so many octaves.")
