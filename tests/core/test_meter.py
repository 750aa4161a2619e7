from dataclasses import replace
from fractions import Fraction as F

import pytest
from hypothesis import given

from ripresa.core.changes import with_cells
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.playing import perform
from ripresa.core.reading import read
from ripresa.core.reports import sums
from ripresa.core.rhythm import METERS, Meter, meter_named, span_seconds
from tests.strategies import legs, lengths, meters


@pytest.mark.parametrize(
    ("name", "beats", "bar_length", "sign"),
    [
        ("4/4", 4, F(4), "♩"),
        ("6/8", 2, F(2), "♩."),
        ("12/8", 4, F(4), "♩."),
        ("7/8 (2+2+3)", 3, F(7, 2), "♩"),
        ("7/8 in eighths", 7, F(7), "♪"),
        ("5/8 (2+3)", 2, F(5, 2), "♩"),
        ("8/8 (3+3+2)", 3, F(4), "♩"),
    ],
)
def test_meters(name: str, beats: int, bar_length: F, sign: str) -> None:
    meter = METERS[name]
    assert (len(meter.beats), meter.bar_length, meter.sign) == (beats, bar_length, sign)
    assert meter.signature == tuple(int(number) for number in name.split()[0].split("/"))


@given(meters)
def test_a_bar_is_as_long_as_its_signature_says(meter: Meter) -> None:
    above, below = meter.signature
    assert meter.bar_length * meter.counted == F(above, below)


@given(meters, lengths)
def test_a_place_comes_back_to_its_position(meter: Meter, position: F) -> None:
    bar, beat, inside = meter.place(position)
    assert (bar - 1) * meter.bar_length + meter.beat_starts()[beat - 1] + inside == position
    assert 0 <= inside < meter.beats[beat - 1]
    assert meter.place(position + meter.to_bar_line(position))[1:] == (1, 0)


def test_eighths_through_unequal_beats_are_even() -> None:
    drill = Drill(material=OneNote(beats=6), legs=(Leg(F(2), (F(2), F(3))),), meter="7/8 (2+2+3)")
    reading = read(drill)
    assert [note.onset for note in reading.notes] == [F(number, 2) for number in range(14)]
    assert reading.bars == 2
    assert [note.count for note in reading.notes[:7]] == ["1", "&", "2", "&", "3", "trip", "let"]


def test_the_bar_of_seven_eighths_at_92_lasts_2_283_seconds() -> None:
    drill = Drill(material=OneNote(beats=3), legs=(Leg(F(2), (F(2), F(3))),), meter="7/8 (2+2+3)", bpm=F(92))
    assert round(perform(read(drill), F(92)).loop_seconds, 3) == 2.283


def test_the_speed_in_unequal_beats_is_that_of_the_shortest() -> None:
    drill = Drill(material=OneNote(beats=3), legs=(Leg(F(4)),), meter="8/8 (3+3+2)")
    found = sums(read(drill), F(60))
    assert found.legs[0].nps == found.speeds.peak_nps == 4


def test_a_meter_that_is_not_known_is_refused_with_those_that_are() -> None:
    with pytest.raises(OutOfRange, match=r"Use one of 4/4, 3/4") as refused:
        meter_named("13/16")
    assert refused.value.field == "meter"


@pytest.mark.parametrize(
    ("name", "signature", "beats", "seconds", "home"),
    [
        pytest.param("3/4", (3, 4), [1, 1, 1], 1957, 1, id="whole"),
        pytest.param("3/4 -2/16", (5, 8), [1, 1, F(1, 2)], 1630, 2, id="two sixteenths less"),
        pytest.param("3/4 +1/16", (13, 16), [1, 1, F(5, 4)], 2120, 4, id="one more"),
        pytest.param("3/4 +2/16", (7, 8), [1, 1, F(3, 2)], 2283, 2, id="two more"),
        pytest.param("3/4 -2/16@1", (5, 8), [F(1, 2), 1, 1], 1630, 2, id="in the first beat"),
        pytest.param("3/4 -1/4", (2, 4), [1, 1], 1304, 1, id="a whole beat less"),
        pytest.param("6/8 -1/8", (5, 8), [1, F(2, 3)], 1087, 3, id="of two dotted quarters"),
    ],
)
def test_a_meter_is_made_by_cells(
    name: str, signature: tuple[int, int], beats: list[F], seconds: int, home: int
) -> None:
    meter = meter_named(name)
    assert (meter.signature, list(meter.beats)) == (signature, beats)
    assert round(span_seconds(meter.bar_length, F(92)) * 1000) == seconds
    assert meter.bar_length.denominator == home


@pytest.mark.parametrize(
    ("name", "sentence"),
    [
        ("3/4 -5/16", "Beat 3 of 3/4 is shorter than 5/16"),
        ("3/4 -1/4@1 -1/4@2 -1/4@3", "These cells leave nothing of 3/4"),
        ("3/4 +1/16@4", "3/4 has beats 1 to 3, and not 4"),
        ("3/4 +1/7", "is not a meter that Ripresa knows"),
    ],
)
def test_cells_that_do_not_fit_are_refused(name: str, sentence: str) -> None:
    with pytest.raises(OutOfRange, match=sentence) as refused:
        meter_named(name)
    assert refused.value.field == "meter"


def test_slots_keep_their_length_in_a_meter_by_cells() -> None:
    drill = Drill(material=OneNote(beats=6), legs=legs(4), meter="3/4")
    for count, divisions in ((-2, (4, 4, 2)), (1, (4, 4, 5))):
        changed = with_cells(drill, count, 16, 3)
        assert changed.legs[0].divisions == divisions
        assert {event.length for event in read(changed).notes} == {F(1, 4)}
    with pytest.raises(OutOfRange, match="3 a beat makes no whole slots in a beat of ½"):
        with_cells(replace(drill, legs=legs(3)), -2, 16, 3)
