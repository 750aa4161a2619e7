"""Fingerings: strings by least movement, the usual fingers on keys, economy picking, folding into range."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.hands import CYCLES, Economy
from ripresa.core.drill.material import Arpeggio, Line, Material, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import roman
from ripresa.core.pitch import INSTRUMENTS
from ripresa.core.reading import Reading, read, unreduced
from ripresa.core.reading.fingering.strings import on_strings
from ripresa.core.reports.motion import positions
from ripresa.core.reports.told.hands import neck_told
from tests.strategies import drills, legs

GUITAR = INSTRUMENTS["guitar"]


def fingered(material: Material, instrument: str) -> Reading:
    return read(Drill(material=material, legs=legs(4), instrument=instrument, fingering="usual", closing="own"))


def fingers(material: Material, instrument: str) -> str:
    return "".join(str(event.touch.finger) for event in fingered(material, instrument).notes if event.touch)


@pytest.mark.parametrize(
    ("tonic", "scale", "hand", "expected"),
    [
        pytest.param("C", "major", "piano_right", "123123412312345", id="C, right"),
        pytest.param("F", "major", "piano_right", "123412312341234", id="F, right: the fourth goes under"),
        pytest.param("Bb", "major", "piano_right", "212312341231234", id="B flat, right"),
        pytest.param("Db", "major", "piano_right", "231234123123412", id="D flat, right"),
        pytest.param("C", "major", "piano_left", "543213214321321", id="C, left"),
        pytest.param("B", "major", "piano_left", "432143213214321", id="B, left"),
        pytest.param("Eb", "major", "piano_left", "321432132143213", id="E flat, left"),
        pytest.param("A", "harmonic_minor", "piano_right", "123123412312345", id="A minor, right"),
        pytest.param("F#", "harmonic_minor", "piano_left", "432132143213214", id="F sharp minor, left"),
    ],
)
def test_usual_fingers_of_two_octaves_up(tonic: str, scale: str, hand: str, expected: str) -> None:
    up = ScaleRun(tonic=tonic, scale=scale, shape="up", octaves=2)
    assert fingers(up, hand) == expected


@pytest.mark.parametrize(
    ("tonic", "chord", "hand", "expected"),
    [
        ("C", "major_triad", "piano_right", "1231235"),
        ("C", "major_triad", "piano_left", "5421421"),
        ("D", "major_triad", "piano_left", "5321321"),
    ],
)
def test_usual_fingers_of_triads(tonic: str, chord: str, hand: str, expected: str) -> None:
    assert fingers(Arpeggio(tonic=tonic, chord=chord, shape="up"), hand) == expected


def test_the_way_down_is_the_way_up_backwards() -> None:
    there_and_back = fingers(ScaleRun(tonic="G"), "piano")
    assert there_and_back == there_and_back[::-1]


@given(st.sampled_from(["dorian", "blues", "whole_tone"]), st.sampled_from(["C", "Eb", "F#"]))
def test_by_the_rule_no_finger_plays_two_keys_in_a_row(scale: str, tonic: str) -> None:
    for hand in ("piano_left", "piano_right"):
        played = fingers(ScaleRun(tonic=tonic, scale=scale), hand)
        assert all(before != after for before, after in pairwise(played))


def test_a_low_scale_stays_in_the_first_position() -> None:
    reading = fingered(ScaleRun(tonic="G"), "guitar")
    assert [touch.shown for event in reading.notes[:4] if (touch := event.touch)] == ["6·3", "5·0", "5·2", "5·3"]
    assert [position for _, position in positions(reading)] == [1]


def test_every_change_of_position_is_told_where_it_is() -> None:
    (told,) = neck_told(fingered(ScaleRun(tonic="G", octaves=3), "guitar"))
    assert told.sentences[0] == (
        "Position III; VII from bar 1, beat 1, &; XII from bar 2, beat 1, a; VII from bar 2, beat 3; III from bar 3, "
        "beat 3, e."
    )


def test_a_scale_that_reaches_up_goes_where_four_frets_hold_it() -> None:
    reading = fingered(ScaleRun(tonic="C"), "guitar")
    assert [position for _, position in positions(reading)] == [7]
    assert all(event.touch and event.touch.finger for event in reading.notes)


@given(st.lists(st.integers(GUITAR.lowest, GUITAR.highest), min_size=1, max_size=40))
def test_each_note_is_found_where_its_string_and_fret_say(midis: list[int]) -> None:
    for midi, touch in zip(midis, on_strings(GUITAR.strings, GUITAR.frets, tuple(midis)), strict=True):
        assert touch
        assert touch.string
        assert touch.fret is not None
        assert touch.position
        assert GUITAR.strings[-touch.string] + touch.fret == midi
        assert touch.finger == 0 if not touch.fret else 1 <= touch.fret - touch.position + 1 == touch.finger <= 4


def test_what_no_string_has_is_left_out() -> None:
    assert on_strings(GUITAR.strings, 22, (40, None, 60))[:2] == (None, None)
    assert on_strings(GUITAR.strings, 22, (40,)) == (None,)


def test_another_tuning_moves_the_frets() -> None:
    low_d = Line("D3 A3")
    assert fingered(low_d, "guitar").notes[0].touch is None
    found = [event.touch.shown for event in fingered(low_d, "guitar_drop_d").notes if event.touch]
    assert found == ["6·0", "5·0"]


def test_economy_picking_goes_on_the_way_to_the_next_string() -> None:
    # Three notes a string upwards: D U D on each; back downwards U D U.
    up = Line("G3 A3 B3 C4 D4 E4 F4 G4 A4")
    drill = Drill(material=up, legs=legs(3), instrument="guitar", hands=Economy())
    reading = read(drill)
    strings = [event.touch.string for event in reading.notes if event.touch]
    strokes = [event.stroke for event in reading.notes]
    for before, after in pairwise(range(9)):
        crossed = strings[before] != strings[after]
        assert strokes[after] == ("D" if crossed else "U" if strokes[before] == "D" else "D")
    assert len(set(strings)) > 1


def test_economy_picking_needs_strings() -> None:
    with pytest.raises(OutOfRange, match="flute has none to follow") as refused:
        Drill(hands=Economy(), instrument="flute")
    assert refused.value.field == "hands.kind"


def test_out_of_range_is_folded_by_octaves_when_asked() -> None:
    drill = Drill(material=Line("C3 E4 E7"), legs=legs(1), instrument="guitar")
    folded = read(Drill(material=Line("C3 E4 E7"), legs=legs(1), instrument="guitar", folded=True))
    assert read(drill).legs[0].out_of_range == 2
    assert [event.pitch.name for event in folded.notes if event.pitch] == ["C4", "E4", "E6"]
    assert folded.legs[0].described == "1 statement, 2 notes folded"


@given(drills)
def test_a_folded_drill_has_every_note_on_the_instrument(drill: Drill) -> None:
    # What is left out is out of range all the same.
    reading = unreduced(read(drill))
    outside = sum(leg.out_of_range for leg in reading.legs)
    # An instrument under an octave wide would leave some out; none is.
    assert not drill.folded or outside == 0
    assert outside == sum(
        1 for event in reading.notes if event.pitch and not reading.instrument.holds(event.pitch.midi)
    )


def test_positions_are_written_in_roman_numbers() -> None:
    assert [roman(number) for number in (1, 4, 5, 9, 12)] == ["I", "IV", "V", "IX", "XII"]


@pytest.mark.parametrize("name", INSTRUMENTS)
def test_every_instrument_knows_its_usual_strokes(name: str) -> None:
    instrument = INSTRUMENTS[name]
    assert set(instrument.strokes) <= set(CYCLES)
    assert bool(instrument.strokes) == (name != "any")
    assert instrument.breathes == (instrument.voice == "wind")
    if instrument.strings:
        assert instrument.lowest == min(instrument.strings)
