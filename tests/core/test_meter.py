from fractions import Fraction as F

import pytest
from hypothesis import given

from ripresa.core.drill import Drill, Leg
from ripresa.core.errors import OutOfRange
from ripresa.core.material import OneNote
from ripresa.core.meter import METERS, Meter, meter_named
from ripresa.core.performance import perform
from ripresa.core.reading import read
from ripresa.core.sums import sums
from tests.strategies import lengths, meters


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
