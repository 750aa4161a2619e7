"""Strumming: a progression of chords under a pattern that is typed as a count."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from math import lcm
from typing import Literal

from ripresa.core.drill.material.count import LONGEST_TEXT, every_beat, filled_slots, place_in
from ripresa.core.drill.material.notes import NotePass
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.grid import Slot, chord_at, parse_progression
from ripresa.core.kind import Kind
from ripresa.core.pitch import Instrument, voiced
from ripresa.core.rhythm import CountedBeat, Meter, parse_named

#: The ready patterns for four beats, in the order in which they are learnt: key → (count, name, why).
PATTERNS: dict[str, tuple[str, str, str]] = {
    "quarters": ("1 2 3 4", "quarters", "Four strokes down: the chord change is the only thing to think of."),
    "eighths": ("1 & 2 & 3 & 4 &", "eighths", "The same arm, and it sounds on the way up too."),
    "mixed": ("1 2 & (3) & 4 &", "mixed", "The arm goes on; on 3 it passes the strings in the air."),
    "off_beats": ("(1) & (2) & (3) & (4) &", "off-beats alone", "Only the way up sounds; the beat is the student’s."),
}


@dataclass(frozen=True, slots=True)
class Strum:
    """Chords under a pattern. It brings its own divisions, as a count does.

    Args:
        chords: Chord symbols with bar lines, as ``parse_progression`` takes them.
        pattern: A count of one bar or more, as ``parse_count`` takes it; it begins again
            where the progression is longer. A bar of it that is not full is held to its end.

    Raises:
        Unreadable: A word of the pattern cannot be read; the sentence says which. The chords are
            read with the meter, when the drill is.
        OutOfRange: The pattern is too long.
    """

    kind: Literal["strum"] = field(default="strum", kw_only=True)
    chords: str = "C | Am | F | G"
    pattern: str = PATTERNS["mixed"][0]

    def __post_init__(self) -> None:
        if len(self.pattern) > LONGEST_TEXT:
            raise OutOfRange(
                f"A pattern has up to {LONGEST_TEXT} signs, not {len(self.pattern)}.", field="material.pattern"
            )
        self._said()

    @property
    def title(self) -> str:
        """What it is, in words."""
        short = self.chords if len(self.chords) <= 40 else self.chords[:39] + "…"
        return f"strumming {short}"

    @property
    def own_division(self) -> Fraction:
        """Most slots of any beat of the pattern."""
        return Fraction(max(beat.division for beat in self._said()))

    def pass_for(self, _divisions: Sequence[Fraction], instrument: Instrument, meter: Meter) -> NotePass:
        """Return the pattern over every bar of the progression, each stroke with its chord.

        What the pattern does not say is the held part of the stroke before.

        Raises:
            Unreadable: A chord cannot be read, or a bar does not come out even.
            OutOfRange: A bar of the pattern has more beats than the meter.
        """
        spans = parse_progression(self.chords, meter)
        sounds = {chord: voiced(chord, instrument) for chord in dict.fromkeys(span.chord for span in spans)}
        pattern = self._bars(meter)
        count = int(meter.bars_passed(spans[-1].end))
        played = (beat._replace(bar=bar + 1) for bar in range(count) for beat in pattern[bar % len(pattern)])
        slots: list[Slot] = []
        for beat, number, kind, accent in filled_slots(played):
            chord = sounds[chord_at(spans, place_in(meter, beat, number))] if kind == "note" else None
            slots.append(Slot(Fraction(beat.division), number, kind, None, accent, chord))
        notes = sum(slot.kind == "note" for slot in slots)
        return NotePass((None,) * notes, described=plural(count, "bar"), rhythm=tuple(slots))

    def _said(self) -> tuple[CountedBeat, ...]:
        return parse_named(self.pattern, "the pattern", "material.pattern")

    def _bars(self, meter: Meter) -> list[list[CountedBeat]]:
        """Return every bar of the pattern with all beats of the meter, on grids that agree.

        Where meters take turns the pattern is laid over all of them in turn before it begins again.
        """
        said = self._said()
        bars = said[-1].bar
        laid = [
            beat._replace(bar=number)
            for number in range(1, lcm(bars, len(meter.bars)) + 1)
            for beat in said
            if beat.bar == (number - 1) % bars + 1
        ]
        last = laid[-1]
        if last.beat < len(meter.beats_of(last.bar)):
            laid.append(CountedBeat(last.bar, len(meter.beats_of(last.bar)), 1, ((None, None),)))
        full = every_beat(laid, meter, "the pattern", "material.pattern")
        return [[beat for beat in full if beat.bar == bar] for bar in range(1, last.bar + 1)]


KIND = Kind(Strum(), "the chords", "Strummed: a progression under a pattern that is typed as a count.")
