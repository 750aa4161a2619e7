"""Keys: which finger takes each note, by the tables where they have it, else by a rule, every octave like the first."""

from collections.abc import Sequence
from functools import lru_cache

from ripresa.core.drill.material import Arpeggio, Line, Material, ScaleRun
from ripresa.core.drill.material import Sequence as Sequence_
from ripresa.core.grid import Touch
from ripresa.core.pitch import Pitch, directions, parse_tonic
from ripresa.core.reading.fingering.key_rule import by_rule
from ripresa.core.reading.fingering.key_tables import Hand, row_of

Pitches = tuple[Pitch | None, ...]
Fingers = Sequence[int | None]

_OCTAVE = 12
#: Neighbours that lie under five fingers: letters, and semitones at the most.
_FIVE, _HAND = 5, 8
_TRIAD, _SEVENTH = 3, 4
#: Broken triads of three tones by their inversion.
_BROKEN: dict[Hand, tuple[str, str, str]] = {"right": ("135", "125", "135"), "left": ("531", "531", "521")}
#: Triads of four tones, root to root, by their inversion.
_BLOCKED: dict[Hand, tuple[str, str, str]] = {"right": ("1235", "1245", "1245"), "left": ("5421", "5421", "5321")}


def on_keys(material: Material | None, hand: Hand, pitches: Pitches) -> tuple[Touch | None, ...]:
    """Return the finger of each note, 1 for the thumb; None for a note without pitch."""
    found = _known(material, hand, pitches) or by_rule(hand, tuple(pitch.midi if pitch else None for pitch in pitches))
    return tuple(Touch(finger) if finger else None for finger in found)


def _known(material: Material | None, hand: Hand, pitches: Pitches) -> Fingers | None:
    match material:
        case ScaleRun() | Arpeggio():
            return _by_degree(material, hand, pitches)
        case Sequence_():
            return _figures(material, hand, pitches)
        case Line():
            return _five_fingers(hand, pitches)
        case _:
            return None


def _by_degree(material: ScaleRun | Arpeggio, hand: Hand, pitches: Pitches) -> Fingers | None:
    """Return fingers by the degree of each note and the way it goes; None where a note is no degree."""
    tonic, tones = parse_tonic(material.tonic).midi, material.tones
    rows = row_of(material, hand)
    is_chord = isinstance(material, Arpeggio)
    midis = [pitch.midi for pitch in pitches if pitch]
    bottom, top = min(midis, default=0), max(midis, default=0)
    found: list[int | None] = []
    for pitch, down in zip(pitches, directions(pitches), strict=True):
        if pitch is None:
            found.append(None)
            continue
        above = (pitch.midi - tonic) % _OCTAVE
        ways = (tones.down, tones.up) if down else (tones.up, tones.down)
        degrees = [[semitones for _, semitones in way] for way in ways]
        row = rows[down]
        if above in degrees[0]:
            degree = degrees[0].index(above)
        elif above in degrees[1]:
            degree, row = degrees[1].index(above), rows[not down]
        else:
            return None
        found.append(_at_edge(row, degree, hand, pitch.midi, bottom, top, is_chord=is_chord))
    return found


def _at_edge(row: str, degree: int, hand: Hand, midi: int, bottom: int, top: int, *, is_chord: bool) -> int:
    """Return the finger of a degree; at the ends of a run, where nothing passes, what the hand has free."""
    count = len(row)
    if count == _OCTAVE:
        # Chromatic: the thumb takes the first of two white neighbours too where the run begins.
        return 1 if hand == "right" and midi == bottom and row[degree] == "2" else int(row[degree])
    turned = row[degree:] + row[:degree]
    if hand == "right" and midi == top and row[degree] == "1":
        # As many fingers as there are notes since the last thumb.
        return _FIVE if is_chord else count - turned.rindex("1") + 1
    if hand == "left" and midi == bottom and row[degree] == "1":
        return _FIVE if is_chord else (turned + "1").index("1", 1) + 1
    if hand == "right" and midi == bottom and turned.startswith("41") and not is_chord:
        # One black key before the thumb: the second finger lies nearer.
        return 2
    return int(row[degree])


