"""What is said by its name: each phrase of the vocabulary with what it sets, misspelt by a letter too."""

from collections.abc import Iterator
from dataclasses import replace
from functools import cache
from typing import Any

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import Backbeat, EachBeat, NoAccents
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import ByOrder, Economy
from ripresa.core.drill.material import Arpeggio, LongNotes, OneNote, Picked, ScaleRun, Strum
from ripresa.core.drill.second import Contrary, Parallel, SecondHand
from ripresa.core.exact import Fraction, fraction_of
from ripresa.core.pitch import CHORDS, SCALES
from ripresa.core.rhythm import Swing
from ripresa.core.say.chip import Change, Found, Reader, of_run, setting
from ripresa.core.say.patterns import division_words
from ripresa.core.say.vocabulary import (
    ARPEGGIO_WORDS,
    ARTICULATION_WORDS,
    CHORD_WORDS,
    CLICK_WORDS,
    COUNTED_IN,
    FILLERS,
    HAND_WORDS,
    INSTRUMENT_WORDS,
    MATERIAL_WORDS,
    METER_WORDS,
    OTHER_WORDS,
    PATTERN_WORDS,
    SCALE_WORDS,
    SEAM_WORDS,
    SHAPE_WORDS,
)

_MOST_WORDS = 6
#: What it sets, what that is called, the change, and its rank.
Entry = tuple[str, str, Change, int]


def phrases(read: Reader) -> Iterator[Found]:
    """Yield what the words from a place mean by their names, the longest phrase first."""
    for length in range(_MOST_WORDS, 0, -1):
        text = read.text(length)
        # “minor” before “arpeggio” is a chord.
        if text in _table() and not (text in CHORD_WORDS and _is_chord_name(read, length)):
            sets, says, change, rank = _table()[text]
            yield read.chip(length, sets, says, change, rank)
            break
    yield from _arpeggio(read)


@cache
def known_words() -> frozenset[str]:
    """Return each word that is understood, alone or in a phrase."""
    said = (*_table(), *CHORD_WORDS, *ARPEGGIO_WORDS, *division_words(), *COUNTED_IN, *PATTERN_WORDS, *FILLERS)
    return frozenset(word for phrase in said for word in phrase.split())


def _is_chord_name(read: Reader, length: int) -> bool:
    return any(read.is_one(length + after, *ARPEGGIO_WORDS) for after in (0, 1))


def _arpeggio(read: Reader) -> Iterator[Found]:
    """Yield an arpeggio: ``minor seventh arpeggio``, ``arpeggio``."""
    for length in (3, 2, 1, 0):
        name = read.text(length) if length else ""
        word = read.text(1, length)
        if word in ARPEGGIO_WORDS and (not length or name in CHORD_WORDS):
            chord = CHORD_WORDS.get(name, "major_triad")
            yield read.chip(length + 1, "notes", f"{CHORDS[chord].name} arpeggio", _as_arpeggio(chord), 1)
            return


def _as_arpeggio(chord: str) -> Change:
    def change(drill: Drill) -> Drill:
        return replace(drill, material=Arpeggio(tonic=getattr(drill.material, "tonic", "C"), chord=chord))

    return change


@cache
def _table() -> dict[str, Entry]:
    """Return every phrase of the vocabulary with what it sets."""
    table: dict[str, Entry] = {}
    for text, key in SCALE_WORDS.items():
        table[text] = ("notes", SCALES[key].name, _scale(key), 3)
    for text, shape in SHAPE_WORDS.items():
        table[text] = ("notes", text, of_run("shape", shape), 4)
    for text, meter in METER_WORDS.items():
        table[text] = ("meter", meter, setting("meter", meter), 3)
    for text, plan in CLICK_WORDS.items():
        table[text] = ("click", text, setting("click", NamedClick(plan=plan)), 6)
    for text, cycle in HAND_WORDS.items():
        table[text] = ("hands", text, _hands(cycle), 6)
    for text, seam in SEAM_WORDS.items():
        table[text] = ("rhythm", text, setting("seam", seam), 6)
    for text, share in ARTICULATION_WORDS.items():
        table[text] = ("sound", text, setting("articulation", fraction_of(share)), 6)
    for text, key in INSTRUMENT_WORDS.items():
        table[text] = ("instrument", text, setting("instrument", key), 5)
    for text, kind in MATERIAL_WORDS.items():
        table[text] = ("notes", text, _material(kind), 0)
    for text, name in OTHER_WORDS.items():
        sets, change, rank = _OTHERS[name]
        table[text] = (sets, name, change, rank)
    return table


def _hands(cycle: str) -> Change:
    hands = Economy() if cycle == "economy" else ByOrder(cycle=tuple(cycle.split()))

    def change(drill: Drill) -> Drill:
        # Economy picking follows the strings.
        needs_strings = isinstance(hands, Economy) and not drill.plays_on.strings
        return replace(drill, hands=hands, instrument="guitar" if needs_strings else drill.instrument)

    return change


def _two_hands(second: SecondHand) -> Change:
    def change(drill: Drill) -> Drill:
        instrument = drill.instrument if drill.plays_on.voice == "keys" else "piano"
        return replace(drill, second=second, instrument=instrument)

    return change


def _scale(key: str) -> Change:
    def change(drill: Drill) -> Drill:
        material: Any = drill.material
        if isinstance(material, Arpeggio):
            return drill
        if not hasattr(material, "scale"):
            material = ScaleRun(tonic=getattr(material, "tonic", "C"))
        return replace(drill, material=replace(material, scale=key))

    return change


_FRESH: dict[str, Any] = {
    "one_note": OneNote(),
    "long_notes": LongNotes(),
    "strum": Strum(),
    "picked": Picked(),
}


def _material(kind: str) -> Change:
    def change(drill: Drill) -> Drill:
        if isinstance(drill.material, type(_FRESH[kind])):
            return drill
        needs_strings = kind == "picked" and not drill.plays_on.strings
        return replace(drill, material=_FRESH[kind], instrument="guitar" if needs_strings else drill.instrument)

    return change


def _times(share: Fraction) -> Change:
    return lambda drill: replace(drill, bpm=drill.bpm * share)


def _twice(drill: Drill) -> Drill:
    doubled = tuple(Leg(leg.division * 2, tuple(one * 2 for one in leg.following)) for leg in drill.legs)
    return replace(drill, legs=doubled)


#: What has no table of its own: its line, its change and its rank, by its name.
_OTHERS: dict[str, tuple[str, Change, int]] = {
    "no accents": ("accents", setting("accents", NoAccents()), 5),
    "each beat": ("accents", setting("accents", EachBeat()), 5),
    "2 and 4": ("accents", setting("accents", Backbeat()), 5),
    "swing": ("rhythm", setting("swing", Swing(ratio=Fraction(2))), 6),
    "straight": ("rhythm", setting("swing", Swing()), 6),
    "both hands": ("left hand", _two_hands(SecondHand(plays=Parallel())), 6),
    "contrary motion": ("left hand", _two_hands(SecondHand(plays=Contrary())), 6),
    "with fingering": ("hands", setting("fingering", "usual"), 6),
    "three notes a string": ("hands", setting("fingering", "three_a_string"), 7),
    "half the tempo": ("tempo", _times(Fraction(1, 2)), 7),
    "twice the tempo": ("tempo", _times(Fraction(2)), 7),
    "twice the notes": ("rhythm", _twice, 9),
}
