"""Keys: the fingers that are printed for scales, modes, chromatic scales, triads and sevenths, an octave like the next.

A row has a finger for each degree, the thumb 1, as it goes on from octave to octave; the first and the last note of a
run take what the hand has free (:mod:`.keys`). Majors and minors as in C.-L. Hanon, *Le pianiste virtuose*, 1873,
no. 39, arpeggios as in nos. 41 and 42. Where books differ, ours is one of their ways.
"""

from collections.abc import Iterator
from functools import lru_cache
from itertools import pairwise
from typing import Literal

from ripresa.core.drill.material import Arpeggio, ScaleRun
from ripresa.core.pitch import Scale, parse_tonic

Hand = Literal["left", "right"]
#: Fingers of the degrees on the way up, and on the way down.
Row = tuple[str, str]

BLACK = frozenset({1, 3, 6, 8, 10})
#: Where the thumb of a scale on white keys goes under: the fourth degree; over to: the fifth.
_PLAIN: dict[Hand, str] = {"right": "1231234", "left": "1432132"}


def _by_tonic(**named: str) -> dict[int, str]:
    """Return rows by the pitch class of the tonic; ``s`` stands for a sharp."""
    return {parse_tonic(name.replace("s", "#")).midi % 12: row for name, row in named.items()}


_MAJOR: dict[Hand, dict[int, str]] = {
    "right": _by_tonic(
        **dict.fromkeys(("C", "D", "E", "G", "A", "B"), _PLAIN["right"]),
        F="1234123",
        Bb="4123123",
        Eb="3123412",
        Ab="3412312",
        Db="2312341",
        Gb="2341231",
    ),
    "left": _by_tonic(
        **dict.fromkeys(("C", "D", "E", "F", "G", "A"), _PLAIN["left"]),
        **dict.fromkeys(("Bb", "Eb", "Ab", "Db"), "3214321"),
        B="1321432",
        Gb="4321321",
    ),
}
_MINOR: dict[Hand, dict[int, str]] = {
    "right": _by_tonic(
        **dict.fromkeys(("C", "D", "E", "G", "A", "B"), _PLAIN["right"]),
        **dict.fromkeys(("Cs", "Fs", "Gs"), "3412312"),
        F="1234123",
        Bb="4123123",
        Eb="3123412",
    ),
    "left": _by_tonic(
        **dict.fromkeys(("C", "D", "E", "F", "G", "A"), _PLAIN["left"]),
        **dict.fromkeys(("Cs", "Gs"), "3214321"),
        B="1321432",
        Fs="4321321",
        Bb="2132143",
        Eb="2143213",
    ),
}
#: (hand, form, tonic) of the minors whose raised or lowered degrees ask for another thumb.
_OTHER_MINORS: dict[tuple[Hand, str, int], Row] = {
    **{("right", "melodic_minor", tonic): ("2312341", "3412312") for tonic in (1, 6)},
    ("left", "natural_minor", 8): ("3213214", "3213214"),
    ("left", "melodic_minor", 8): ("3214321", "3213214"),
}
#: Mode → semitones of its tonic over that of the major scale with the same notes.
_MODES = {"dorian": 2, "phrygian": 4, "lydian": 5, "mixolydian": 7, "locrian": 11}
_MAJOR_STEPS = (0, 2, 4, 5, 7, 9, 11)

#: Pitch class → finger of a chromatic scale: the third on black keys.
_CHROMATIC: dict[Hand, str] = {"right": "231312313131", "left": "131321313132"}
#: (hand, chord, tonic) of triads on black keys that the rule of :func:`_of_chord` does not give.
_OTHER_TRIADS: dict[tuple[Hand, str, int], str] = {
    ("right", "minor_triad", 10): "231",
    ("left", "major_triad", 10): "321",
    ("left", "minor_triad", 10): "321",
}
#: Semitones under a thumb that the third finger still spans in a triad; the fourth takes what lies further.
_THIRD_SPANS = 7


def row_of(material: ScaleRun | Arpeggio, hand: Hand) -> Row:
    """Return the fingers of a scale's degrees or a chord's tones, on the way up and down."""
    tonic, tones = parse_tonic(material.tonic).midi % 12, material.tones
    if isinstance(material, Arpeggio):
        row = _of_chord(tonic, material.chord, tones, material.start - 1, hand)
        return row, row
    return _of_scale(tonic, material.scale, tones, hand)


def _of_scale(tonic: int, name: str, tones: Scale, hand: Hand) -> Row:
    if name == "chromatic":
        row = "".join(_CHROMATIC[hand][(tonic + above) % 12] for above in range(12))
        return row, row
    if name == "major":
        return (_MAJOR[hand][tonic],) * 2
    if name.removesuffix("_minor") in {"natural", "harmonic", "melodic"}:
        return _OTHER_MINORS.get((hand, name, tonic), (_MINOR[hand][tonic],) * 2)
    if name in _MODES:
        return (_of_mode(tonic, tones, _MODES[name], hand),) * 2
    up, down = (tuple(semitones for _, semitones in way) for way in (tones.up, tones.down))
    return best_row(tonic, up, hand), best_row(tonic, down, hand)


