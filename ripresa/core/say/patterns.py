"""What is said with numbers, letters and signs: tempi, keys, octaves, groups, chords, hands, positions, divisions."""

import re
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cache
from typing import Any

from ripresa.core.drill import Drill, NeckPlace
from ripresa.core.drill.accents import EveryNth, Walk
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Arpeggio, Count, Picked, ScaleRun, Strum
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction
from ripresa.core.pitch import CHORDS, Chord, parse_chord, show_tonic
from ripresa.core.say.chip import Change, Division, Found, Reader, of_run, setting, unchanged
from ripresa.core.say.vocabulary import (
    ARPEGGIO_WORDS,
    CHORD_WORDS,
    COUNTED_IN,
    METER_WORDS,
    NOTE_WORDS,
    SCALE_WORDS,
    TUPLET_WORDS,
)

#: A number that stands alone is a tempo between these.
_SLOWEST, _FASTEST = 30, 400
_MOST_OCTAVES, _MOST_FRETS, _MOST_DIVISION, _MOST_GROUP = 8, 24, 16, 64
_DEGREES = 7
_TONIC = re.compile(r"^[a-g](b|#)?$")
_METER = re.compile(r"^\d{1,2}/\d{1,2}$")
_COUNTED = re.compile(r"^[>x(~-]*([1-9]|&|e|a|trip|let)\)?$")
_FEWEST_COUNTED = 3
#: Letters that are said together: hands, pick, tongue; fingers of the plucking hand are a pattern over chords.
_FINGERS = frozenset("pima")
_LETTERS = (frozenset("rl"), frozenset("du"), frozenset("tk"), _FINGERS)


def _tempo(read: Reader) -> Found | None:
    """Read ``84``, ``at 84``, ``84 bpm``, ``slower by 10``, ``10 faster``."""
    if read.is_one(0, "slower", "faster"):
        after = 2 if read.is_one(1, "by") else 1
        by = read.number(after)
        return _by(read, after + 1, read.text(1), by) if by is not None else None
    number = read.number()
    if number is None:
        return None
    if read.is_one(1, "slower", "faster"):
        return _by(read, 2, read.text(1, 1), number)
    has_unit = read.is_one(1, "bpm")
    is_asked = has_unit or read.is_one(-1, "at", "tempo", "=", "♩=", "bpm", "♩")
    if not is_asked and not _SLOWEST <= number <= _FASTEST:
        return None
    return read.chip(1 + has_unit, "tempo", f"{number} bpm", setting("bpm", Fraction(number)), 6)


def _by(read: Reader, length: int, way: str, by: int) -> Found:
    signed = Fraction(by if way == "faster" else -by)
    return read.chip(length, "tempo", f"{way} by {by}", lambda drill: replace(drill, bpm=drill.bpm + signed), 7)


def _tonic(read: Reader) -> Found | None:
    """Read a key: a letter in capitals, one after “in”, one before a scale, or one with its sign."""
    word = read.words[read.at]
    if not _TONIC.match(word.text):
        return None
    names = any(read.text(length, 1) in _NAMES for length in (3, 2, 1))
    before_scale = names or read.is_one(1, "scale", *ARPEGGIO_WORDS)
    is_last = not read.has(1)
    # “a” is an article but where it can be nothing else.
    if word.typed == "a" and not (before_scale or (read.is_one(-1, "in") and is_last)):
        return None
    if not (word.typed[0].isupper() or len(word.text) > 1 or read.is_one(-1, "in", "on") or before_scale):
        return None
    tonic = word.text[0].upper() + word.text[1:]

    def change(drill: Drill) -> Drill:
        material: Any = drill.material if hasattr(drill.material, "tonic") else ScaleRun()
        return replace(drill, material=replace(material, tonic=tonic))

    return read.chip(1, "key", show_tonic(tonic), change, 2)


_NAMES = {**SCALE_WORDS, **CHORD_WORDS}


def _octaves(read: Reader) -> Found | None:
    """Read ``two octaves``, ``1 octave``, ``whole range``."""
    if read.is_one(0, "whole", "full") and read.is_one(1, "range"):
        return read.chip(2, "octaves", "the whole range", of_run("octaves", "range"), 4)
    number = read.number()
    if number is None or not 1 <= number <= _MOST_OCTAVES or not read.is_one(1, "octave", "octaves", "oct", "8ve"):
        return None
    return read.chip(2, "octaves", f"{number} octave{'s' * (number > 1)}", of_run("octaves", number), 4)


