"""Keys: the usual fingerings of major and minor scales and triads, and a thumb-under rule for all else.

The table is the one that method books agree on (scales as in C.-L. Hanon, *Le pianiste virtuose*, 1873, no. 39,
arpeggios no. 41); where they do not, the rule decides. Its own test: no thumb on a black key of a scale. A row is
(finger on the lowest tonic, fingers on the degrees further in, finger on the highest tonic).
"""

from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise
from typing import Literal

from ripresa.core.drill.material import Arpeggio, Material, ScaleRun
from ripresa.core.drill.material import Sequence as Sequence_
from ripresa.core.grid import Touch
from ripresa.core.pitch import Pitch, Scale, chord_named, parse_tonic

Hand = Literal["left", "right"]
Row = tuple[int, str, int]

_BLACK = {1, 3, 6, 8, 10}
_MAJORS = {"major"}
_MINORS = {"natural_minor", "harmonic_minor", "melodic_minor"}
_RIGHT_PLAIN: Row = (1, "1231234", 5)
_LEFT_PLAIN: Row = (5, "1432132", 1)
_LEFT_FLAT: Row = (3, "3214321", 3)


def _rows(**named: Row) -> dict[int, Row]:
    """Return rows by the pitch class of the tonic; ``s`` stands for a sharp."""
    return {parse_tonic(name.replace("s", "#")).midi % 12: row for name, row in named.items()}


_MAJOR: dict[Hand, dict[int, Row]] = {
    "right": _rows(
        **dict.fromkeys(("C", "D", "E", "G", "A", "B"), _RIGHT_PLAIN),
        F=(1, "1234123", 4),
        Bb=(2, "4123123", 4),
        Eb=(3, "3123412", 3),
        Ab=(3, "3412312", 3),
        Db=(2, "2312341", 2),
        Gb=(2, "2341231", 2),
    ),
    "left": _rows(
        **dict.fromkeys(("C", "D", "E", "F", "G", "A"), _LEFT_PLAIN),
        **dict.fromkeys(("Bb", "Eb", "Ab", "Db"), _LEFT_FLAT),
        B=(4, "1321432", 1),
        Gb=(4, "4321321", 4),
    ),
}
_MINOR: dict[Hand, dict[int, Row]] = {
    "right": _rows(
        **dict.fromkeys(("C", "D", "E", "G", "A", "B"), _RIGHT_PLAIN),
        **dict.fromkeys(("Cs", "Fs", "Gs"), (3, "3412312", 3)),
        F=(1, "1234123", 4),
        Bb=(2, "4123123", 4),
        Eb=(3, "3123412", 3),
    ),
    "left": _rows(
        **dict.fromkeys(("C", "D", "E", "F", "G", "A"), _LEFT_PLAIN),
        B=(4, "1321432", 1),
        Fs=(4, "4321321", 4),
        Cs=_LEFT_FLAT,
        Bb=(2, "2132143", 2),
        Eb=(2, "2143213", 2),
    ),
}
#: Triads that begin on a black key: the thumb takes the first white one. F sharp major and E flat minor lie on black
#: keys alone, and are fingered as white ones. Books differ on B flat; this is one of their ways.
_BLACK_TRIADS: dict[Hand, dict[tuple[int, str], Row]] = {
    "right": {
        **{(one, "major_triad"): (4, "412", 4) for one in (1, 3, 8)},
        **{(one, "minor_triad"): (4, "412", 4) for one in (1, 6, 8)},
        (10, "major_triad"): (4, "412", 4),
        (10, "minor_triad"): (2, "231", 2),
        (6, "major_triad"): (1, "123", 5),
        (3, "minor_triad"): (1, "123", 5),
    },
    "left": {
        **{(one, "major_triad"): (2, "214", 2) for one in (1, 3, 8)},
        **{(one, "minor_triad"): (2, "214", 2) for one in (1, 6, 8)},
        (10, "major_triad"): (3, "321", 3),
        (10, "minor_triad"): (3, "321", 3),
        (6, "major_triad"): (5, "132", 1),
        (3, "minor_triad"): (5, "142", 1),
    },
}
#: Sharp minors whose raised sixth would put the thumb on a black key: the rule takes them.
_NOT_MELODIC = {1, 6, 8}
_NEVER = 1000.0


def on_keys(material: Material | None, hand: Hand, pitches: tuple[Pitch | None, ...]) -> tuple[Touch | None, ...]:
    """Return the finger of each note, 1 for the thumb; None for a note without pitch."""
    five = _five_fingers(material, hand, pitches)
    if five:
        return five
    usual = _usual(material, hand)
    if usual:
        tonic, tones, row = usual
        fingers = _by_table(tonic, tones, row, pitches)
        if fingers:
            return tuple(Touch(finger) if finger else None for finger in fingers)
    return _by_rule(hand, tuple(pitch.midi if pitch else None for pitch in pitches))


