"""Chords of a progression: together, or broken from the lowest tone up."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import ClassVar, Literal

from ripresa.core.drill.second.first import First, filled, held
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Place, Touch, altered, parse_progression, span_at
from ripresa.core.kind import Kind
from ripresa.core.pitch import Chord, ChordSound, Pitch, close_position

Figure = Literal["together", "broken", "rising", "root_and_fifth"]

#: Figure → which tones in turn, from the root as 0; its name, and why one would choose it.
FIGURES: dict[Figure, tuple[tuple[int, ...], str, str]] = {
    "together": ((), "together", "Held; struck anew on each bar line."),
    "broken": ((0, 2, 1, 2), "broken, low high middle high", "The usual broken bass: the hand stays where it is."),
    "rising": ((0, 1, 2, 1), "broken, low middle high middle", "Up and back through the chord."),
    "root_and_fifth": ((0, 2), "root and fifth in turn", "The plainest bass under a tune."),
}
LONGEST_TEXT = 1000
#: The lowest root of a broken bass: G under the bass staff’s middle, so that all stay under middle C or near it.
_LOWEST = 43
#: Semitones of a fourth.
_FOURTH = 5
_OCTAVE = 12
#: Letters from a root to its fifth.
_LETTERS_TO_FIFTH = 4
_FIELD = "second.plays.chords"


@dataclass(frozen=True, slots=True)
class ChordsBelow:
    """A progression under the first hand; it begins again by itself, and with each leg.

    Args:
        chords: Symbols with bar lines, as ``parse_progression`` takes them.
        figure: Together, or which way broken.

    Raises:
        OutOfRange: It is too long. The chords are read with the meter, when the drill is.
    """

    #: Whether it has the rhythm of the first hand where none of its own is written.
    follows: ClassVar[bool] = False
    kind: Literal["chords"] = field(default="chords", kw_only=True)
    chords: str = "C | F | G7 | C"
    figure: Figure = "broken"

    def __post_init__(self) -> None:
        if len(self.chords) > LONGEST_TEXT:
            raise OutOfRange(f"Chords have up to {LONGEST_TEXT} signs, not {len(self.chords)}.", field=_FIELD)

    def fill(self, places: Sequence[Place], first: First) -> list[Place]:
        """Return the places with the chords in them.

        Raises:
            Unreadable: A chord cannot be read, or a bar does not come out even.
        """
        spans = parse_progression(self.chords, first.meter, _FIELD)
        length = spans[-1].end
        order, _, _ = FIGURES[self.figure]
        found: list[Place] = []
        before: object = None
        count = 0
        for place in places:
            if place.kind != "note":
                found.append(held(place) if place.kind == "hold" else place)
                continue
            at = (place.onset - first.start) % length
            span = span_at(spans, at)
            if span.chord.is_none:
                before = None
                found.append(altered(held(place), kind="rest"))
                continue
            # A figure begins again with each chord and each bar; what is held is struck anew there.
            stretch = (span.start, (place.onset - first.start) // length, place.bar)
            is_new, before = stretch != before, stretch
            count = 0 if is_new else count + 1
            tones = close_position(span.chord, _LOWEST)
            if order:
                turn = order if self.figure != "root_and_fifth" else _root_and_fifth(span.chord, tones)
                tone = turn[count % len(turn)] % len(tones)
                # The chord is named where one of its tones is played.
                named = filled(place, tones[tone], ChordSound(span.chord.shown, ()))
                found.append(altered(named, touch=Touch(_fingers(tones)[tone])))
            else:
                found.append(filled(place, None, ChordSound(span.chord.shown, tones)) if is_new else held(place))
        return found


def _root_and_fifth(chord: Chord, tones: tuple[Pitch, ...]) -> tuple[int, ...]:
    """Return which of the tones are the root and the fifth, whatever its bass is; one where the other is not."""
    fifth = next((over for steps, over in chord.tones.up if steps == _LETTERS_TO_FIFTH), None)
    wanted = [chord.root.midi % _OCTAVE] + ([(chord.root.midi + fifth) % _OCTAVE] if fifth is not None else [])
    return tuple(place for one in wanted for place, tone in enumerate(tones) if tone.midi % _OCTAVE == one)


def _fingers(tones: tuple[Pitch, ...]) -> tuple[int, ...]:
    """Return the fingers of the left hand on a chord, its lowest tone first: 5 3 1, or 5 2 1 over a fourth.

    As piano schools have it for triads; with four tones 5 3 2 1.
    """
    if len(tones) > 3:
        return (5, 3, 2, *(1,) * (len(tones) - 3))
    return (5, 2 if tones[1].midi - tones[0].midi >= _FOURTH else 3, 1)


KIND = Kind(ChordsBelow(), "accompanies with chords", "A progression below: together, or broken.")
