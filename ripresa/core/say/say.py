"""A drill said in one line: the words that are understood, what each sets, and what is not understood.

Order is free. What is not said stays as it was; a new drill begins in eighths at 72, as a scale or as one note.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction, capital
from ripresa.core.rhythm import meter_named
from ripresa.core.say.chip import Chip, Found, Reader
from ripresa.core.say.patterns import PATTERNS
from ripresa.core.say.phrases import known_words, phrases
from ripresa.core.say.vocabulary import FILLERS
from ripresa.core.say.words import corrected, near, words_of

#: A sentence is read up to so many signs.
LONGEST = 400
_MOST_NEAR = 3
_LONGEST_TITLE = 200
#: Lines that say which notes are played.
_OF_PITCH = frozenset({"notes", "key", "chords", "octaves", "start", "position", "left hand", "fingers"})
#: What changes the stages that were said comes after them.
_AFTER_THE_STAGES = 9


@dataclass(frozen=True, slots=True)
class Unknown:
    """A word that was not understood, where it stands, and the nearest words that are."""

    text: str
    start: int
    end: int
    near: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Said:
    """What came of a sentence: the drill, its chips, what was not understood, and what of it could not be done."""

    drill: Drill
    chips: tuple[Chip, ...]
    unknown: tuple[Unknown, ...]
    refused: str = ""


def say(text: str, drill: Drill | None = None) -> Said:
    """Return the drill that a sentence means; of a drill that is given, with what it changes of it.

    >>> said = say("D dorian two octaves triplets then sixteenths groups of five 84")
    >>> [chip.says for chip in said.chips]
    ['D', 'dorian', '2 octaves', 'triplets', 'sixteenths', 'groups of 5', '84 bpm']
    """
    known = known_words()
    words = [corrected(word, known) for word in words_of(text[:LONGEST])]
    chips: list[Chip] = []
    unknown: list[Unknown] = []
    at = 0
    while at < len(words):
        found = _read(Reader(words, at))
        if found is not None:
            length, chip = found
            chips.append(chip)
            at += length
            continue
        word = words[at]
        if word.text not in FILLERS:
            unknown.append(
                Unknown(word.typed, word.start, word.end, tuple(near(word.text, known - FILLERS, _MOST_NEAR)))
            )
        at += 1
    begin = drill or _new(text, chips)
    made, refused = _applied(begin, chips)
    return Said(made, tuple(chips), tuple(unknown), refused)


def _new(text: str, chips: Sequence[Chip]) -> Drill:
    """Return what a new drill begins with: where nothing is said of pitch it is one note, else a scale."""
    says_pitch = not chips or any(chip.sets in _OF_PITCH for chip in chips)
    return Drill(title=_title(text, chips), material=ScaleRun() if says_pitch else OneNote(), legs=(Leg(Fraction(2)),))


def _title(text: str, chips: Sequence[Chip]) -> str:
    """Return what a drill is called after what was said of it: ``D dorian, triplets then sixteenths, groups of 5``."""

    def said(joined: str, *sets: str) -> str:
        return joined.join(chip.says for chip in chips if chip.sets in sets)

    parts = [said(" ", "key", "notes", "chords"), said(" then ", "rhythm"), said(", ", "accents", "hands", "left hand")]
    title = ", ".join(part for part in parts if part) or " ".join(text.split())
    return capital(title)[:_LONGEST_TITLE] or "New drill"


def _read(read: Reader) -> Found | None:
    """Return how many words are understood together from a place, and as what; of several ways the longest."""
    found = [one for pattern in PATTERNS if (one := pattern(read)) is not None]
    found += phrases(read)
    return max(found, key=lambda one: one[0]) if found else None


def _applied(drill: Drill, chips: Sequence[Chip]) -> tuple[Drill, str]:
    """Return a drill with what chips ask for, and the first sentence on what could not be done."""
    refused: list[str] = []
    ordered = sorted(chips, key=lambda chip: chip.rank)
    for chip in (one for one in ordered if one.rank < _AFTER_THE_STAGES):
        drill = _tried(drill, chip, refused)
    counted = meter_named(drill.meter).counted
    stages = [chip.division(counted) for chip in chips if chip.division is not None]
    if stages:
        try:
            drill = replace(drill, legs=tuple(Leg(one) for one in stages))
        except RipresaError as error:
            refused.append(error.message)
    for chip in (one for one in ordered if one.rank >= _AFTER_THE_STAGES):
        drill = _tried(drill, chip, refused)
    return drill, refused[0] if refused else ""


def _tried(drill: Drill, chip: Chip, refused: list[str]) -> Drill:
    try:
        return chip.change(drill)
    except RipresaError as error:
        refused.append(error.message)
        return drill
