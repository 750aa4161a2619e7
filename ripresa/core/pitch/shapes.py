"""Shapes: how a chord is gripped on strings: a table of the usual ones for the guitar's usual tuning, a rule elsewhere.

A row of the table is what beginners' books print: frets from the thickest string, ``x`` for one that does not sound,
and the fingers on them. Movable shapes are written at the nut and moved to their root. Elsewhere the grip with most
strings is taken that spans four frets, its root (or the written bass) lowest, as near the nut as can be.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import product

from ripresa.core.errors import OutOfRange
from ripresa.core.pitch.chord_symbol import Chord
from ripresa.core.pitch.frets import SPAN, Frets
from ripresa.core.pitch.instrument import STANDARD_STRINGS, Instrument

#: Symbol → frets and fingers, the thickest string first.
_OPEN: dict[str, tuple[str, str]] = {
    "C": ("x32010", "032010"),
    "D": ("xx0232", "000132"),
    "E": ("022100", "023100"),
    "F": ("xx3211", "003211"),
    "G": ("320003", "210003"),
    "A": ("x02220", "001230"),
    "Dm": ("xx0231", "000231"),
    "Em": ("022000", "023000"),
    "Am": ("x02210", "002310"),
    "Bm": ("x24432", "013421"),
    "C7": ("x32310", "032410"),
    "D7": ("xx0212", "000213"),
    "E7": ("020100", "020100"),
    "G7": ("320001", "320001"),
    "A7": ("x02020", "002030"),
    "B7": ("x21202", "021304"),
    "Am7": ("x02010", "002010"),
    "Dm7": ("xx0211", "000211"),
    "Em7": ("020000", "020000"),
    "Cmaj7": ("x32000", "032000"),
    "Dmaj7": ("xx0222", "000111"),
    "Fmaj7": ("xx3210", "003210"),
    "Gmaj7": ("320002", "320001"),
    "Asus2": ("x02200", "001200"),
    "Asus4": ("x02230", "001230"),
    "Dsus2": ("xx0230", "000130"),
    "Dsus4": ("xx0233", "000123"),
    "Esus4": ("022200", "023400"),
    "Cadd9": ("x32030", "021030"),
    "G/B": ("x20003", "010003"),
    "D/F#": ("200232", "100243"),
    "C/G": ("332010", "342010"),
    "C/E": ("032010", "032010"),
    "Am/G": ("302210", "402310"),
    "F/C": ("x33211", "034211"),
}
#: Kind of chord → frets and fingers at the nut, with the root on string 6 (open E) and on string 5 (open A).
_MOVABLE: dict[str, tuple[tuple[str, str] | None, tuple[str, str] | None]] = {
    "": (("022100", "134211"), ("x02220", "012341")),
    "m": (("022000", "134111"), ("x02210", "013421")),
    "7": (("020100", "131211"), ("x02020", "013141")),
    "m7": (("020000", "131111"), ("x02010", "013121")),
    "maj7": (None, ("x02120", "013241")),
    "sus4": (("022200", "123411"), ("x02230", "012341")),
    "m7b5": (None, ("x0101x", "013240")),
}
_LOW_E, _LOW_A = 4, 9


@dataclass(frozen=True, slots=True)
class Shape:
    """A grip.

    Args:
        symbol: Of its chord, with music signs.
        frets: The thickest string first; 0 open, None where it does not sound.
        fingers: 1 to 4 on each string, 0 where none is needed.
    """

    symbol: str
    frets: Frets
    fingers: tuple[int, ...]

    @property
    def stretch(self) -> int:
        """Frets that it spans, open strings left aside; 0 where all are open."""
        held = self._held
        return max(held) - min(held) + 1 if held else 0

    @property
    def base(self) -> int:
        """The fret at which its picture begins: 1 where it lies within the first four."""
        held = self._held
        return 1 if not held or max(held) <= SPAN else min(held)

    @property
    def text(self) -> str:
        """As it is typed: ``x32010``."""
        signs = ["x" if fret is None else str(fret) for fret in self.frets]
        return ("-" if any(len(sign) > 1 for sign in signs) else "").join(signs)

    @property
    def sounding(self) -> tuple[tuple[int, int], ...]:
        """(string, fret) of what sounds, the thickest string first; string 1 is the thinnest."""
        return tuple((len(self.frets) - index, fret) for index, fret in enumerate(self.frets) if fret is not None)

    @property
    def _held(self) -> list[int]:
        return [fret for fret in self.frets if fret]


@lru_cache(maxsize=1024)
def shape_of(chord: Chord, instrument: Instrument, field: str = "material.chords") -> Shape:
    """Return the grip of a chord on an instrument with strings.

    Raises:
        OutOfRange: It is typed for another number of strings or more frets, or no grip can be found.
    """
    strings = instrument.strings
    if chord.frets:
        _check(chord, instrument, field)
        return Shape(chord.shown, chord.frets, fingers_of(chord.frets))
    known = _usual(chord) if strings == STANDARD_STRINGS else None
    if known:
        return Shape(chord.shown, *known)
    found = max(_grips(chord, instrument), key=lambda frets: _merit(frets, strings), default=None)
    if found is None:
        raise OutOfRange(
            f"No grip of {chord.shown} lies under {SPAN} frets on {instrument.name}. Type one after the chord: "
            f"{chord.symbol}={'x' * len(strings)}, with a fret for each string that sounds.",
            field=field,
        )
    return Shape(chord.shown, found, fingers_of(found))


def _check(chord: Chord, instrument: Instrument, field: str) -> None:
    frets, strings = chord.frets, instrument.strings
    if len(frets) != len(strings):
        raise OutOfRange(
            f"“{chord.symbol}” grips {len(frets)} strings, and {instrument.name} has {len(strings)}. Write a fret, 0 "
            "or x for each, the thickest first.",
            field=field,
        )
    highest = max(fret or 0 for fret in frets)
    if highest > instrument.frets:
        raise OutOfRange(
            f"“{chord.symbol}” asks for fret {highest}, and {instrument.name} has {instrument.frets}.", field=field
        )


def _usual(chord: Chord) -> tuple[Frets, tuple[int, ...]] | None:
    """Return the usual grip in the usual tuning: open, or movable, the nearer to the nut of the two."""
    known = _OPEN.get(chord.symbol)
    if known:
        return _read(known, 0)
    if chord.bass is not None:
        return None
    root = chord.root.midi % 12
    ways = []
    for form, nut in zip(_MOVABLE.get(chord.quality, (None, None)), (_LOW_E, _LOW_A), strict=True):
        if form:
            up = (root - nut) % 12 or 12
            ways.append((up, _read(form, up)))
    return min(ways)[1] if ways else None


def _read(row: tuple[str, str], up: int) -> tuple[Frets, tuple[int, ...]]:
    frets = tuple(None if sign == "x" else int(sign) + up for sign in row[0])
    return frets, tuple(int(sign) for sign in row[1])


def _grips(chord: Chord, instrument: Instrument) -> Iterator[Frets]:
    """Yield every grip under four frets in which all tones sound; with strings in order the bass is the lowest."""
    strings = instrument.strings
    tones = {(chord.root.midi + semitones) % 12 for _, semitones in chord.tones.up}
    bass = (chord.bass or chord.root).midi % 12
    # The fifth is what is left out of a chord of five tones, or where strings are few.
    needed = tones - {(chord.root.midi + 7) % 12} if len(tones) > min(4, len(strings)) else tones
    in_order = list(strings) == sorted(strings)
    for low in range(1, min(13, instrument.frets - SPAN + 2)):
        ways: list[list[int | None]] = [
            [None, *(fret for fret in (0, *range(low, low + SPAN)) if (open_note + fret) % 12 in tones | {bass})]
            for open_note in strings
        ]
        for frets in product(*ways):
            sounding = [open_note + fret for open_note, fret in zip(strings, frets, strict=True) if fret is not None]
            if not sounding or needed - {one % 12 for one in sounding}:
                continue
            first = next(index for index, fret in enumerate(frets) if fret is not None)
            if in_order and (min(sounding) % 12 != bass or any(fret is None for fret in frets[first:])):
                continue
            if max(fingers_of(frets)) <= SPAN:
                yield frets


def _merit(frets: Frets, strings: tuple[int, ...]) -> tuple[int, int, int, int]:
    """Return what makes a grip better: more strings, nearer the nut, fewer fingers, less of a stretch."""
    held = [fret for fret in frets if fret]
    sounding = sum(fret is not None for fret in frets)
    in_order = list(strings) == sorted(strings)
    fewest = max(3, len(strings) - 2) if in_order else len(strings)
    return min(sounding, fewest), -max(held, default=0), -max(fingers_of(frets)), sounding


def fingers_of(frets: Frets) -> tuple[int, ...]:
    """Return the fingers of a grip: the first one lies across where it has several strings at the lowest fret.

    More than four where the hand has not enough.
    """
    held = sorted({fret for fret in frets if fret})
    lowest = held[0] if held else 0
    count = sum(bool(fret) for fret in frets)
    flat = [index for index, fret in enumerate(frets) if fret and fret == lowest]
    # A finger that lies across damps the open strings under it.
    damps = bool(flat) and any(fret == 0 for fret in frets[flat[0] : flat[-1]])
    across = not damps and (count > SPAN or (count > 3 and len(flat) > 1))
    found = [0] * len(frets)
    finger = 1
    for fret in held:
        for index in (index for index, one in enumerate(frets) if one == fret):
            found[index] = finger
            finger += not (across and fret == lowest)
        finger += across and fret == lowest
    return tuple(found)
