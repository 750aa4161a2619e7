"""Divisions beat by beat, and n notes in the time of m beats."""

import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import Count, Line, OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import division_label, parse_exact
from ripresa.core.reading import read
from ripresa.core.reports import gear_told, sums
from tests.strategies import fractions


def mixed(*divisions: int | str, beats: int = 4, meter: str = "4/4") -> Drill:
    first, *then = (parse_exact(division) for division in divisions)
    return Drill(material=OneNote(beats=beats), legs=(Leg(first, tuple(then)),), meter=meter)


def test_divisions_take_turns_beat_by_beat() -> None:
    notes = read(mixed(6, 5)).notes
    assert [sum(1 for note in notes if note.beat == beat) for beat in (1, 2, 3, 4)] == [6, 5, 6, 5]
    assert [note.division for note in notes[4:8]] == [6, 6, 5, 5]


def test_the_gear_changes_of_a_mixed_leg_are_told_both_ways() -> None:
    found = sums(read(mixed(6, 5)), F(84))
    assert [(gear.before, gear.after) for gear in found.gears] == [(6, 5), (5, 6)]


def test_between_legs_the_change_is_from_the_beat_that_was_played_last() -> None:
    drill = Drill(material=OneNote(beats=4), legs=(Leg(F(6), (F(5),)), Leg(F(3))))
    assert [(gear.before, gear.after) for gear in sums(read(drill), F(84)).gears] == [(6, 5), (5, 6), (5, 3)]


@pytest.mark.parametrize(
    ("text", "told"),
    [
        (
            "1 & 2 & 3 trip let 4 e & a",
            ["2 → 3 500.0 → 333.3 +50", "3 → 4 333.3 → 250.0 +33", "4 → 2 250.0 → 500.0 −50"],
        ),
        ("1 & 2 & 3 e & a 4", ["2 → 4 500.0 → 250.0 +100", "4 → 2 250.0 → 500.0 −50"]),
        ("1 2 3 4 | 1 & 2 & 3 & 4 &", ["1 → 2 1000.0 → 500.0 +100", "2 → 1 500.0 → 1000.0 −50"]),
        ("1 a 2 a 3 a 4 a", []),
        ("1 & 2 & 3 & 4", []),
    ],
)
def test_a_typed_rhythm_changes_speed_by_the_times_between_its_notes(text: str, told: list[str]) -> None:
    found = sums(read(Drill(material=Count(text), legs=(Leg(F(4)),))), F(60)).gears
    said = [gear_told(gear) for gear in found]
    short = [(name, re.findall(r"^(.+) ms, .* speed (.+) %", line)[0]) for name, line in said]
    assert [f"{name} {gaps} {speed}" for name, (gaps, speed) in short] == told


def test_each_leg_is_told_by_its_own_beats_and_bars() -> None:
    found = sums(read(Drill(material=OneNote(beats=8), legs=(Leg(F(2)), Leg(F(3)), Leg(F(4))), meter="3/4")), F(60))
    assert [(leg.beats, leg.bars, leg.seconds) for leg in found.legs] == [(9, 3, 9)] * 3


def test_four_eighths_four_sixteenths_and_eight_thirty_seconds_at_76() -> None:
    found = sums(read(mixed(2, 2, 4, 8)), F(76))
    assert (round(float(found.speeds.peak_nps), 2), round(float(found.speeds.average_nps), 2)) == (10.13, 5.07)


def test_three_in_the_time_of_two_beats() -> None:
    notes = read(mixed("3/2")).notes
    assert [note.onset for note in notes] == [0, F(2, 3), F(4, 3), 2, F(8, 3), F(10, 3)]
    assert [(note.beat, note.slot, note.count) for note in notes[:3]] == [(1, 0, "1"), (1, 1, "trip"), (2, 2, "let")]


def test_five_in_the_time_of_three_crosses_no_bar_line_in_three_four() -> None:
    notes = read(mixed("5/3", beats=6, meter="3/4")).notes
    assert [note.onset for note in notes[:6]] == [0, F(3, 5), F(6, 5), F(9, 5), F(12, 5), 3]


def test_thirteen_a_beat_can_be_laid_out() -> None:
    assert len(read(mixed(13, beats=1)).notes) == 13


@settings(max_examples=50)
@given(
    st.lists(fractions(F(1, 4), 12, 4).filter(lambda d: d.numerator <= 16), min_size=1, max_size=4),
    st.integers(1, 12),
)
def test_a_leg_lasts_as_long_as_its_beats_say(divisions: list[F], beats: int) -> None:
    first, *then = divisions
    reading = read(Drill(material=OneNote(beats=beats), legs=(Leg(first, tuple(then)),), seam="straight_on"))
    onsets = [event.onset for event in reading.events]
    assert onsets == sorted(set(onsets))
    assert reading.legs[0].pass_beats >= beats


@pytest.mark.parametrize(
    ("divisions", "written"),
    [((F(1, 2),), "½"), ((F(3, 2),), "3:2"), ((F(5, 4),), "5:4"), ((F(6), F(5)), "6+5"), ((F(2), F(3, 2)), "2+3:2")],
)
def test_divisions_are_written_as_teachers_write_them(divisions: tuple[F, ...], written: str) -> None:
    assert division_label(*divisions) == written


@pytest.mark.parametrize("division", [F(0), F(-2), F(17), F(1, 9), F(17, 2)])
def test_divisions_that_cannot_be_laid_out_are_refused(division: F) -> None:
    with pytest.raises(OutOfRange, match="not a division that can be laid out") as refused:
        Leg(division)
    assert refused.value.field == "legs.division"


def test_at_most_sixteen_divisions_take_turns() -> None:
    with pytest.raises(OutOfRange, match="Up to 16"):
        Leg(F(2), (F(3),) * 16)


def test_a_line_that_ends_inside_a_beat_is_counted_on_in_the_slots_of_that_beat() -> None:
    # Two notes on ½ + 2: the first lasts two beats, the second half of beat 3; silence goes on at its &.
    line = Drill(material=Line(text="1 (2)"), legs=(Leg(F(1, 2), (F(2),)),))
    assert [(e.place_name, e.count, e.kind) for e in read(line).events] == [
        ("bar 1, beat 1", "1", "note"),
        ("bar 1, beat 3", "3", "rest"),
        ("bar 1, beat 3, &", "&", "rest"),
        ("bar 1, beat 4", "4", "rest"),
    ]


def test_what_is_held_after_the_last_note_is_counted_where_it_lies() -> None:
    line = Drill(material=Line(text="1 2 3"), legs=(Leg(F(4)),))
    held = [(event.count, event.length) for event in read(line).events if event.kind == "hold"]
    assert held[0] == ("a", F(1, 4))
