"""Chord symbols and progressions: ``G D/F# | Em7 C`` read into chords with exact lengths."""

import re
from dataclasses import dataclass
from fractions import Fraction

from ripresa.core.errors import Unreadable
from ripresa.core.exact import label, parse_amount, plural
from ripresa.core.instrument import Instrument
from ripresa.core.meter import Meter
from ripresa.core.pitch import Pitch, above, parse_tonic
from ripresa.core.scales import CHORDS, Scale

#: What follows the root in a symbol → key of ``CHORDS``.
QUALITIES: dict[str, str] = {
    "": "major_triad",
    "m": "minor_triad",
    "dim": "diminished_triad",
    "aug": "augmented_triad",
    "5": "fifth",
    "sus2": "suspended_second",
    "sus4": "suspended_fourth",
    "6": "sixth",
    "m6": "minor_sixth",
    "7": "dominant_seventh",
    "maj7": "major_seventh",
    "m7": "minor_seventh",
    "m7b5": "half_diminished",
    "dim7": "diminished_seventh",
    "add9": "added_ninth",
    "9": "dominant_ninth",
}
LONGEST_TEXT = 1000
_FIELD = "material.chords"
MOST_BARS = 64
#: Which tones of a chord a hand takes, counted upwards from the root: close on keys, spread on strings.
_CLOSE = (0, 1, 2, 3)
_SPREAD = {3: (0, 2, 3, 4, 5), 2: (0, 1, 2), 4: (0, 2, 3, 5), 5: (0, 3, 4, 6)}
_SYMBOL = re.compile(
    r"^(?P<root>[A-G][b#]?)(?P<quality>maj7|m7b5|dim7|dim|aug|sus2|sus4|add9|m6|m7|m|5|6|7|9)?(?:/(?P<bass>[A-G][b#]?))?$"
)


@dataclass(frozen=True, slots=True)
class Chord:
    """A chord: its symbol, its root in octave 4, its tones, and another bass if one is written."""

    symbol: str
    root: Pitch
    tones: Scale
    bass: Pitch | None = None

    @property
    def shown(self) -> str:
        """The symbol with music signs."""
        return re.sub(r"(?<=[A-G])b", "♭", self.symbol).replace("#", "♯")

    def holds(self, pitch: Pitch) -> bool:
        """Whether a pitch, in any octave, is a tone of the chord."""
        return (pitch.midi - self.root.midi) % 12 in {semitones for _, semitones in self.tones.up}


@dataclass(frozen=True, slots=True)
class ChordSound:
    """A chord as it sounds on an instrument: its symbol with music signs, and its written pitches from the bass up."""

    symbol: str
    tones: tuple[Pitch, ...]


@dataclass(frozen=True, slots=True)
class ChordSpan:
    """A chord in a progression: from which beat, for how many beats."""

    chord: Chord
    start: Fraction
    beats: Fraction

    @property
    def end(self) -> Fraction:
        """Where the next chord begins."""
        return self.start + self.beats


def parse_chord(symbol: str, where: str = "") -> Chord:
    """Return the chord of a symbol: ``C``, ``F#m7``, ``G/B``.

    Raises:
        Unreadable: It is not one; ``where`` is put before the sentence.
    """
    found = _SYMBOL.match(symbol)
    if not found:
        raise Unreadable(
            f"{where}“{symbol}” is not a chord. Write a root and what it is: C, Am, F#m7, Bb7, Dsus4, G/B.",
            field=_FIELD,
        )
    bass = parse_tonic(found["bass"]) if found["bass"] else None
    tones = CHORDS[QUALITIES[found["quality"] or ""]]
    return Chord(symbol, parse_tonic(found["root"]), tones, bass)


def parse_progression(text: str, meter: Meter) -> tuple[ChordSpan, ...]:
    """Return the chords of a progression with their lengths.

    Bars are parted by ``|``. The chords of a bar share its beats, or say how
    many each has: ``C*3 G*1``. ``-`` goes on with the chord before; an empty bar too.

    Raises:
        Unreadable: A chord cannot be read, or a bar does not come out even; the sentence says where.

    >>> from ripresa.core.meter import METERS
    >>> [(span.chord.symbol, str(span.beats)) for span in parse_progression("G D | Em*3 C*1", METERS["4/4"])]
    [('G', '2'), ('D', '2'), ('Em', '3'), ('C', '1')]
    """
    if len(text) > LONGEST_TEXT:
        raise Unreadable(f"A progression has up to {LONGEST_TEXT} signs, not {len(text)}.", field=_FIELD)
    bars = [bar.split() for bar in text.strip().strip("|").split("|")]
    if len(bars) > MOST_BARS:
        raise Unreadable(f"A progression has up to {MOST_BARS} bars, not {len(bars)}.", field=_FIELD)
    spans: list[ChordSpan] = []
    at = Fraction(0)
    for number, bar in enumerate(bars, start=1):
        for word, beats in _lengths(bar or ["-"], number, meter.bar_length):
            if word != "-":
                chord = parse_chord(word, f"Bar {number}: ")
            elif spans:
                chord = spans[-1].chord
            else:
                raise Unreadable(f"Bar {number} has no chord, and none stands before it. Write one: C.", field=_FIELD)
            spans.append(ChordSpan(chord, at, beats))
            at += beats
    return tuple(spans)


def _lengths(words: list[str], bar: int, beats: Fraction) -> list[tuple[str, Fraction]]:
    """Return the words of a bar with the beats of each."""
    parted = [word.partition("*") for word in words]
    if not any(star for _, star, _ in parted):
        return [(word, beats / len(words)) for word in words]
    found = []
    for word, star, length in parted:
        if not star:
            raise Unreadable(f"Bar {bar}: “{word}” needs its beats too: {word}*2, as the others have.", field=_FIELD)
        try:
            found.append((word, parse_amount(length)))
        except Unreadable as error:
            raise Unreadable(f"Bar {bar}: “{word}*{length}”: {error.message}", field=_FIELD) from error
    total = sum((length for _, length in found), Fraction(0))
    if total != beats or any(length <= 0 for _, length in found):
        raise Unreadable(
            f"Bar {bar}: its chords last {plural(total, 'beat')}, and the bar has {label(beats)}.", field=_FIELD
        )
    return found


def chord_at(spans: tuple[ChordSpan, ...], beat: Fraction) -> Chord:
    """Return the chord that is in force at a beat; the last goes on."""
    for span in reversed(spans):
        if span.start <= beat:
            return span.chord
    return spans[0].chord


def voiced(chord: Chord, instrument: Instrument) -> ChordSound:
    """Return a chord as an instrument of its kind takes it: as low as it begins, inside its range.

    Which tones: close from the root on keys, spread on strings. A written bass goes under them.
    """
    bass = chord.bass or chord.root
    low = _from(bass, instrument.home)
    root = low if chord.bass is None else _from(chord.root, low.midi)
    taken = _SPREAD[chord.tones.degrees] if instrument.voice == "pluck" else _CLOSE[: max(3, chord.tones.degrees)]
    tones = [above(root, *chord.tones.degree(index)) for index in taken]
    inside = [tone for tone in (low, *tones) if instrument.holds(tone.midi)]
    return ChordSound(chord.shown, tuple(dict.fromkeys(inside)) or (low,))


def _from(pitch: Pitch, lowest: int) -> Pitch:
    """Return the lowest octave of a pitch that is not under a MIDI note."""
    octave = pitch.octave - (pitch.midi - lowest) // 12
    return Pitch(pitch.letter, pitch.alter, octave)
