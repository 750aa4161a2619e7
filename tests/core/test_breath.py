"""Breath and articulation: the tempo that a breath asks for, where to breathe, and how much of a note sounds."""

from dataclasses import replace
from fractions import Fraction as F
from itertools import pairwise

import pytest
from hypothesis import assume, given

from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.playing import perform
from ripresa.core.reading import read
from ripresa.core.reports import breath_marks, breath_sums
from ripresa.core.reports.breath import needed_bpm
from tests.strategies import drills, legs


def test_14_beats_in_10_seconds_need_84() -> None:
    assert needed_bpm(F(14), F(10)) == 84
    reading = read(Drill(material=ScaleRun(), legs=legs(2), breath=F(10)))
    assert [(one.beats, one.needed_bpm, one.fits) for one in breath_sums(reading, F(84))] == [(14, 84, True)]
    assert [one.fits for one in breath_sums(reading, F(83))] == [False]


def marks(drill: Drill, bpm: int) -> list[str]:
    return [event.place_name for event in breath_marks(read(drill), F(bpm))]


def test_a_run_that_is_too_long_breathes_at_its_turn() -> None:
    drill = Drill(material=ScaleRun(), legs=legs(2), breath=F(10))
    assert marks(drill, 84) == []
    # 14 beats at 60 are 14 s; the note after the turn is number 16, half a beat after beat 8.
    assert marks(drill, 60) == ["bar 2, beat 4, &"]


def test_without_a_turn_one_breathes_at_bar_lines_else_at_beats() -> None:
    drill = Drill(material=OneNote(beats=16), legs=legs(4), breath=F(6))
    assert marks(drill, 60) == ["bar 2, beat 1", "bar 3, beat 1", "bar 4, beat 1"]
    assert marks(Drill(material=OneNote(beats=8), legs=legs(1), breath=F(3)), 60) == [
        "bar 1, beat 4",
        "bar 2, beat 1",
        "bar 2, beat 4",
    ]


def test_each_leg_begins_with_a_breath_unless_they_go_straight_on() -> None:
    held = Drill(material=OneNote(beats=4), legs=legs(2, 3), breath=F(20))
    assert marks(held, 60) == ["bar 2, beat 1"]
    assert marks(Drill(material=OneNote(beats=4), legs=legs(2, 3), breath=F(20), seam="straight_on"), 60) == []


def test_where_breath_does_not_matter_nothing_is_said() -> None:
    assert breath_sums(read(Drill()), F(60)) == ()
    assert breath_marks(read(Drill()), F(10)) == ()


@pytest.mark.parametrize(("part", "field"), [({"breath": F(61)}, "breath"), ({"articulation": F(0)}, "articulation")])
def test_what_no_one_can_play_is_refused(part: dict[str, F], field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        Drill(**part)  # type: ignore[arg-type]
    assert refused.value.field == field


def test_a_short_note_sounds_for_its_share_and_starts_where_it_did() -> None:
    full, short = (
        perform(read(Drill(material=OneNote(beats=4), legs=legs(2), articulation=share)), F(60)).tones
        for share in (F(1), F(1, 2))
    )
    assert [tone.at for tone in full] == [tone.at for tone in short]
    assert {tone.seconds for tone in full[:-1]} == {0.5}
    assert {tone.seconds for tone in short[:-1]} == {0.25}


@given(drills)
def test_a_straight_run_of_beats_is_never_longer_than_a_breath(drill: Drill) -> None:
    # Legs with meters of their own do not go straight on.
    assume(";" not in drill.meter)
    reading = read(replace(drill, breath=F(3), seam="straight_on"))
    longest = 3 * drill.bpm / 60
    onsets = [event.onset for event in reading.notes]
    marked = [onsets[0], *(event.onset for event in breath_marks(reading, drill.bpm))]
    for start, end in pairwise(marked):
        assert start < end
        assert end - start <= longest or not any(start < onset < end for onset in onsets)