def _usual(material: Material | None, hand: Hand) -> tuple[Pitch, Scale, Row] | None:
    if isinstance(material, ScaleRun):
        tonic = parse_tonic(material.tonic)
        known = _MAJOR if material.scale in _MAJORS else _MINOR if material.scale in _MINORS else None
        if known is None or (material.scale == "melodic_minor" and tonic.midi % 12 in _NOT_MELODIC):
            return None
        row = known[hand].get(tonic.midi % 12)
        return (tonic, material.tones, row) if row else None
    if isinstance(material, Arpeggio) and material.chord in {"major_triad", "minor_triad"}:
        tonic, tones = parse_tonic(material.tonic), chord_named(material.chord)
        black = _BLACK_TRIADS[hand].get((tonic.midi % 12, material.chord))
        if tonic.midi % 12 in _BLACK:
            return (tonic, tones, black) if black else None
        return tonic, tones, black or _triad(tonic, tones, hand)
    return None


def _five_fingers(
    material: Material | None, hand: Hand, pitches: tuple[Pitch | None, ...]
) -> tuple[Touch | None, ...] | None:
    """Return a finger for each of five neighbours that step up the scale; None for other material."""
    if not isinstance(material, Sequence_) or set(material.figure) != set(range(5)) or material.tones.degrees < 7:
        return None
    found: list[Touch | None] = []
    size = len(material.figure)
    for at in range(0, len(pitches), size):
        group = [pitch.midi for pitch in pitches[at : at + size] if pitch]
        places = {midi: place for place, midi in enumerate(sorted(set(group)))}
        found += [Touch(places[midi] + 1 if hand == "right" else 5 - places[midi]) for midi in group]
    return tuple(found)


def _triad(tonic: Pitch, tones: Scale, hand: Hand) -> Row:
    """Return the row of a triad on a white key: the left hand takes a wide, black third with 3, another with 4."""
    if hand == "right":
        return 1, "123", 5
    third = tones.up[1][1]
    is_wide_and_black = third == 4 and (tonic.midi + third) % 12 in _BLACK
    return 5, "132" if is_wide_and_black else "142", 1


def _by_table(tonic: Pitch, tones: Scale, row: Row, pitches: Sequence[Pitch | None]) -> list[int | None] | None:
    """Return fingers by the degree of each note; None where a note is no degree."""
    lowest, inner, highest = row
    degrees = {semitones: place for place, (_, semitones) in [*enumerate(tones.down), *enumerate(tones.up)]}
    midis = [pitch.midi for pitch in pitches if pitch]
    bottom, top = min(midis, default=0), max(midis, default=0)
    fingers: list[int | None] = []
    for pitch in pitches:
        if pitch is None:
            fingers.append(None)
            continue
        degree = degrees.get((pitch.midi - tonic.midi) % 12)
        if degree is None:
            return None
        edge = lowest if pitch.midi == bottom else highest if pitch.midi == top else None
        fingers.append(edge if edge is not None and degree == 0 else int(inner[degree]))
    return fingers


@lru_cache(maxsize=256)
def _by_rule(hand: Hand, midis: tuple[int | None, ...]) -> tuple[Touch | None, ...]:
    """Return the cheapest fingers: neighbours lie under neighbours, the thumb goes under and stays off black keys.

    The left hand is the right one in a mirror. The weights are our choice (docs/decisions/0007).

    >>> [touch.finger for touch in _by_rule("right", (60, 62, 64, 65, 67, 69, 71, 72)) if touch]
    [1, 2, 3, 1, 2, 3, 4, 5]
    """
    mirrored = [midi if hand == "right" or midi is None else -midi for midi in midis]
    placed = [(at, midi) for at, midi in enumerate(mirrored) if midi is not None]
    found: list[Touch | None] = [None] * len(midis)
    if not placed:
        return tuple(found)
    cost = [_holding(finger, placed[0][1], hand) for finger in range(1, 6)]
    backs: list[list[int]] = []
    for (_, before), (_, after) in pairwise(placed):
        back, now = [], []
        for finger in range(1, 6):
            ways = [cost[old - 1] + _stepping(old, finger, after - before) for old in range(1, 6)]
            best = min(range(5), key=ways.__getitem__)
            back.append(best)
            now.append(ways[best] + _holding(finger, after, hand))
        cost = now
        backs.append(back)
    best = min(range(5), key=cost.__getitem__)
    for (at, _), back_row in zip(reversed(placed), [*reversed(backs), None], strict=True):
        found[at] = Touch(best + 1)
        if back_row is not None:
            best = back_row[best]
    return tuple(found)


def _holding(finger: int, midi: int, hand: Hand) -> float:
    """Return what a finger costs on a key: short ones stay off the black keys."""
    key = midi if hand == "right" else -midi
    if key % 12 not in _BLACK:
        return 0.0
    return {1: 2.0, 5: 1.0}.get(finger, 0.0)


def _stepping(old: int, new: int, up: int) -> float:
    """Return what it costs to go so many semitones up from one finger of the right hand to another."""
    if up == 0:
        return 0.0 if old == new else 1.0
    if up < 0:
        old, new, up = new, old, -up
    if old == new:
        return 6.0
    if new > old:
        # Neighbouring fingers lie a whole tone apart, more or less.
        return 0.4 * abs(up - 2 * (new - old)) if up <= 3 * (new - old) + 2 else 4.0
    if new == 1 and old in {2, 3, 4} and up <= 5:
        return {2: 1.6, 3: 1.0, 4: 1.2}[old] + 0.02 * up
    return _NEVER
