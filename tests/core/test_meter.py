import io
import re
from dataclasses import replace
from typing import Any

import mido
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.changes import with_cells
from ripresa.core.drill import Drill, Hits, Leg
from ripresa.core.drill.click import CLICK_PLANS, ByMeter, NamedClick
from ripresa.core.drill.material import Cells, Count, Material, OneNote, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import short
from ripresa.core.playing import perform, score
from ripresa.core.reading import read
from ripresa.core.reports import speeds, sums
from ripresa.core.rhythm import METERS, Meter, meter_named, span_seconds
from ripresa.formats.midi import write_midi
from ripresa.formats.notation import write_musicxml
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
    assert (len(meter.beats_of(1)), meter.cycle_beats, meter.sign) == (beats, bar_length, sign)
    assert meter.signature == tuple(int(number) for number in name.split()[0].split("/"))


@given(meters)
def test_a_bar_is_as_long_as_its_signature_says(meter: Meter) -> None:
    above, below = meter.signature
    assert meter.cycle_beats * meter.counted == F(above, below)


@given(meters, lengths)
def test_a_place_comes_back_to_its_position(meter: Meter, position: F) -> None:
    bar, beat, inside = meter.place(position)
    assert (bar - 1) * meter.cycle_beats + meter.bar(1).beat_starts()[beat - 1] + inside == position
    assert 0 <= inside < meter.beats_of(1)[beat - 1]
    assert meter.place(position + meter.to_bar_line(position))[1:] == (1, 0)


@given(st.sampled_from(["4/4", "7/8 (2+2+3)", "3/4 | 13/16 (4+4+5)", "2/4 | 3/4 | 5/8 (2+3)"]), lengths)
def test_a_phase_comes_again_after_all_the_bars_that_take_turns(name: str, position: F) -> None:
    meter = meter_named(name)
    assert meter.phase(position + meter.cycle_beats) == meter.phase(position)
    assert 0 <= meter.phase(position)[0] < len(meter.bars)


@given(st.sampled_from(["4/4", "7/8 (2+2+3)", "3/4 | 13/16 (4+4+5)"]), st.integers(0, 4), st.integers(1, 12))
def test_bars_that_come_once_stand_before_those_that_take_turns(name: str, once: int, number: int) -> None:
    meter = meter_named(name).after(meter_named("5/8 (2+3)").laid(once))
    start = meter.bar_start(number)
    assert start == sum((meter.bar(one).length for one in range(1, number)), F(0))
    assert meter.place(start) == (number, 1, 0)
    assert meter.bars_passed(start) == number - 1
    assert meter.beats_passed(start) == sum(len(meter.beats_of(one)) for one in range(1, number))
    assert (meter.bar(number).signature == (5, 8)) == (number <= once)


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
    with pytest.raises(OutOfRange, match=r"Write 7/4, 11/8 \(3\+3\+3\+2\)") as refused:
        meter_named("13/17")
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
    assert (meter.signature, list(meter.beats_of(1))) == (signature, beats)
    assert round(span_seconds(meter.cycle_beats, F(92)) * 1000) == seconds
    assert meter.cycle_beats.denominator == home


