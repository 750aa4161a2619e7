"""Chord symbols, progressions, and what is heard of them."""

import pytest

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.grid import chord_at, parse_progression
from ripresa.core.pitch import INSTRUMENTS, parse_chord, parse_tonic, voiced
from ripresa.core.rhythm import METERS

FOUR = METERS["4/4"]


@pytest.mark.parametrize(
    ("symbol", "pitch_classes", "shown"),
    [
        ("C", {0, 4, 7}, "C"),
        ("Am", {9, 0, 4}, "Am"),
        ("F#m7", {6, 9, 1, 4}, "F♯m7"),
        ("Bb7", {10, 2, 5, 8}, "B♭7"),
        ("Bm7b5", {11, 2, 5, 9}, "Bm7b5"),
        ("Dsus4", {2, 7, 9}, "Dsus4"),
        ("Eadd9", {4, 6, 8, 11}, "Eadd9"),
        ("G/B", {7, 11, 2}, "G/B"),
    ],
)
def test_a_symbol_says_the_tones(symbol: str, pitch_classes: set[int], shown: str) -> None:
    chord = parse_chord(symbol)
    held = {pitch for pitch in range(12) if any(chord.holds(parse_tonic(t)) for t in _names(pitch))}
    assert held == pitch_classes
    assert chord.shown == shown


def _names(pitch_class: int) -> tuple[str, ...]:
    return (("C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B")[pitch_class],)


def test_chords_share_a_bar_or_say_their_beats() -> None:
    spans = parse_progression("| G D | Em*3 C*1 | - | Am |", FOUR)
    assert [(span.chord.symbol, span.start, span.beats) for span in spans] == [
        ("G", 0, 2),
        ("D", 2, 2),
        ("Em", 4, 3),
        ("C", 7, 1),
        ("C", 8, 4),
        ("Am", 12, 4),
    ]
    assert chord_at(spans, F(7, 1)).symbol == "C"
    assert chord_at(spans, F(13, 2)).symbol == "Em"
    assert chord_at(spans, F(99)).symbol == "Am"


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        (
            "C | H",
            "Bar 2: “H” is not a chord. Write a root and what it is: C, Am, F#m7, Bb7, Dsus4, G/B; on "
            "strings its grip too, if another than the usual one is meant: C=x32010.",
        ),
        ("C*3 G*2", "Bar 1: its chords last 5 beats, and the bar has 4."),
        ("C*3 G", "Bar 1: “G” needs its beats too: G*2, as the others have."),
        ("- | C", "Bar 1 has no chord, and none stands before it. Write one: C."),
        ("", "Bar 1 has no chord, and none stands before it. Write one: C."),
    ],
)
def test_what_cannot_be_read_is_named_at_its_place(text: str, sentence: str) -> None:
    with pytest.raises(Unreadable) as caught:
        parse_progression(text, FOUR)
    assert caught.value.message == sentence
    assert caught.value.field == "material.chords"


def test_a_progression_has_an_end() -> None:
    with pytest.raises(Unreadable, match="up to 64 bars, not 65"):
        parse_progression(" | ".join(["C"] * 65), FOUR)


@pytest.mark.parametrize("name", INSTRUMENTS)
@pytest.mark.parametrize("symbol", ["C", "F#m7", "Bb9", "Ab5", "D/F#"])
def test_what_is_heard_lies_on_the_instrument_and_in_the_chord(name: str, symbol: str) -> None:
    instrument, chord = INSTRUMENTS[name], parse_chord(symbol)
    tones = voiced(chord, instrument).tones
    assert all(instrument.holds(tone.midi) for tone in tones)
    assert [tone.midi for tone in tones] == sorted({tone.midi for tone in tones})
    assert all(chord.holds(tone) for tone in tones)


def test_a_written_bass_goes_under_the_chord() -> None:
    guitar = INSTRUMENTS["guitar"]
    assert next(pitch.name for pitch in voiced(parse_chord("D/F#"), guitar).tones) == "F#3"
    assert [pitch.name for pitch in voiced(parse_chord("E"), guitar).tones] == ["E3", "B3", "E4", "G#4", "B4", "E5"]