def _groups(read: Reader) -> Found | None:
    """Read ``groups of 5``, ``grouped in fives``, ``accent every 3``, ``accents every 3rd``."""
    is_group = read.is_one(0, "groups", "group", "grouped", "grouping") and read.is_one(1, "of", "in", "by")
    if not is_group and not (read.is_one(0, "accent", "accents", "accented") and read.is_one(1, "every")):
        return None
    word = read.word(2)
    size = (word.number or word.ordinal or COUNTED_IN.get(word.text)) if word else None
    if size is None or not 2 <= size <= _MOST_GROUP:
        return None
    return read.chip(3, "accents", f"groups of {size}", setting("accents", EveryNth(size=size)))


def _walk(read: Reader) -> Found | None:
    """Read ``accent walk``, ``accent walking every 2 bars``."""
    if not (read.is_one(0, "accent", "accents") and read.is_one(1, "walk", "walking", "walks")):
        return None
    bars = read.number(3) if read.is_one(2, "every") and read.is_one(4, "bars", "bar") else None
    if bars is not None and 1 <= bars <= _MOST_GROUP:
        return read.chip(5, "accents", f"the accent walks every {bars} bars", setting("accents", Walk(bars=bars)))
    return read.chip(2, "accents", "the accent walks", setting("accents", Walk()))


def _chords(read: Reader) -> Found | None:
    """Read two chords or more in a row: ``G D Em C``, with ``|`` between bars where it is written."""
    symbols: list[str] = []
    length = 0
    for word in read.words[read.at :]:
        if word.text != "|":
            if not word.typed[0].isupper() or not _chord(word.typed):
                break
            symbols.append(word.typed)
        length += 1
    if len(symbols) < 2:
        return None
    bars = " | ".join(symbols)

    def change(drill: Drill) -> Drill:
        if isinstance(drill.material, Picked):
            return replace(drill, material=replace(drill.material, chords=bars))
        strum = drill.material if isinstance(drill.material, Strum) else Strum()
        return replace(drill, material=replace(strum, chords=bars))

    return read.chip(length, "chords", " ".join(symbols), change, 1)


def _chord(symbol: str) -> Chord | None:
    try:
        return parse_chord(symbol)
    except RipresaError:
        return None


def _symbol_arpeggio(read: Reader) -> Found | None:
    """Read ``G7 arpeggio``, ``Am arpeggio``."""
    word = read.words[read.at]
    if not read.is_one(1, *ARPEGGIO_WORDS) or _TONIC.match(word.text):
        return None
    chord = _chord(word.typed[0].upper() + word.typed[1:])
    key = next((key for key, tones in CHORDS.items() if chord and tones.up == chord.tones.up), None)
    if chord is None or key is None:
        return None
    made = Arpeggio(tonic=chord.root.bare, chord=key)
    return read.chip(2, "notes", f"{word.typed} arpeggio", setting("material", made), 1)


def _count(read: Reader) -> Found | None:
    """Read a rhythm as it is counted: ``1 2 & (3) & 4 &``; under chords it is the pattern of the strum."""
    length = 0
    while (word := read.word(length)) is not None and _COUNTED.match(word.text):
        length += 1
    text = _beats_between([word.typed for word in read.words[read.at : read.at + length]])
    if length < _FEWEST_COUNTED or "&" not in text:
        return None

    def change(drill: Drill) -> Drill:
        if isinstance(drill.material, Strum):
            return replace(drill, material=replace(drill.material, pattern=text))
        return replace(drill, material=Count(text=text))

    return read.chip(length, "notes", text, change, 2)


def _beats_between(words: Sequence[str]) -> str:
    """Return a count in which an “&” that comes twice is that of the next beat: ``2 & &`` is ``2 & (3) &``."""
    found: list[str] = []
    for word in words:
        if word == "&" and found and found[-1] == "&":
            before = next((one for one in reversed(found) if one.strip("()>x~-").isdigit()), "0")
            found.append(f"({int(before.strip('()>x~-')) + 1})")
        found.append(word)
    return " ".join(found)


