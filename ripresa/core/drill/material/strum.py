"""Strumming: a progression of chords under a pattern that is typed as a count."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from math import lcm
from typing import Annotated, Literal

from ripresa.core.drill.material.count import LONGEST_TEXT, every_beat, filled_slots, place_in
from ripresa.core.drill.material.notes import NotePass
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import AS_WRITTEN, How, Pluck, Slot, chord_at, parse_progression
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import ALL_STRINGS, SPREAD, STRING_SETS, ChordSound, Instrument, voiced
from ripresa.core.rhythm import CountedBeat, Filled, Meter, parse_named, slot_word, there

#: Steps that a pattern may have: slots of a beat are halves, quarters and so on of it.
MOST_STEPS = 8
#: The ready patterns, in the order in which they are learnt: key → (count, name, why); four beats unless they say so.
PATTERNS: dict[str, tuple[str, str, str]] = {
    "quarters": ("1 2 3 4", "quarters", "Four strokes down: the chord change is the only thing to think of."),
    "eighths": ("1 & 2 & 3 & 4 &", "eighths", "The same arm, and it sounds on the way up too."),
    "mixed": ("1 2 & (3) & 4 &", "mixed", "The arm goes on; on 3 it passes the strings in the air."),
    "off_beats": ("(1) & (2) & (3) & (4) &", "off-beats alone", "Only the way up sounds; the beat is the student’s."),
    "backbeat": ("1 & >2 & 3 & >4 &", "backbeat", "2 and 4 weigh more: the arm falls deeper there, and no sooner."),
    "damped": ("1 & x2 & 3 & x4 &", "damped on 2 and 4", "The hand falls on the strings and lets nothing ring."),
    "sixteenths": ("1 e & a 2 (e) & a 3 (e) & a 4 e & (a)", "sixteenths", "Twice the arm; built up step by step."),
    "tide": ("1 (e) & a (2) e & a 3 (e) & a 4 (e) &", "sixteenths with holes", "The arm goes on through every hole."),
    "waltz": ("1 2 & 3 &", "for three beats", "Down, down up, down up: the 1 is long."),
    "six_eight": ("1 trip let 2 trip let", "for 6/8, all of it", "Two beats of three strokes each."),
    "six_eight_light": ("1 (trip) let 2 (trip) let", "for 6/8, with holes", "Long, short: the middle stroke is air."),
    "shuffle": (
        "1 (trip) let 2 (trip) let 3 (trip) let 4 (trip) let",
        "for 12/8, shuffle",
        "The arm alternates through threes; the middle one is air.",
    ),
    "seven": ("1 & 2 & 3 trip let", "for 7/8 as 2+2+3", "Two short beats and a long one: count 1 & 2 & 3 trip let."),
}


@dataclass(frozen=True, slots=True)
class Strum:
    """Chords under a pattern. It brings its own divisions, as a count does.

    Args:
        chords: Chord symbols with bar lines, as ``parse_progression`` takes them.
        pattern: A count of one bar or more, as ``parse_count`` takes it; it begins again
            where the progression is longer. A bar of it that is not full is held to its end.
        step: Up to which of its steps the pattern is played, from 1; 0 is all of it. Its steps are the strokes on the
            beats, then those that halve them, and so on; beyond its last it is all there. What is not there yet is a
            stroke in the air.
        strings: ``"all"`` for the usual grips, on keys close together; ``"spread"`` for keys; or a key of
            ``ripresa.core.pitch.STRING_SETS``.

    Raises:
        Unreadable: A word of the pattern cannot be read; the sentence says which. The chords are
            read with the meter, when the drill is.
        OutOfRange: The pattern is too long, or a step out of range.
    """

    kind: Literal["strum"] = field(default="strum", kw_only=True)
    chords: str = "C | Am | F | G"
    pattern: str = PATTERNS["mixed"][0]
    step: Annotated[int, Between(0, MOST_STEPS, "A pattern has steps up to {most}, not {value}.")] = 0
    strings: str = ALL_STRINGS

    def __post_init__(self) -> None:
        check_bounds(self, "material")
        if len(self.pattern) > LONGEST_TEXT:
            raise OutOfRange(
                f"A pattern has up to {LONGEST_TEXT} signs, not {len(self.pattern)}.", field="material.pattern"
            )
        self._said()
        if self.strings not in {ALL_STRINGS, SPREAD, *STRING_SETS}:
            raise OutOfRange(
                f"“{self.strings}” is no set of strings. Use {ALL_STRINGS}, on keys {SPREAD}, or one of "
                f"{', '.join(STRING_SETS)}.",
                field="material.strings",
            )

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
        sounds = {
            chord: voiced(chord, instrument, strings=self.strings)
            for chord in dict.fromkeys(span.chord for span in spans if not span.chord.is_none)
        }
        pattern = self.bars(meter)
        count = int(meter.bars_passed(spans[-1].end))
        played = (beat._replace(bar=bar + 1) for bar in range(count) for beat in pattern[bar % len(pattern)])
        slots: list[Slot] = []
        for beat, number, kind, filled in filled_slots(played):
            now = chord_at(spans, place_in(meter, beat, number))
            if now.is_none:
                kind = "rest"
            chord = sounds[now] if kind == "note" else None
            how = How(plucks=_plucks(chord), dead=filled.dead) if chord else AS_WRITTEN
            slots.append(Slot(Fraction(beat.division), number, kind, None, filled.accent, chord, how=how))
        notes = sum(slot.kind == "note" for slot in slots)
        return NotePass((None,) * notes, described=plural(count, "bar"), rhythm=tuple(slots))

    @property
    def steps(self) -> tuple[tuple[str, ...], ...]:
        """The strokes that are new in each step, as they are typed: on the beats, on what halves them, and on.

        >>> Strum(pattern="1 & a 2 (3) 4 &").steps
        (('1', '2', '4'), ('1 &', '4 &'), ('1 a',))
        """
        return tuple(tuple(dict.fromkeys(words)) for _, words in _by_fineness(self._typed()))

    def _typed(self) -> tuple[CountedBeat, ...]:
        return parse_named(self.pattern, "the pattern", "material.pattern")

    def _said(self) -> tuple[CountedBeat, ...]:
        """Return the pattern as far as its step goes; what comes later is silent."""
        said = self._typed()
        if not self.step:
            return said
        kept = {fineness for fineness, _ in _by_fineness(said)[: self.step]}
        return tuple(
            beat._replace(
                slots=tuple(
                    filled._replace(kind="rest", accent=None, dead=False)
                    if filled.kind == "note" and _fineness(beat, number) not in kept
                    else filled
                    for number, filled in enumerate(beat.slots)
                )
            )
            for beat in said
        )

    def bars(self, meter: Meter) -> list[list[CountedBeat]]:
        """Return every bar of the pattern with all beats of the meter, on grids that agree.

        Where meters take turns the pattern is laid over all of them in turn before it begins again.

        Raises:
            OutOfRange: A bar of it has more beats than the meter.
        """
        said = there(self._said(), meter.beats_of)
        bars = said[-1].bar
        laid = [
            beat._replace(bar=number)
            for number in range(1, lcm(bars, len(meter.bars)) + 1)
            for beat in said
            if beat.bar == (number - 1) % bars + 1
        ]
        last = laid[-1]
        if last.beat < len(meter.beats_of(last.bar)):
            laid.append(CountedBeat(last.bar, len(meter.beats_of(last.bar)), 1, (Filled(),)))
        full = every_beat(laid, meter, "the pattern", "material.pattern")
        return [[beat for beat in full if beat.bar == bar] for bar in range(1, last.bar + 1)]


def _fineness(beat: CountedBeat, number: int) -> int:
    """Return the smallest division of the beat that has a slot: 1 on it, 2 for &, 4 for e and a, 3 for trip."""
    return Fraction(number, beat.division).denominator


def _by_fineness(said: Sequence[CountedBeat]) -> list[tuple[int, list[str]]]:
    """Return each fineness that has strokes, from the beats on, with its strokes as they are typed."""
    found: dict[int, list[str]] = {}
    for beat in said:
        for number, filled in enumerate(beat.slots):
            if filled.kind == "note":
                word = slot_word(Fraction(beat.division), beat.beat, number)
                found.setdefault(_fineness(beat, number), []).append(f"{beat.beat} {word}" if number else word)
    return sorted(found.items())


def _plucks(chord: ChordSound) -> tuple[Pluck, ...]:
    return tuple(Pluck(string, fret) for string, fret in chord.shape.sounding) if chord.shape else ()


KIND = Kind(Strum(), "the chords", "Strummed: a progression under a pattern that is typed as a count.")
