"""Strumming: a pattern over a progression, worked by hand."""

import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.hands import ByPlace
from ripresa.core.drill.material import PATTERNS, Strum
from ripresa.core.errors import OutOfRange, RipresaError, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import parse_exact
from ripresa.core.playing import perform
from ripresa.core.reading import Reading, read
from tests.strategies import legs


def strummed(chords: str, pattern: str, meter: str = "4/4") -> Reading:
    return read(Drill(material=Strum(chords, pattern), legs=legs(1), meter=meter, instrument="guitar", hands=ByPlace()))


def test_each_stroke_has_the_chord_of_its_place() -> None:
    reading = strummed("G D | Em*3 C*1", "1 & 2 3 4 &")
    struck = [(event.onset, event.chord.symbol) for event in reading.notes if event.chord]
    assert struck == [
        *((parse_exact(at), "G") for at in ("0", "1/2", "1")),
        *((parse_exact(at), "D") for at in ("2", "3", "7/2")),
        *((parse_exact(at), "Em") for at in ("4", "9/2", "5", "6")),
        *((parse_exact(at), "C") for at in ("7", "15/2")),
    ]


@pytest.mark.parametrize(
    ("key", "strokes", "air"), [("quarters", 4, 0), ("eighths", 8, 0), ("mixed", 6, 1), ("off_beats", 4, 4)]
)
def test_the_ready_patterns_are_steps_of_one_arm(key: str, strokes: int, air: int) -> None:
    reading = strummed("C", PATTERNS[key][0])
    assert len(reading.notes) == strokes
    assert sum(event.kind == "air" for event in reading.events) == air
    assert reading.bars == 1


def test_a_pattern_begins_again_where_the_progression_is_longer() -> None:
    reading = strummed("C | F | G", "1 2 3 4 | 1 & 3")
    assert [event.onset for event in reading.notes] == [0, 1, 2, 3, 4, F(9, 2), 6, 8, 9, 10, 11]
    assert reading.beats == 12


def test_a_bar_that_is_not_said_to_its_end_is_held_to_it() -> None:
    reading = strummed("C | F", "1")
    assert [(event.onset, length) for event, length in reading.sounding()] == [(0, 4), (4, 4)]


def test_all_tones_are_heard() -> None:
    tones = perform(strummed("E", "1 2 3 4"), F(60)).tones
    assert {(tone.midi, tone.also) for tone in tones} == {(40, (47, 52, 56, 59, 64))}


@pytest.mark.parametrize(
    ("chords", "pattern", "error", "sentence", "field"),
    [
        ("C", "1 & x", Unreadable, "Word 3 of the pattern, “x”", "material.pattern"),
        ("C", "1 2 3 4 5", OutOfRange, "Bar 1 of the pattern has a beat 5", "material.pattern"),
        ("C | X", "1", Unreadable, "Bar 2: “X” is not a chord", "material.chords"),
    ],
)
def test_errors_say_where(chords: str, pattern: str, error: type[RipresaError], sentence: str, field: str) -> None:
    with pytest.raises(error) as caught:
        strummed(chords, pattern)
    assert caught.value.message.startswith(sentence)
    assert caught.value.field == field


def test_odd_meters_keep_chords_on_their_beats() -> None:
    reading = strummed("C Am | G", "1 & 2 & 3", "7/8 (2+2+3)")
    assert reading.bars == 2
    assert [event.bar for event in reading.notes if event.chord and event.chord.symbol == "G"] == [2] * 5
