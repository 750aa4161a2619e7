"""A line: a phrase typed note by note, or read from a file."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from itertools import groupby
from math import ceil, floor, lcm
from typing import Literal

from ripresa.core.drill.material.line_text import Degree, LineNote, parse_line
from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.onto_beats import Sound, onto_beats
from ripresa.core.drill.material.run import seat
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Exact, Fraction, label, plural
from ripresa.core.grid import Slot, altered, parse_progression, slot_numbers
from ripresa.core.kind import Kind
from ripresa.core.pitch import SCALES, Chord, ChordSound, Instrument, Pitch, Scale, above, parse_tonic
from ripresa.core.rhythm import Meter

Rhythm = Literal["legs", "own"]
After = Literal["open", "home", "bar"]
Fit = Literal["root", "as_it_is", "scale", "tone"]

LONGEST_TEXT = 20_000
FARTHEST_SHIFT = 256
MOST_SOUNDS = 20_000
RHYTHMS: dict[Rhythm, tuple[str, str]] = {
    "legs": ("one note a slot", "The line steps through the divisions; *2 lasts two slots."),
    "own": ("in its own rhythm", "Lengths are beats: *1/2 is half a beat, and holds until another is written."),
}
AFTERS: dict[After, tuple[str, str]] = {
    "open": ("left open", "It ends where it ends; what is missing to the bar line is told."),
    "home": ("again until it comes home", "An odd line enters at another place each time, until it is back on 1."),
    "bar": ("and on to the bar line", "It begins again, and is cut off where the bar is full."),
}
FITS: dict[Fit, tuple[str, str]] = {
    "root": ("moved from root to root", "Each statement as it is, on the root of its chord."),
    "as_it_is": ("as it is", "Not a note is moved: the ear hears what each chord makes of it."),
    "scale": (
        "within the chord’s scale",
        "From root to root, and each note into the scale that is usual over the chord.",
    ),
    "tone": ("to the nearest chord tone", "It stays where it lies; what is no tone of the chord goes to the nearest."),
}


@dataclass(frozen=True, slots=True)
class Line:
    """A phrase, as ``parse_line`` takes it.

    Args:
        text: Its notes, up to 20,000 signs.
        tonic: What degrees count from, and what a progression moves.
        rhythm: Whether a length of 1 is a slot of the legs' divisions, or a beat.
        after: What happens when it is over: left open, again until home, or on to the bar line.
        shift: Slots (or beats, in its own rhythm) by which it is moved, later above 0; −256 to 256.
        around: Whether what is moved over the end comes round to the start; else there is silence
            before it, or it begins as a pickup.
        through: A progression that it is taken through; empty for none.
        fit: What becomes of its notes on each chord of it.
        stage_shifts: By how much it is moved in each leg after the first, where that is not by ``shift``.

    Raises:
        Unreadable: A word or the tonic cannot be read.
        OutOfRange: It is too long, moved too far, or has a length that is no whole slot.
    """

    kind: Literal["line"] = field(default="line", kw_only=True)
    text: str = "1 2 3 5 4 3"
    tonic: str = "C"
    rhythm: Rhythm = "legs"
    after: After = "open"
    shift: Exact = Fraction(0)
    around: bool = False
    through: str = ""
    fit: Fit = "root"
    stage_shifts: tuple[Exact, ...] = ()

    def __post_init__(self) -> None:
        parse_tonic(self.tonic)
        if len(self.text) > LONGEST_TEXT:
            raise OutOfRange(f"A line has up to {LONGEST_TEXT:,} signs, not {len(self.text):,}.", field="material.text")
        for shift in self.shifts:
            if abs(shift) > FARTHEST_SHIFT:
                raise OutOfRange(
                    f"A line is moved by up to {FARTHEST_SHIFT} {self.unit}s, not {label(shift)}.",
                    field="material.shift",
                )
        if self.rhythm == "own":
            parse_line(self.text)
            return
        for shift in self.shifts:
            if shift.denominator > 1:
                raise OutOfRange(f"A line is moved by whole slots, not {label(shift)}.", field="material.shift")
        for note in self.played:
            if note.length.denominator > 1:
                raise OutOfRange(
                    f"“{note.word}*{note.length}” lasts no whole slot. Take “{RHYTHMS['own'][0]}”, where lengths are "
                    "beats, or whole lengths such as *2.",
                    field="material.text",
                )

    @property
    def played(self) -> tuple[LineNote, ...]:
        """Its words that take time: all but those that were cut."""
        return _played(self.text)

    @property
    def shifts(self) -> tuple[Fraction, ...]:
        """By how much it is moved in each leg; legs that are left are moved by the first."""
        return (self.shift, *self.stage_shifts)

    def of_leg(self, index: int) -> "Line":
        """Return the line as it is moved in a leg, by its number from 0."""
        return replace(self, shift=self.shifts[index] if index < len(self.shifts) else self.shift, stage_shifts=())

    @property
    def length(self) -> Fraction:
        """Slots or beats of one statement."""
        return sum((note.length for note in self.played), Fraction(0))

    @property
    def tones(self) -> Scale:
        """The scale that its degrees count in."""
        return SCALES["major"]

    @property
    def title(self) -> str:
        """What it is, in words."""
        short = self.text if len(self.text) <= 40 else self.text[:39] + "…"
        return f"the line {short}"

    @property
    def own_division(self) -> Fraction | None:
        """Most notes per beat of a line in its own rhythm, were every beat as long as the first; else None."""
        return 1 / min(note.length for note in self.played) if self.rhythm == "own" else None

    @property
    def unit(self) -> str:
        """What its lengths count: slots or beats."""
        return "slot" if self.rhythm == "legs" else "beat"

    def units_at(self, position: Fraction, divisions: Sequence[Fraction], meter: Meter) -> Fraction:
        """Return a position in beats of the bpm in units of the line: the number of the slot there, or beats."""
        return _slot_at(position, divisions, meter) if self.rhythm == "legs" else position

    def pass_for(self, divisions: Sequence[Fraction], instrument: Instrument, meter: Meter) -> NotePass:
        """Return the line on one leg: slot by slot where the legs give the rhythm, else beat by beat.

        Raises:
            Unreadable: A chord cannot be read, or a bar of the line does not come out even.
            OutOfRange: It would become too long, or a beat would need too many slots.
        """
        tonic = seat(parse_tonic(self.tonic), 1, instrument)
        to_home = _slots_to_home(divisions, meter) if self.rhythm == "legs" else meter.cycle_beats
        if self.through:
            sounds, end, count = self._through(tonic, divisions, instrument, meter)
        else:
            sounds, end, count = self._statements(tonic, to_home)
        if end > MOST_SOUNDS:
            raise OutOfRange(
                f"This line lasts {label(end)} {self.unit}s, and up to {MOST_SOUNDS:,} can be laid out. Shorten it.",
                field="material.text",
            )
        sounds, end = self._moved(sounds, end, to_home)
        if self.rhythm == "own":
            pickup = self._pickup(meter)
            rhythm = onto_beats([Sound(Fraction(0), "rest"), *_later(sounds, pickup)], end + pickup, meter)
        else:
            rhythm = _onto_slots(sounds, end, divisions)
        notes = tuple(slot.pitch for slot in rhythm if slot.kind == "note")
        return NotePass(notes, described=plural(count, "statement"), rhythm=rhythm)

    def _statements(self, tonic: Pitch, to_home: Fraction) -> tuple[list[Sound], Fraction, int]:
        """Return its statements one after the other, where they end, and how many there are."""
        length = self.length
        match self.after:
            case "open":
                end = length
            case "home":
                end = _common(length, to_home)
            case "bar":
                end = ceil(length / to_home) * to_home
        count = ceil(end / length)
        if count * len(self.played) > MOST_SOUNDS:
            raise OutOfRange(
                f"This line comes home after {plural(count, 'statement')}, more than {MOST_SOUNDS:,} notes. "
                "Leave it open.",
                field="material.after",
            )
        sounds = [
            sound
            for number in range(count)
            for sound in self._sounds(tonic, number * length, number if count > 1 else None)
            if sound.onset < end
        ]
        return sounds, end, count

    def _through(
        self, tonic: Pitch, divisions: Sequence[Fraction], instrument: Instrument, meter: Meter
    ) -> tuple[list[Sound], Fraction, int]:
        """Return a statement on each chord, cut off where the next begins, or held to there."""
        spans = parse_progression(self.through, meter, "material.through")
        bounds = [self.units_at(at, divisions, meter) for at in (*(span.start for span in spans), spans[-1].end)]
        sounds: list[Sound] = []
        for number, span in enumerate(spans):
            start, end = bounds[number], bounds[number + 1]
            sounds += [
                _on_chord(sound, tonic, span.chord, instrument, self.fit)
                for sound in self._sounds(tonic, start, number)
                if sound.onset < end
            ]
        return sounds, bounds[-1], len(spans)

    def _sounds(self, tonic: Pitch, start: Fraction, statement: int | None) -> Iterator[Sound]:
        at = start
        pitches: dict[Pitch | Degree | None, Pitch | None] = {}
        for note in self.played:
            kind: Literal["rest", "note"] = "rest" if note.silent else "note"
            if note.tone not in pitches:
                pitches[note.tone] = note.pitch(tonic)
            pitch = None if note.silent else pitches[note.tone]
            yield Sound(at, kind, pitch, None if note.accent == "plain" else note.accent, statement)
            at += note.length

    def _moved(self, sounds: list[Sound], end: Fraction, to_home: Fraction) -> tuple[list[Sound], Fraction]:
        """Return the sounds moved by the shift, with silence before them or wrapped round to the start."""
        shift = self.shift
        if not shift:
            return sounds, end
        if not self.around:
            before = shift if shift > 0 else shift % to_home
            return [Sound(Fraction(0), "rest"), *_later(sounds, before)], end + before
        total = ceil(end / to_home) * to_home
        if end < total:
            sounds = [*sounds, Sound(end, "rest")]
        shifted = sorted(
            (altered(sound, onset=(sound.onset + shift) % total) for sound in sounds), key=lambda sound: sound.onset
        )
        return shifted, total

    def _pickup(self, meter: Meter) -> Fraction:
        """Return the beats of silence before a first bar that is short.

        Raises:
            Unreadable: A bar is too long or, but for the first and the last, too short.
        """
        bars = [sum((note.length for note in inside), Fraction(0)) for _, inside in groupby(self.played, _bar_of)]
        # A short first bar is the end of one: it is the first bar all the same.
        for number, beats in enumerate(bars, start=1):
            whole = meter.bar(number).length
            short = beats < whole and 1 < number < len(bars)
            if len(bars) > 1 and (beats > whole or short):
                raise Unreadable(
                    f"Bar {number} of the line has {plural(beats, 'beat')}, and the meter has "
                    f"{label(whole)}. Move the bar line, or change a length.",
                    field="material.text",
                )
        return meter.bar(1).length - bars[0] if len(bars) > 1 else Fraction(0)


@lru_cache(maxsize=32)
def _played(text: str) -> tuple[LineNote, ...]:
    return tuple(note for note in parse_line(text) if not note.is_cut)


def _bar_of(note: LineNote) -> int:
    return note.bar


def _later(sounds: Sequence[Sound], by: Fraction) -> list[Sound]:
    return [altered(sound, onset=sound.onset + by) for sound in sounds]


def _common(one: Fraction, other: Fraction) -> Fraction:
    """Return the smallest length that both fit into a whole number of times."""
    below = lcm(one.denominator, other.denominator)
    return Fraction(lcm(int(one * below), int(other * below)), below)


def _slots_to_home(divisions: Sequence[Fraction], meter: Meter) -> Fraction:
    """Return the slots until a bar line on which the divisions begin anew.

    >>> from ripresa.core.rhythm import METERS
    >>> _slots_to_home([Fraction(2)], METERS["4/4"])
    Fraction(8, 1)
    """
    beats = sum(division.denominator for division in divisions)
    slots = sum(division.numerator for division in divisions)
    return Fraction(slots * lcm(beats, meter.cycle_count), beats)


def _slot_at(position: Fraction, divisions: Sequence[Fraction], meter: Meter) -> Fraction:
    """Return the number of the first slot that does not begin before a position in beats of the bpm."""
    wanted = meter.beats_passed(position)
    beats = sum(division.denominator for division in divisions)
    slots = sum(division.numerator for division in divisions)
    turns = floor(wanted / beats)
    at, number = Fraction(turns * beats), turns * slots
    for division, _ in slot_numbers(divisions):
        if at >= wanted:
            break
        at += 1 / division
        number += 1
    return Fraction(number)


def _onto_slots(sounds: Sequence[Sound], end: Fraction, divisions: Sequence[Fraction]) -> tuple[Slot, ...]:
    starts = {int(sound.onset): sound for sound in sounds if sound.onset.denominator == 1}
    slots: list[Slot] = []
    sounding = False
    for at, (division, number) in zip(range(int(end)), slot_numbers(divisions), strict=False):
        found = starts.get(at)
        if found:
            sounding = found.kind == "note"
            slots.append(Slot(division, number, found.kind, found.pitch, found.accent, found.chord, found.statement))
        else:
            slots.append(Slot(division, number, "hold" if sounding else "rest"))
    return tuple(slots)


def _on_chord(sound: Sound, tonic: Pitch, chord: Chord, instrument: Instrument, fit: Fit) -> Sound:
    """Return a sound as it is played on a chord: moved the nearer way, folded into range."""
    named = ChordSound(chord.shown, ())
    if sound.pitch is None or fit == "as_it_is" or chord.is_none:
        return altered(sound, chord=named)
    if fit == "tone":
        return altered(sound, pitch=instrument.folded(_nearest_tone(sound.pitch, chord)), chord=named)
    # The octave in which the root is nearest, the tritone upwards.
    octaves = -((chord.root.midi - tonic.midi + 5) // 12)
    steps = chord.root.letter - tonic.letter + 7 * (chord.root.octave + octaves - tonic.octave)
    semitones = chord.root.midi - tonic.midi + 12 * octaves
    moved = above(sound.pitch, steps, semitones)
    if fit == "scale":
        moved = _in_scale(moved, chord)
    return altered(sound, pitch=instrument.folded(moved), chord=named)


def _in_scale(pitch: Pitch, chord: Chord) -> Pitch:
    """Return a pitch as the scale over a chord has its letter: B♭ for B over a seventh on C."""
    root, scale = chord.root, chord.scale
    octaves, step = divmod(pitch.letter - root.letter + 7 * (pitch.octave - root.octave), 7)
    semitones = dict(scale.up)[step]
    return above(root, step + 7 * octaves, semitones + 12 * octaves)


def _nearest_tone(pitch: Pitch, chord: Chord) -> Pitch:
    """Return the tone of a chord that lies nearest to a pitch, the lower one of two as near."""
    if chord.holds(pitch):
        return pitch
    octaves = range(pitch.octave - chord.root.octave - 1, pitch.octave - chord.root.octave + 2)
    tones = [
        above(chord.root, steps + 7 * octave, over + 12 * octave)
        for octave in octaves
        for steps, over in chord.tones.up
    ]
    return min(tones, key=lambda tone: (abs(tone.midi - pitch.midi), tone.midi))


KIND = Kind(Line(), "the line", "A phrase of your own, note by note: names, degrees, or rhythm alone.")
