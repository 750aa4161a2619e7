"""Shapes: how a chord is gripped on strings: a table of the usual ones for the guitar's usual tuning, a rule elsewhere.

A row of the table is what beginners' books print: frets from the thickest string, ``x`` for one that does not sound,
and the fingers on them. Movable shapes are written at the nut and moved to their root. Elsewhere the grip with most
strings is taken that spans four frets, its root (or the written bass) lowest, as near the nut as can be.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import product

from ripresa.core.errors import OutOfRange
from ripresa.core.pitch.chord_symbol import Chord
from ripresa.core.pitch.frets import SPAN, Frets
from ripresa.core.pitch.grip_tables import GUITAR_FORMS, GUITAR_OPEN, UKULELE_OPEN
from ripresa.core.pitch.instrument import Instrument
from ripresa.core.pitch.instruments import STANDARD_STRINGS, UKULELE_STRINGS
from ripresa.core.pitch.pitch import parse_tonic

#: Open grips by the strings that they are for.
_OPEN = {STANDARD_STRINGS: GUITAR_OPEN, UKULELE_STRINGS: UKULELE_OPEN}
#: Fingers of one hand that reach one fret side by side.
_SIDE_BY_SIDE = 3
_FIFTH, _NINTH, _OCTAVE = 7, 2, 12
#: How many grips of a chord are offered.
_MOST_OFFERED = 12


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
    if chord.frets:
        _check(chord, instrument, field)
        return Shape(chord.shown, chord.frets, fingers_of(chord.frets))
    found = next(_playable(chord, instrument), None)
    if found is None:
        raise OutOfRange(
            f"No grip of {chord.shown} lies under {SPAN} frets on {instrument.name}. Type one after the chord: "
            f"{chord.symbol}={'x' * len(instrument.strings)}, with a fret for each string that sounds.",
            field=field,
        )
    return found


@lru_cache(maxsize=256)
def shapes_of(chord: Chord, instrument: Instrument) -> tuple[Shape, ...]:
    """Return the grips of a chord that a hand can hold, the usual one first, up to twelve; none of one typed."""
    plain = replace(chord, frets=())
    found: dict[Frets, Shape] = {}
    for shape in _playable(plain, instrument):
        found.setdefault(shape.frets, shape)
        if len(found) == _MOST_OFFERED:
            break
    return tuple(found.values())


def _playable(chord: Chord, instrument: Instrument) -> Iterator[Shape]:
    """Yield grips from the usual one on: as printed, open or moved, then by rule."""
    for frets, fingers in _printed(chord, instrument):
        yield Shape(chord.shown, frets, fingers)
    by_rule = sorted(set(_grips(chord, instrument)), key=lambda frets: _merit(frets, instrument.strings), reverse=True)
    for frets in by_rule:
        yield Shape(chord.shown, frets, fingers_of(frets))


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


def _printed(chord: Chord, instrument: Instrument) -> Iterator[tuple[Frets, tuple[int, ...]]]:
    """Yield the grips that books print: the open one, then the forms that are moved, the nearest to the nut first."""
    known = _OPEN.get(instrument.strings, {}).get(chord.symbol)
    if known:
        yield _read(known, 0)
    if chord.bass is not None or instrument.strings != STANDARD_STRINGS:
        return
    ways = []
    for root, row, fingers in GUITAR_FORMS.get(chord.quality, ()):
        up = (chord.root.midi - parse_tonic(root).midi) % _OCTAVE
        lowest = min(int(sign) for sign in row if sign != "x")
        # A row without open strings may go down; one with them is moved, never played as it stands.
        up = up - _OCTAVE if lowest + up - _OCTAVE >= 1 else up if lowest + up >= 1 else _OCTAVE
        frets, moved = _read((row, fingers), up)
        ways.append((max(fret or 0 for fret in frets), frets, moved))
    for _, frets, moved in sorted(ways, key=lambda way: way[0]):
        yield frets, moved


def _read(row: tuple[str, str], up: int) -> tuple[Frets, tuple[int, ...]]:
    frets = tuple(None if sign == "x" else int(sign) + up for sign in row[0])
    return frets, tuple(int(sign) for sign in row[1])


def _grips(chord: Chord, instrument: Instrument) -> Iterator[Frets]:
    """Yield every grip under four frets that has what a chord cannot do without, from all its tones down.

    The fifth is what is left out where strings are few, then the ninth, and on four strings the root: the other tones
    say what it is.
    """
    root = chord.root.midi
    needed = {(root + semitones) % _OCTAVE for _, semitones in chord.tones.up}
    spare = [(root + _FIFTH) % _OCTAVE, (root + _NINTH) % _OCTAVE] if len(needed) > _SIDE_BY_SIDE else []
    most = min(4, len(instrument.strings))
    while len(needed) > most and spare:
        needed.discard(spare.pop(0))
    for without in (set(), {(root + _FIFTH) % _OCTAVE}, {(root + _FIFTH) % _OCTAVE, root % _OCTAVE}):
        if without and len(needed) < 4:
            return
        found = list(_grips_with(chord, instrument, needed - without, is_rooted=root % _OCTAVE not in without))
        if found:
            yield from found
            return


def _grips_with(chord: Chord, instrument: Instrument, needed: set[int], *, is_rooted: bool) -> Iterator[Frets]:
    """Yield every grip under four frets with some pitch classes; with strings in order the bass is the lowest."""
    strings = instrument.strings
    tones = {(chord.root.midi + semitones) % _OCTAVE for _, semitones in chord.tones.up}
    bass = (chord.bass or chord.root).midi % _OCTAVE
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
            if in_order and any(fret is None for fret in frets[first:]):
                continue
            if in_order and is_rooted and min(sounding) % 12 != bass:
                continue
            if _is_held(frets):
                yield frets


def _is_held(frets: Frets) -> bool:
    """Whether four fingers hold a grip: no more than three of them side by side in one fret."""
    fingers = fingers_of(frets)
    held = [(finger, fret) for finger, fret in zip(fingers, frets, strict=True) if finger]
    if max(fingers, default=0) > SPAN:
        return False
    return all(len({finger for finger, at in held if at == fret}) <= _SIDE_BY_SIDE for _, fret in held)


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
