"""Variant sets: one drill turned through a list, none forgotten; each variant keeps its own clean tempo and click."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ripresa.core.changes.overrides import MOST_STATIONS, Overrides, overridden, told_overrides
from ripresa.core.drill import Drill
from ripresa.core.drill.hands import ARTICULATION_PATTERNS, ByOrder
from ripresa.core.drill.material import Line, OneNote, scale_of
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import Fraction
from ripresa.core.pitch import LETTERS, parse_tonic
from ripresa.core.reading import places, read
from ripresa.core.rhythm import span_seconds

Turned = Literal[
    "stations",
    "keys",
    "fourths",
    "semitones",
    "places",
    "leads",
    "letters",
    "articulations",
    "feet",
    "letters_feet",
    "hand_letters",
    "hand_letters_feet",
    "stations_leads",
]

TURNED: dict[Turned, tuple[str, str]] = {
    "stations": ("the accent on each slot", "Every slot of the beat gets its turn, and its own clean tempo."),
    "keys": ("all keys, by fifths", "One sharp more each time, twelve of them, back to where it began."),
    "fourths": ("all keys, by fourths", "Round the other way: one flat more each time."),
    "semitones": ("all keys, by semitones", "Up the neck or the keys, one step each time."),
    "places": ("each place on the neck", "The positions in which it lies, one after the other, up to the octave."),
    "leads": ("both leads", "The weak hand first is another drill."),
    "letters": ("each letter first", "The names of the notes from A to G, forwards and then backwards."),
    "articulations": ("each pattern of tongue and slur", "The fingers stay the same, the tongue changes."),
    "feet": ("either foot", "The foot that keeps the beat changes, the hands stay."),
    "letters_feet": (
        "each letter first, on either foot",
        "Every letter, forwards and backwards, over every foot.",
    ),
    "hand_letters": ("each hand or finger first", "The cycle of the hands begins with each of its symbols."),
    "hand_letters_feet": ("each hand or finger first, on either foot", "Every beginning of the hands over every foot."),
    "stations_leads": ("the accent on each slot, with both leads", "Every slot gets its accent from either hand."),
}
#: Round by fifths, in the spelling that has the fewer signs.
_NOTHING = Overrides()
#: What makes a list of a drill.
_Lists = Callable[[Drill, Overrides], Sequence[Overrides]]
_FIFTHS = ("C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F")
_MINOR_FIFTHS = ("A", "E", "B", "F#", "C#", "G#", "Eb", "Bb", "F", "C", "G", "D")


@dataclass(frozen=True, slots=True)
class Variant:
    """One of a set: what is laid over the drill, and what it is called."""

    name: str
    overrides: Overrides


@dataclass(frozen=True, slots=True)
class VariantSet:
    """A drill turned through a list, in the order in which it is gone through.

    Args:
        left_out: What the list has too and this drill cannot be, with the reason.
        seconds: How long once through all of them takes.
    """

    variants: tuple[Variant, ...]
    left_out: tuple[str, ...]
    seconds: Fraction


def variant_set(drill: Drill, turned: Turned, bpm: Fraction, over: Overrides = _NOTHING) -> VariantSet:
    """Return a drill turned through a list.

    Args:
        bpm: The tempo for its time. over: What every one of them has besides.

    Raises:
        OutOfRange: The drill has nothing that could be turned so.
    """
    found: list[Variant] = []
    left_out: list[str] = []
    seconds = Fraction(0)
    for changed in _LISTS[turned](drill, over):
        try:
            reading = read(overridden(drill, changed))
        except RipresaError as error:
            left_out.append(error.message)
            continue
        found.append(Variant(", ".join(told_overrides(drill, changed)) or "as it is written", changed))
        seconds += span_seconds(reading.loop_beats, bpm)
    if len(found) < 2:
        why = left_out[0] if left_out else _WHY_NOT.get(turned, "There is only one of it.")
        raise OutOfRange(f"No set of {TURNED[turned][0]} can be made of this drill. {why}", field="turned")
    return VariantSet(tuple(found), tuple(dict.fromkeys(left_out)), seconds)


_NO_LETTERS = "Letters of notes are said on one note. Choose it as material."
#: Why a list is empty or has one alone, where the drill itself does not say it.
_WHY_NOT: dict[Turned, str] = {
    "letters": _NO_LETTERS,
    "letters_feet": _NO_LETTERS,
    "places": "Places are of a scale or an arpeggio on strings.",
}


def _stations(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    most = max((leg.fastest for leg in drill.legs if leg.fastest.denominator == 1), default=Fraction(1))
    return [replace(over, station=slot) for slot in range(min(MOST_STATIONS, int(most)))]


def _keys(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    tonic = over.key or getattr(drill.material, "tonic", "C")
    same = parse_tonic(tonic)
    circle = _MINOR_FIFTHS if _is_minor(drill) else _FIFTHS
    begin = next(number for number, one in enumerate(circle) if parse_tonic(one).midi % 12 == same.midi % 12)
    return [replace(over, key=circle[(begin + number) % len(circle)]) for number in range(len(circle))]


def _is_minor(drill: Drill) -> bool:
    """Whether a drill is in minor: its scale or chord, or a line with a minor third over its tonic and no major one."""
    material = drill.material
    if isinstance(material, Line):
        tonic = parse_tonic(material.tonic)
        over = {(pitch.midi - tonic.midi) % 12 for note in material.played if (pitch := note.pitch(tonic))}
        return 3 in over and 4 not in over
    scale = scale_of(material)
    return scale is not None and scale[1].is_minor


def _fourths(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    first, *rest = _keys(drill, over)
    return [first, *reversed(rest)]


def _semitones(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    first, *rest = _keys(drill, over)
    root = parse_tonic(first.key).midi
    return [first, *sorted(rest, key=lambda one: (parse_tonic(one.key).midi - root) % 12)]


def _places(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    scale = scale_of(drill.material)
    found = places(drill.plays_on, *scale) if scale else ()
    return [replace(over, place=fret) for fret in found]


def _each_of(outer: _Lists, inner: _Lists) -> _Lists:
    """Return a list that goes through the inner one for each of the outer one."""
    return lambda drill, over: [one for outer_one in outer(drill, over) for one in inner(drill, outer_one)]


def _leads(_drill: Drill, over: Overrides) -> Sequence[Overrides]:
    return [replace(over, other_lead=False), replace(over, other_lead=True)]


def _letters(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    if not isinstance(drill.material, OneNote):
        return []
    return [replace(over, says=way, said_first=letter) for way in ("forward", "backward") for letter in sorted(LETTERS)]


def _hand_letters(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    hands = drill.hands
    length = len(hands.cycle) if isinstance(hands, ByOrder) else 1
    return [replace(over, letter=number) for number in range(length)]


def _articulations(drill: Drill, over: Overrides) -> Sequence[Overrides]:
    most = max(leg.fastest for leg in drill.legs)
    size = 3 if most.numerator % 3 == 0 and most.denominator == 1 else 4
    keys = [key for key, (cycle, _, _) in ARTICULATION_PATTERNS.items() if not cycle or size % len(cycle) == 0]
    return [replace(over, articulation=key) for key in keys]


def _feet(_drill: Drill, over: Overrides) -> Sequence[Overrides]:
    return [replace(over, foot="left"), replace(over, foot="right")]


_LISTS: dict[Turned, _Lists] = {
    "stations": _stations,
    "keys": _keys,
    "fourths": _fourths,
    "semitones": _semitones,
    "places": _places,
    "leads": _leads,
    "letters": _letters,
    "articulations": _articulations,
    "feet": _feet,
    "letters_feet": _each_of(_letters, _feet),
    "hand_letters": _hand_letters,
    "hand_letters_feet": _each_of(_hand_letters, _feet),
    "stations_leads": _each_of(_stations, _leads),
}
