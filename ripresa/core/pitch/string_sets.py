"""Chords by string set: the same chord on three or four neighbouring strings, close together and low on the neck."""

from functools import lru_cache
from itertools import product

from ripresa.core.errors import OutOfRange
from ripresa.core.pitch.chord_symbol import Chord
from ripresa.core.pitch.frets import SPAN, Frets
from ripresa.core.pitch.instrument import Instrument
from ripresa.core.pitch.shapes import Shape, fingers_of

#: Key → first and last string, from the thinnest; its name; why one would choose it.
STRING_SETS: dict[str, tuple[int, int, str, str]] = {
    "1-3": (1, 3, "on strings 1 to 3", "High and light: the three tones of a triad over a band."),
    "2-4": (2, 4, "on strings 2 to 4", "In the middle: neither bass nor top."),
    "3-5": (3, 5, "on strings 3 to 5", "Dark, and clear of the singer."),
    "4-6": (4, 6, "on strings 4 to 6", "Low: close tones growl there, so play them soft."),
    "1-4": (1, 4, "on strings 1 to 4", "Four tones on top: sevenths have room."),
    "2-5": (2, 5, "on strings 2 to 5", "Four tones in the middle."),
    "3-6": (3, 6, "on strings 3 to 6", "Four tones below."),
}


@lru_cache(maxsize=512)
def shape_on(chord: Chord, instrument: Instrument, strings: str, field: str = "material.strings") -> Shape:
    """Return the grip of a chord on a set of neighbouring strings; every one of them sounds, and no other.

    Of all that lie under four frets it is the one nearest to the nut. Where there are more tones than strings, the
    fifth goes, then the root: third and seventh say what a chord is.

    Raises:
        OutOfRange: The instrument has no such strings, or no grip lies under the hand.
    """
    first, last, name, _ = STRING_SETS[strings]
    count = len(instrument.strings)
    if last > count:
        raise OutOfRange(f"{instrument.name} has {count} strings: there is no grip {name}.", field=field)
    open_notes = [instrument.strings[count - string] for string in range(last, first - 1, -1)]
    root = chord.root.midi
    tones = {(root + semitones) % 12 for _, semitones in chord.tones.up}
    needed = set(tones)
    for least in ((root + 7) % 12, root % 12):
        if len(needed) > len(open_notes):
            needed.discard(least)
    found: list[tuple[tuple[int, int, int], tuple[int, ...]]] = []
    ways = [
        [fret for fret in range(min(instrument.frets, 15) + 1) if (note + fret) % 12 in tones] for note in open_notes
    ]
    for frets in product(*ways):
        held = [fret for fret in frets if fret]
        if held and max(held) - min(held) >= SPAN:
            continue
        if needed - {(note + fret) % 12 for note, fret in zip(open_notes, frets, strict=True)}:
            continue
        found.append(((max(held, default=0), len(held), sum(held)), frets))
    if not found:
        raise OutOfRange(f"No grip of {chord.shown} lies under {SPAN} frets {name} of {instrument.name}.", field=field)
    _, frets = min(found)
    every: Frets = (*(None for _ in range(count - last)), *frets, *(None for _ in range(first - 1)))
    return Shape(chord.shown, every, fingers_of(every))
