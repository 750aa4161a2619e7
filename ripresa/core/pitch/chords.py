"""Chords: a symbol such as ``D/F#`` read into its tones, and how an instrument takes them."""

import re
from dataclasses import dataclass

from ripresa.core.errors import Unreadable
from ripresa.core.pitch.instrument import Instrument
from ripresa.core.pitch.pitch import Pitch, above, parse_tonic
from ripresa.core.pitch.scales import CHORDS, Scale

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


def parse_chord(symbol: str, where: str = "", field: str = "material.chords") -> Chord:
    """Return the chord of a symbol: ``C``, ``F#m7``, ``G/B``.

    Raises:
        Unreadable: It is not one; ``where`` is put before the sentence.
    """
    found = _SYMBOL.match(symbol)
    if not found:
        raise Unreadable(
            f"{where}“{symbol}” is not a chord. Write a root and what it is: C, Am, F#m7, Bb7, Dsus4, G/B.",
            field=field,
        )
    bass = parse_tonic(found["bass"]) if found["bass"] else None
    tones = CHORDS[QUALITIES[found["quality"] or ""]]
    return Chord(symbol, parse_tonic(found["root"]), tones, bass)


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