def _figures(material: Sequence_, hand: Hand, pitches: Pitches) -> Fingers | None:
    """Return the fingers of figures: five fingers, chords in one grip, else by the rule, alike in each octave."""
    size = len(material.figure)
    groups = [pitches[at : at + size] for at in range(0, len(pitches), size)]
    under = set(material.figure)
    count = material.tones.degrees
    if under == set(range(_FIVE)) and count > _FIVE:
        rows = ["12345" if hand == "right" else "54321"] * len(groups)
    elif count in {_TRIAD, _SEVENTH} and under in ({0, 1, 2}, {0, 1, 2, 3}) and count <= len(under):
        rows = [_grip(material, hand, group, len(under)) for group in groups]
    else:
        return _alike(hand, size, tuple(pitch.midi if pitch else None for pitch in pitches))
    found: list[int | None] = []
    for group, row in zip(groups, rows, strict=True):
        places = sorted({pitch.midi for pitch in group if pitch})
        found += [int(row[places.index(pitch.midi)]) if pitch else None for pitch in group]
    return found


def _grip(material: Sequence_, hand: Hand, group: Pitches, count: int) -> str:
    """Return the fingers of a broken chord under one hand, from its lowest tone."""
    midis = sorted({pitch.midi for pitch in group if pitch})
    above = (midis[0] - parse_tonic(material.tonic).midi) % _OCTAVE
    tones = material.tones
    inversion = next((place for place, (_, semitones) in enumerate(tones.up) if semitones == above), 0)
    if tones.degrees == _TRIAD:
        return (_BROKEN if count == _TRIAD else _BLOCKED)[hand][inversion]
    # Four tones of a seventh: the fourth finger where the fifth lies a step away.
    if hand == "right":
        return "1245" if midis[3] - midis[2] <= 2 else "1235"
    return "5421" if midis[1] - midis[0] <= 2 else "5321"


@lru_cache(maxsize=256)
def _alike(hand: Hand, size: int, midis: tuple[int | None, ...]) -> Fingers | None:
    """Return the fingers of figures by the rule, those that recur an octave further like the first.

    Where they recur, the rule looks at three octaves of them, and the middle one is kept: it goes on at both ends.
    """
    figures = [midis[at : at + size] for at in range(0, len(midis), size)]
    known: dict[tuple[int | None, ...], Fingers] = {}
    shapes = [_shape(figure) for figure in figures]
    for up in (True, False):
        mine = [at for at, figure in enumerate(figures) if _goes_up(figures, at, figure) is up]
        first: list[int] = []
        for at in mine:
            if shapes[at] in {shapes[one] for one in first}:
                break
            first.append(at)
        if len(first) == len(mine):
            continue
        step = _OCTAVE if up else -_OCTAVE
        long = [midi and midi + step * turn for turn in range(3) for at in first for midi in figures[at]]
        fingers = by_rule(hand, tuple(long))
        third = len(long) // 3
        for place, at in enumerate(first):
            known[(int(up), *shapes[at])] = fingers[third + place * size : third + (place + 1) * size]
    if not known:
        return None
    plain = by_rule(hand, midis)
    found: list[int | None] = []
    for at, figure in enumerate(figures):
        key = (int(_goes_up(figures, at, figure)), *shapes[at])
        found += known.get(key, plain[at * size : (at + 1) * size])
    return found


def _shape(figure: tuple[int | None, ...]) -> tuple[int | None, ...]:
    """Return a figure as it lies on the keys, in whichever octave."""
    low = min((midi for midi in figure if midi is not None), default=0)
    return tuple(None if midi is None else midi - low + low % _OCTAVE for midi in figure)


def _goes_up(figures: Sequence[tuple[int | None, ...]], at: int, figure: tuple[int | None, ...]) -> bool:
    """Return whether the figures go up from here; the last goes as the one before it."""
    if at + 1 < len(figures) and figures[at + 1][0] != figure[0]:
        return (figures[at + 1][0] or 0) > (figure[0] or 0)
    return at == 0 or (figure[0] or 0) > (figures[at - 1][0] or 0)


def _five_fingers(hand: Hand, pitches: Pitches) -> Fingers | None:
    """Return a finger for each letter of a line that lies under one hand; None for one that does not."""
    letters = [pitch.letter + 7 * pitch.octave for pitch in pitches if pitch]
    midis = [pitch.midi for pitch in pitches if pitch]
    if not letters or max(letters) - min(letters) >= _FIVE or max(midis) - min(midis) > _HAND:
        return None
    if len(set(letters)) <= 2 or len(set(midis)) > len(set(letters)):
        return None
    low, high = min(letters), max(letters)
    return [
        (letter - low + 1 if hand == "right" else high - letter + 1) if pitch else None
        for pitch in pitches
        for letter in [pitch.letter + 7 * pitch.octave if pitch else 0]
    ]