def _of_mode(tonic: int, tones: Scale, over: int, hand: Hand) -> str:
    """Return a mode's fingers: as C major where that keeps the thumb on white keys, else those of its major scale."""
    plain = _PLAIN[hand]
    thumbs = [semitones for (_, semitones), finger in zip(tones.up, plain, strict=True) if finger == "1"]
    if all((tonic + semitones) % 12 not in BLACK for semitones in thumbs):
        return plain
    row, first = _MAJOR[hand][(tonic - over) % 12], _MAJOR_STEPS.index(over)
    return row[first:] + row[:first]


def _of_chord(tonic: int, name: str, tones: Scale, start: int, hand: Hand) -> str:
    """Return the fingers of a chord's tones from its root: the thumb takes the first note, or the first white one.

    The other fingers follow it in turn; in a triad the third spans a fifth from the thumb, the fourth what lies
    further, but for a black major third under the left hand's root.
    """
    other = _OTHER_TRIADS.get((hand, name, tonic))
    if other and (tonic + tones.up[start][1]) % 12 in BLACK:
        return other
    count = tones.degrees
    places = [tones.degree(start + index)[1] for index in range(2 * count)]
    white = [index for index in range(count) if (tonic + places[index]) % 12 not in BLACK]
    thumb = white[0] if white else 0
    if count > 4:
        return best_row(tonic, tuple(semitones for _, semitones in tones.up), hand)
    found = ["1"] * count
    for far in range(1, count):
        at = (thumb + far if hand == "right" else thumb - far) % count
        span = (
            places[thumb + far] - places[thumb]
            if hand == "right"
            else places[thumb + count] - places[thumb + count - far]
        )
        is_last = count < 4 and far == count - 1
        found[at] = str(far + 1)
        if is_last and count == 3:
            under = hand == "left" and (start + thumb) % count == 0 and (tonic + tones.up[1][1]) % 12 in BLACK
            found[at] = "3" if span <= _THIRD_SPANS or (under and tones.up[1][1] == 4) else "4"
    turned = "".join(found)
    return turned[count - start :] + turned[: count - start]


@lru_cache(maxsize=256)
def best_row(tonic: int, steps: tuple[int, ...], hand: Hand) -> str:
    """Return the fingers of a scale that no table has: thumbs on white keys, as few as can be, each after a black key.

    Args:
        tonic: Its pitch class. steps: Semitones of its degrees over the tonic.

    >>> best_row(0, (0, 2, 4, 5, 7, 9, 11), "right"), best_row(0, (0, 2, 4, 7, 9), "right")
    ('1231234', '12312')
    """
    count = len(steps)
    keys = [tonic + semitones for semitones in steps]

    def cost(thumbs: tuple[int, ...]) -> tuple[int, int, int, int, int]:
        black = sum(keys[at] % 12 in BLACK for at in thumbs)
        # The hand goes on past the thumb from its neighbour: under it in the right hand, over it in the left.
        side = -1 if hand == "right" else 1
        eased = sum(keys[(at + side) % count] % 12 in BLACK for at in thumbs)
        widths = [(after - before - 1) % count + 1 for before, after in pairwise((*thumbs, thumbs[0]))]
        reach = sum(max(0, _distance(keys, at, width, hand) - 8) for at, width in zip(thumbs, widths, strict=True))
        off = 0 not in thumbs and keys[0] % 12 not in BLACK
        return black, off, len(thumbs), reach, -eased

    # Of two that are as good, the longer group comes first, but for the right hand of seven notes.
    order = 1 if hand == "right" and count == len(_MAJOR_STEPS) else -1
    found = min(_thumbs(count), key=lambda thumbs: (cost(thumbs), tuple(order * at for at in thumbs)))
    fingers = ["1"] * count
    side = 1 if hand == "right" else -1
    for thumb in found:
        far = 1
        while (at := (thumb + side * far) % count) not in found:
            fingers[at] = str(far + 1)
            far += 1
    return "".join(fingers)


def _distance(keys: list[int], at: int, width: int, hand: Hand) -> int:
    """Return the semitones from a thumb to the furthest key of its group."""
    far = at + width - 1 if hand == "right" else at - width + 1
    octaves, place = divmod(far, len(keys))
    return abs(keys[place] + 12 * octaves - keys[at])


def _thumbs(count: int) -> Iterator[tuple[int, ...]]:
    """Yield every choice of degrees for the thumb with one to four notes from one to the next, around the octave."""

    def onward(chosen: tuple[int, ...]) -> Iterator[tuple[int, ...]]:
        if 2 <= count - chosen[-1] + chosen[0] <= 4:
            yield chosen
        for after in range(chosen[-1] + 2, min(chosen[-1] + 5, count)):
            yield from onward((*chosen, after))

    for first in range(min(4, count)):
        yield from onward((first,))