@pytest.mark.parametrize(
    ("name", "sentence"),
    [
        ("3/4 -5/16", "Beat 3 of 3/4 is shorter than 5/16"),
        ("3/4 -1/4@1 -1/4@2 -1/4@3", "These cells leave nothing of 3/4"),
        ("3/4 +1/16@4", "3/4 has beats 1 to 3, and not 4"),
        ("3/4 +1/7", "is not a meter"),
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


@pytest.mark.parametrize(
    ("text", "meter", "cells", "becomes", "notes", "peak"),
    [
        ("1 e & a 2 e & a 3 e & a", "3/4", (-2, 3), "1 e & a 2 e & a 3/2 .2", 10, "6.13"),
        ("1 e & a 2 e & a 3 e & a", "3/4", (1, 3), "1 e & a 2 e & a 3/5 .2 .3 .4", 12, "6.13"),
        ("1 e & a 2 e & a 3 e & a", "3/4", (-4, 2), "1 e & a 2 e & a", 8, "6.13"),
        ("1 & 2 & >3 &", "3/4", (-1, 3), "1 & 2 & >3/3 .3", 6, "6.13"),
        ("1 & 2 & 3 a | 1 2 (3) a", "3/4", (-2, 3), "1 & 2 & 3/2 | 1 2 (3/2)", 7, "3.07"),
        ("1 & 2", "4/4", (-2, 4), "1 & 2", 3, "3.07"),
    ],
)
def test_a_typed_rhythm_keeps_its_slots_in_a_meter_by_cells(
    text: str, meter: str, cells: tuple[int, int], becomes: str, notes: int, peak: str
) -> None:
    drill = Drill(material=Count(text), legs=legs(1), meter=meter, bpm=F(92))
    changed = with_cells(drill, cells[0], 16, cells[1])
    assert isinstance(changed.material, Count)
    assert changed.material.text == becomes
    found = read(changed)
    assert (len(found.notes), short(speeds(found, F(92)).peak_nps)) == (notes, peak)


def test_what_is_laid_over_a_typed_rhythm_keeps_its_slots_too() -> None:
    drill = Drill(material=Count("1 e & a 2 e & a", under="1 e & a 2 e", shift=1), legs=legs(1), meter="2/4")
    drill = replace(drill, hits=Hits(text="1 2 ~a"))
    changed = with_cells(drill, -1, 16, 2)
    assert isinstance(changed.material, Count)
    assert (changed.material.text, changed.material.shift) == ("1 e & a 2/3 .2 .3", 0)
    assert changed.material.under == "1 e & a 2/3 .2"
    assert changed.hits.text == "1 2/3"


@pytest.mark.parametrize(
    ("material", "cells", "sentence", "field"),
    [
        (Count("1 2 3 trip let"), (-1, 3), "3 a beat makes no whole slots in a beat of ¾", "material.text"),
        (Count("1 (2) (3)"), (-4, 1), "Nothing would be left of “1 (2) (3)”", "material.text"),
        (Strum(chords="C", pattern="1 trip let 2"), (-2, 1), "no whole slots in a beat of ½", "material.pattern"),
    ],
)
def test_cells_that_a_typed_rhythm_does_not_have_are_refused(
    material: Material, cells: tuple[int, int], sentence: str, field: str
) -> None:
    with pytest.raises(OutOfRange, match=re.escape(sentence)) as refused:
        with_cells(Drill(material=material, legs=legs(1), meter="3/4"), cells[0], 16, cells[1])
    assert refused.value.field == field


@pytest.mark.parametrize(
    ("name", "shown", "beats", "sign"),
    [
        ("7/4", "7/4", [1] * 7, "♩"),
        ("11/8 (3+3+3+2)", "11/8 (3+3+3+2)", [F(3, 2)] * 3 + [1], "♩"),
        ("13/16 (4+4+5)", "13/16 (4+4+5)", [1, 1, F(5, 4)], "♩"),
        ("7/16 (2+2+3)", "7/16 (2+2+3)", [1, 1, F(3, 2)], "♪"),
        ("15/16", "15/16", [1] * 5, "♪."),
        ("15/8", "15/8", [1] * 5, "♩."),
        ("3/8", "3/8", [1] * 3, "♪"),
        ("3/2", "3/2", [1] * 3, "half"),
        ("9/8 in eighths", "9/8 in eighths", [1] * 9, "♪"),
        ("6/8 (3+3)", "6/8", [1, 1], "♩."),
        ("1/4", "1/4", [1], "♩"),
    ],
)
def test_any_meter_over_2_4_8_and_16_is_typed(name: str, shown: str, beats: list[F], sign: str) -> None:
    meter = meter_named(name)
    assert (meter.name, list(meter.beats_of(1)), meter.sign) == (shown, beats, sign)
    above, below = meter.signature
    assert meter.cycle_beats * meter.counted == F(above, below)
    reading = read(Drill(material=OneNote(beats=len(beats)), legs=legs(2), meter=name))
    assert (reading.bars, len(reading.notes)) == (1, 2 * len(beats))


def test_groups_of_quarters_are_felt_and_counted_one_by_one() -> None:
    meter = meter_named("7/4 (3+4)")
    assert (meter.name, len(meter.beats_of(1)), meter.bar(1).group_starts()) == ("7/4 (3+4)", 7, (0, 3))
    assert [at for at, _ in CLICK_PLANS["groups"].cycle(meter).clicks] == [0, 3]
    assert CLICK_PLANS["groups"].cycle(METERS["4/4"]).clicks == CLICK_PLANS["every_beat"].cycle(METERS["4/4"]).clicks


@pytest.mark.parametrize(
    ("name", "sentence"),
    [
        ("7/8 (2+2+2)", "make 6, and 7/8 has 7"),
        ("0/4", "1 to 64 notes, not 0"),
        ("65/4", "1 to 64 notes, not 65"),
        ("40/4", "40 beats, and up to 32"),
        ("4/4 | ", "“” is not a meter"),
        (" | ".join(["4/4"] * 9), "Up to 8 meters take turns, not 9"),
        ("4/" * 61, "up to 120 signs"),
    ],
)
def test_a_meter_that_cannot_be_is_refused(name: str, sentence: str) -> None:
    with pytest.raises(OutOfRange, match=sentence) as refused:
        meter_named(name)
    assert refused.value.field == "meter"


TURNS = "3/4 | 13/16 (4+4+5)"


def test_two_meters_take_turns_bar_by_bar() -> None:
    meter = meter_named(TURNS)
    assert [meter.bar(number).length for number in range(1, 5)] == [3, F(13, 4), 3, F(13, 4)]
    assert [meter.bar_start(number) for number in range(1, 5)] == [0, 3, F(25, 4), F(37, 4)]
    assert meter.place(F(9)) == (3, 3, F(3, 4))
    assert meter.beats_passed(F(9)) == F(35, 4)
    drill = Drill(material=Count("1 e & a 2 e & a 3 e & a | 1 e & a 2 e & a 3/5 .2 .3 .4 .5"), meter=TURNS)
    reading = read(drill)
    assert {event.length for event in reading.notes} == {F(1, 4)}
    assert [event.count for event in reading.notes if event.bar == 2][-5:] == ["3", "e", "&", "a", "+"]
    assert (reading.bars, len(reading.notes)) == (6, 3 * (12 + 13))


def test_two_meters_take_turns_leg_by_leg_and_begin_again_after_the_last() -> None:
    drill = Drill(material=OneNote(beats=3), legs=legs(2, 2, 4), meter="3/4 ; 7/8 (2+2+3)")
    reading = read(drill)
    assert [leg.start for leg in reading.legs] == [0, 3, F(13, 2)]
    assert [reading.meter.bar(number).signature for number in range(1, 5)] == [(3, 4), (7, 8), (3, 4), (3, 4)]
    assert reading.beats == F(19, 2)
    assert [event.place_name for event in reading.notes if event.leg == 1][-1] == "bar 2, beat 3, &"
    with pytest.raises(OutOfRange, match="begin on a bar line") as refused:
        replace(drill, seam="straight_on")
    assert refused.value.field == "seam"


def test_a_bar_and_its_altered_one_have_clicks_of_their_own() -> None:
    click = ByMeter(first="every_beat", second="every_bar")
    cycle = click.cycle(meter_named(TURNS), (), F(0))
    assert (cycle.length, [at for at, _ in cycle.clicks]) == (F(25, 4), [0, 1, 2, 3])
    by_leg = read(Drill(material=OneNote(beats=3), legs=legs(2, 2), meter="3/4 ; 7/8 (2+2+3)", click=click))
    assert [at for at, _ in by_leg.click_cycle.clicks] == [0, 1, 2, 3]


@pytest.mark.parametrize(
    ("meter", "counted", "beats"),
    [(TURNS, [0, 1, 2], 3), ("13/16 (4+4+5) | 3/4", [0, 1, 2], F(13, 4)), ("4/4 | 7/8 (2+2+3)", [0, 1, 2, 3], 4)],
)
def test_bars_that_take_turns_are_counted_in_by_the_first(meter: str, counted: list[int], beats: F) -> None:
    lead = score(read(Drill(material=OneNote(beats=6), legs=legs(1), meter=meter)), F(60)).lead
    assert [at for at, _ in lead.words] == counted
    assert lead.beats == beats


@pytest.mark.parametrize("click", ["every_beat", "every_bar", "through"])
def test_a_pass_that_ends_among_bars_that_take_turns_begins_with_the_first_again(click: Any) -> None:
    turns = Drill(material=OneNote(beats=16), legs=legs(2), meter="4/4 | 7/8 (2+2+3)", click=NamedClick(click))
    reading = read(turns)
    assert reading.loop_beats == 19
    first = [at for at, _ in reading.click_cycle.within(F(19))]
    assert [at for at, _ in reading.click_cycle.within(F(57))] == [at + 19 * turn for turn in range(3) for at in first]
    assert all(level == "strong" for at, level in reading.click_cycle.within(F(57)) if not at % 19)
    # What comes home by itself keeps a cycle of its own, which may be longer or shorter than a pass.
    home = read(replace(turns, material=OneNote(beats=14)))
    assert 15 % home.click_cycle.length == 0
    assert home.click_cycle.length in {F(15, 2), 15}


def test_meters_that_take_turns_are_written_out() -> None:
    reading = read(Drill(material=OneNote(beats=12), legs=legs(2), meter="4/4 | 7/8 (2+2+3)"))
    body = write_musicxml(reading, F(60)).decode()
    assert body.count("<time>") == reading.bar_count == 4
    track = mido.MidiFile(file=io.BytesIO(write_midi(reading, F(60)))).tracks[0]
    assert [one.numerator for one in track if one.type == "time_signature"] == [4, 7, 4, 7]


@pytest.mark.parametrize("material", [Cells(), Count("1 & 2", shift=1)])
def test_what_needs_one_bar_is_refused_where_bars_differ(material: Material) -> None:
    with pytest.raises(OutOfRange, match="take turns"):
        read(Drill(material=material, meter="4/4 | 3/4"))


@pytest.mark.parametrize("name", ["4/4", "3/4", "5/4", "2/2", "6/8"])
@given(st.fractions(-8, 60, max_denominator=24).map(F))
def test_bars_of_even_beats_are_counted_as_any_others(name: str, position: F) -> None:
    even = METERS[name]
    # With a bar of its own before them, the same bars go the long way.
    long = even.after(even.bars)
    assert long.head
    for asked in ("place", "beats_passed", "bars_passed", "to_beat", "to_bar_line", "beat_at"):
        assert getattr(even, asked)(position) == getattr(long, asked)(position), asked