def _letters(read: Reader) -> Found | None:
    """Read hands by letters: ``R L R R L L``, ``D U``, ``T K``, ``RLRR``; and fingers: ``p i m a``."""
    for letters in _LETTERS:
        length = 0
        while set(read.text(1, length) or " ") <= letters:
            length += 1
        cycle = [letter for word in read.words[read.at : read.at + length] for letter in word.text]
        if len(cycle) < 2 or len(set(cycle)) < 2:
            continue
        if letters == _FINGERS:
            return read.chip(length, "fingers", " ".join(cycle), _picked(" ".join(cycle)), 1)
        symbols = tuple(letter.upper() for letter in cycle)
        return read.chip(length, "hands", " ".join(symbols), setting("hands", ByOrder(cycle=symbols)))
    return None


def _picked(pattern: str) -> Change:
    def change(drill: Drill) -> Drill:
        picked = drill.material if isinstance(drill.material, Picked) else Picked()
        if isinstance(drill.material, Strum):
            picked = replace(picked, chords=drill.material.chords)
        return replace(drill, material=replace(picked, pattern=pattern), instrument=_stringed(drill))

    return change


def _place(read: Reader) -> Found | None:
    """Read ``fifth position``, ``position V``, ``fret 5``, ``5th fret``."""
    fret = None
    if read.is_one(1, "position", "fret", "pos"):
        fret = read.ordinal() or read.number()
    elif read.is_one(0, "position", "fret", "pos"):
        fret = read.number(1) or read.ordinal(1)
    if fret is None or not 1 <= fret <= _MOST_FRETS:
        return None
    place = NeckPlace(fret=fret)

    def change(drill: Drill) -> Drill:
        return replace(drill, instrument=_stringed(drill), fingering="position", place=place)

    return read.chip(2, "position", f"position {fret}", change, 6)


def _stringed(drill: Drill) -> str:
    return drill.instrument if drill.plays_on.strings else "guitar"


def _division(read: Reader) -> Found | None:
    """Read a division by its name or its number: ``eighths``, ``quintuplets``, ``4 a beat``, ``six per beat``."""
    for length in (2, 1):
        text = read.text(length)
        if text in _divisions():
            return read.chip(length, "rhythm", text, unchanged, division=_divisions()[text])
    number = read.number()
    if number is None or not (read.is_one(1, "a", "per") and read.is_one(2, "beat")):
        return None
    if not 1 <= number <= _MOST_DIVISION:
        return None
    return read.chip(3, "rhythm", f"{number} a beat", unchanged, division=_so_many(Fraction(number)))


@cache
def _divisions() -> dict[str, Division]:
    named = {text: _printed(Fraction(*value)) for text, value in NOTE_WORDS.items()}
    return named | {text: _so_many(Fraction(number)) for text, number in TUPLET_WORDS.items()}


def _printed(value: Fraction) -> Division:
    return lambda counted: counted / value


def _so_many(number: Fraction) -> Division:
    def same(_: Fraction) -> Fraction:
        return number

    return same


def _start(read: Reader) -> Found | None:
    """Read ``from the third``, ``starting on 5``, ``first inversion``."""
    inversion = read.ordinal() if read.is_one(1, "inversion") else None
    if inversion is not None and inversion <= 3:
        return read.chip(2, "start", f"from tone {inversion + 1}", of_run("start", inversion + 1), 4)
    if not read.is_one(0, "from", "starting"):
        return None
    after = 1
    while read.is_one(after, "on", "the", "from", "degree"):
        after += 1
    place = read.ordinal(after) or (read.number(after) if read.is_one(0, "starting") else None)
    if place is None or not 1 <= place <= _DEGREES or read.is_one(after + 1, "position", "fret", "inversion"):
        return None
    return read.chip(after + 1, "start", f"from degree {place}", of_run("start", place), 4)


def _meter(read: Reader) -> Found | None:
    text = read.text(1)
    if not _METER.match(text):
        return None
    return read.chip(1, "meter", text, setting("meter", METER_WORDS.get(text, text)), 3)


PATTERNS: tuple[Callable[[Reader], Found | None], ...] = (
    _tempo,
    _tonic,
    _octaves,
    _groups,
    _walk,
    _chords,
    _symbol_arpeggio,
    _count,
    _letters,
    _place,
    _division,
    _start,
    _meter,
)


def division_words() -> tuple[str, ...]:
    """Return all names of divisions."""
    return tuple(_divisions())
