"""Picked patterns: fingers over the strings of chords, the thumb on the bass."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import cycle
from typing import Literal

from ripresa.core.drill.material.count import every_beat, filled_slots, place_in
from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.picked_text import Pick, parse_pattern
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import (
    ChordSpan,
    Cursor,
    How,
    Pluck,
    Slot,
    Touch,
    altered,
    parse_progression,
    slot_numbers,
    span_at,
)
from ripresa.core.kind import Kind
from ripresa.core.pitch import INSTRUMENTS, SPAN, Chord, ChordSound, Instrument, Shape, on_string, voiced
from ripresa.core.rhythm import Level, Meter, SlotKind, parse_named

Bass = Literal["root", "root_and_fifth"]
Again = Literal["bar", "chord", "never"]

BASSES: dict[Bass, tuple[str, str]] = {
    "root": ("the bass", "The lowest string of the shape, every time."),
    "root_and_fifth": ("root and fifth in turn", "An alternating bass: the thumb keeps two strings going."),
}
AGAINS: dict[Again, tuple[str, str]] = {
    "bar": ("begins again each bar", "The same bar feels the same, whatever the chord."),
    "chord": ("begins again with each chord", "The thumb meets every change."),
    "never": ("runs on", "A pattern that does not fit the bar wanders through it."),
}
#: Ready patterns: pattern → (name, why).
PICKS: dict[str, tuple[str, str]] = {
    "p i m a": ("rising", "From the bass to the thinnest string: a finger for each."),
    "p i m a m i": ("up and back", "Six notes: the rolling of 6/8 and of triplets."),
    "p i m i": ("bass and two", "Three strings, and the thumb has time."),
    "p i m a p i m i": ("rising, then back", "The thumb twice in a bar of eighths."),
    "p i p m": ("thumb and finger in turn", "The thumb keeps the beat, a finger answers on the off-beat."),
    "p+a i m i": ("bass with the tune", "Thumb and ring finger together, the rest inside."),
    "bass strum bass strum": ("bass and strum", "The bass on 1 and 3, the chord on 2 and 4."),
    "p a1 m1 i1": ("tremolo", "One string, three fingers: it should sound like one long note."),
    "roll - - -": ("rolled", "Several fingers, one after the other, and it rings."),
}
LONGEST_TEXT = 1000
#: Strings that belong to the three fingers; thicker ones are the thumb’s.
_FINGER_STRINGS = 3


@dataclass(frozen=True, slots=True)
class Picked:
    """A pattern of fingers through a progression.

    Args:
        chords: Chord symbols with bar lines, as ``parse_progression`` takes them; with a grip where another than the
            usual one is meant: ``Am=x02210``.
        pattern: Words as ``parse_pattern`` takes them, a word a note.
        bass: What the thumb plays where no string is written.
        again: When the pattern begins anew.
        rhythm: A count of one bar or more that says when a word is due; empty: one on each slot of the divisions.

    Raises:
        Unreadable: A word of the pattern or the rhythm cannot be read.
        OutOfRange: They are too long. The chords are read with the meter, when the drill is.
    """

    kind: Literal["picked"] = field(default="picked", kw_only=True)
    chords: str = "Am | F | C | G"
    pattern: str = "p i m a"
    bass: Bass = "root_and_fifth"
    again: Again = "bar"
    rhythm: str = ""

    def __post_init__(self) -> None:
        for name in ("chords", "pattern", "rhythm"):
            if len(getattr(self, name)) > LONGEST_TEXT:
                raise OutOfRange(f"This has up to {LONGEST_TEXT} signs.", field=f"material.{name}")
        parse_pattern(self.pattern)
        if self.rhythm.strip():
            parse_named(self.rhythm, "the rhythm", "material.rhythm")

    @property
    def title(self) -> str:
        """What it is, in words."""
        short = self.chords if len(self.chords) <= 30 else self.chords[:29] + "…"
        return f"picking {self.pattern} through {short}"

    @property
    def own_division(self) -> Fraction | None:
        """Most slots of any beat of its rhythm; None where the divisions of the legs say it."""
        if not self.rhythm.strip():
            return None
        return Fraction(max(beat.division for beat in parse_named(self.rhythm, "the rhythm", "material.rhythm")))

    def pass_for(self, divisions: Sequence[Fraction], instrument: Instrument, meter: Meter) -> NotePass:
        """Return the pattern over the whole progression, each note on the strings of its chord.

        Raises:
            Unreadable: A chord cannot be read, or a bar does not come out even.
            OutOfRange: A string that a finger asks for does not sound, or the instrument has no strings.
        """
        spans = parse_progression(self.chords, meter)
        played = with_strings(instrument)
        picks = parse_pattern(self.pattern)
        needed = len({finger for pick in picks for finger, string in pick.fingers if finger != "p" and string is None})
        chords = dict.fromkeys(span.chord for span in spans if not span.chord.is_none)
        hands = {chord: _Hand.of(chord, played, self.bass, needed) for chord in chords}
        slots: list[Slot] = []
        words: Iterator[Pick] = iter(())
        stretch: object = None
        thumbs = dict.fromkeys(hands, 0)
        for at, division, number, kind, accent in self._places(divisions, spans[-1].end, meter):
            span = span_at(spans, at)
            if kind != "note" or span.chord.is_none:
                slots.append(Slot(division, number, "rest" if span.chord.is_none else kind))
                continue
            now = self._stretch(at, span, meter)
            if now != stretch:
                stretch, words = now, cycle(picks)
                thumbs = dict.fromkeys(hands, 0)
            pick = next(words)
            slot, used = hands[span.chord].slot(pick, thumbs[span.chord], division, number)
            thumbs[span.chord] += used
            slots.append(altered(slot, accent=accent) if accent and slot.kind == "note" else slot)
        _check_begins(slots)
        notes = tuple(slot.pitch for slot in slots if slot.kind == "note")
        bars = plural(meter.bars_passed(spans[-1].end), "bar")
        return NotePass(notes, described=bars, rhythm=tuple(slots), goes_on=False)

    def _stretch(self, at: Fraction, span: ChordSpan, meter: Meter) -> object:
        match self.again:
            case "never":
                return 0
            case "bar":
                return meter.place(at)[0]
            case "chord":
                return span.start

    def _places(
        self, divisions: Sequence[Fraction], end: Fraction, meter: Meter
    ) -> Iterator[tuple[Fraction, Fraction, int, SlotKind, Level | None]]:
        """Yield (position, division, slot, kind, accent) of each place of the pass."""
        if not self.rhythm.strip():
            cursor = Cursor(meter)
            for division, number in slot_numbers(divisions):
                if cursor.at >= end:
                    return
                yield cursor.at, division, number, "note", None
                cursor.lay(0, Slot(division, number))
        said = every_beat(
            parse_named(self.rhythm, "the rhythm", "material.rhythm"), meter, "the rhythm", "material.rhythm"
        )
        bars = said[-1].bar
        count = int(meter.bars_passed(end))
        full = [beat._replace(bar=bar + 1) for bar in range(count) for beat in said if beat.bar == bar % bars + 1]
        for beat, number, kind, filled in filled_slots(every_beat(full, meter, "the rhythm", "material.rhythm")):
            yield place_in(meter, beat, number), Fraction(beat.division), number, kind, filled.accent


def with_strings(instrument: Instrument) -> Instrument:
    """Return an instrument with strings: itself, or the guitar where any will do.

    Raises:
        OutOfRange: It is another one, without strings.
    """
    if instrument.strings:
        return instrument
    if instrument != INSTRUMENTS["any"]:
        raise OutOfRange(
            f"This is played on strings, and {instrument.name} has none. Choose the guitar, the bass guitar or the "
            "ukulele.",
            field="instrument",
        )
    return INSTRUMENTS["guitar"]


@dataclass(frozen=True, slots=True)
class _Hand:
    """Where the fingers lie on a chord.

    Args:
        thumb: (String, fret) of the thumb in turn. fingers: Finger → string.
    """

    chord: Chord
    instrument: Instrument
    sound: ChordSound
    shape: Shape
    thumb: tuple[tuple[int, int], ...]
    fingers: dict[str, int]

    @classmethod
    def of(cls, chord: Chord, instrument: Instrument, bass: Bass, needed: int) -> "_Hand":
        """Return the fingers on a chord: thumb on its bass, the others on the thinnest strings that it leaves.

        Args:
            needed: How many fingers of the pattern want a string each.
        """
        sound = voiced(chord, instrument)
        assert sound.shape
        strings = [string for string, _ in sound.shape.sounding]
        in_order = list(instrument.strings) == sorted(instrument.strings)
        # Where the thickest string is not the lowest, as on a ukulele, it is the thumb's all the same.
        low = min(sound.shape.sounding, key=lambda where: instrument.fretted(*where) if in_order else -where[0])
        thumb = (low, _fifth(chord, sound.shape, instrument, low, needed)) if bass == "root_and_fifth" else (low,)
        under = min(string for string, _ in thumb)
        free = [string for string in strings if string < under][-_FINGER_STRINGS:] or strings[-1:]
        names = "ima"
        fingers = {name: free[min(index, len(free) - 1)] for index, name in enumerate(names)}
        fingers["c"] = free[-1]
        return cls(chord, instrument, sound, sound.shape, thumb, fingers)

    def slot(self, pick: Pick, thumbs: int, division: Fraction, number: int) -> tuple[Slot, int]:
        """Return what a word comes to on this chord, and how often its thumb plays in it."""
        if pick.what in {"rest", "hold"}:
            return Slot(division, number, "rest" if pick.what == "rest" else "hold"), 0
        frets = {**dict(self.thumb), **dict(self.shape.sounding)}
        if pick.what != "fingers":
            plucks = tuple(Pluck(string, fret) for string, fret in self.shape.sounding)
            stroke = {"strum": "D", "roll": "p+i+m+a", "dead": "x"}[pick.what]
            how = How(stroke, plucks, dead=pick.what == "dead", rolled=pick.what == "roll")
            return Slot(division, number, "note", None, pick.accent, self.sound, how=how), 0
        plucks = tuple(
            Pluck(string, self._fret(frets, string, pick), finger)
            for finger, string in sorted(self._strings(pick, thumbs), key=lambda one: -one[1])
        )
        pitches = [on_string(self.chord, self.instrument, one.string, one.fret) for one in plucks]
        how = How("+".join(finger for finger, _ in pick.fingers), plucks)
        touch = self._touch(plucks[0]) if len(plucks) == 1 else None
        alone = pitches[0] if len(pitches) == 1 else None
        # Two strings in unison are one tone.
        tones = () if alone else tuple({one.midi: one for one in sorted(pitches, key=lambda one: one.midi)}.values())
        chord = ChordSound(self.sound.symbol, tones, self.shape)
        slot = Slot(division, number, "note", alone, pick.accent, chord, touch=touch, how=how)
        return slot, sum(finger == "p" and string is None for finger, string in pick.fingers)

    def _strings(self, pick: Pick, thumbs: int) -> Iterator[tuple[str, int]]:
        for finger, string in pick.fingers:
            if string is not None:
                yield finger, string
            elif finger == "p":
                yield finger, self.thumb[thumbs % len(self.thumb)][0]
            else:
                yield finger, self.fingers[finger]

    def _fret(self, frets: dict[int, int], string: int, pick: Pick) -> int:
        if string not in frets:
            strings = ", ".join(str(one) for one in sorted(frets))
            raise OutOfRange(
                f"“{pick.word}” asks for string {string}, which does not sound in {self.chord.shown} "
                f"({self.shape.text}). Take one of {strings}, or type another grip.",
                field="material.pattern",
            )
        return frets[string]

    def _touch(self, pluck: Pluck) -> Touch:
        finger = self.shape.fingers[len(self.shape.frets) - pluck.string]
        if pluck.fret and not finger:
            # A finger that goes over for the bass: the one that holds the root, where it stays in its fret.
            root, fret = self.thumb[0]
            same = self.shape.fingers[len(self.shape.frets) - root] if fret == pluck.fret else 0
            finger = same or min(4, max(1, pluck.fret - self.shape.base + 1))
        return Touch(finger, pluck.string, pluck.fret, self.shape.base)


def _check_begins(slots: Sequence[Slot]) -> None:
    if slots and slots[0].kind == "hold":
        raise OutOfRange(
            "The pattern begins with what is held, and nothing sounds yet. Begin with a finger, or with r for a rest.",
            field="material.pattern",
        )


def _fifth(chord: Chord, shape: Shape, instrument: Instrument, low: tuple[int, int], needed: int) -> tuple[int, int]:
    """Return the thumb’s other place: the fifth of the chord on a thick string, in the grip or where a finger reaches.

    A thin string with the fifth is taken only where no finger needs it; else the thumb stays.
    """
    over = next((semitones for steps, semitones in chord.tones.up if steps == 4), 7)
    held = [fret for _, fret in shape.sounding if fret] or [1]
    sounding = dict(shape.sounding)
    ways: list[tuple[bool, bool, int, tuple[int, int]]] = []
    for string in range(1, len(instrument.strings) + 1):
        gripped = sounding.get(string)
        reached = [0, *range(max(1, max(held) - SPAN + 1), min(min(held) + SPAN, instrument.frets + 1))]
        for fret in [gripped] if gripped is not None else reached:
            is_fifth = (instrument.fretted(string, fret) - chord.root.midi) % 12 == over
            if is_fifth and string != low[0] and (string > _FINGER_STRINGS or string > needed):
                ways.append((string <= _FINGER_STRINGS, gripped is None, abs(string - low[0]), (string, fret)))
    return min(ways)[3] if ways else low


KIND = Kind(Picked(), "a picked pattern over", "Fingers on the strings of chords: p i m a, the thumb on the bass.")
