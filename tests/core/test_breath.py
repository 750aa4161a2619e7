"""Breath and articulation: the tempo that a breath asks for, where to breathe, and how much of a note sounds."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import chain, combinations, pairwise

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.hands import Articulated
from ripresa.core.drill.material import Line, LongNotes, OneNote, ScaleRun
from ripresa.core.drill.material.run import Shape
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import perform
from ripresa.core.reading import Reading, read
from ripresa.core.reports import breath_plan, breath_sums, breaths_by_rung, slowest_of_one_breath, sums
from ripresa.core.reports.breath import _ONE_MORE, _is_leading, _price, _starts, _stretches, _Sung, needed_bpm
from tests.strategies import drills, legs


def test_14_beats_in_10_seconds_need_84() -> None:
    assert needed_bpm(F(14), F(10)) == 84
    reading = read(Drill(material=ScaleRun(), legs=legs(2), breath=F(10)))
    assert [(one.beats, one.needed_bpm, one.fits) for one in breath_sums(reading, F(84))] == [(14, 84, True)]
    assert [one.fits for one in breath_sums(reading, F(83))] == [False]


def marks(drill: Drill, bpm: int) -> list[str]:
    return [event.place_name for event in sums(read(drill), F(bpm)).breath_marks]


def test_a_run_that_is_too_long_breathes_at_its_turn() -> None:
    drill = Drill(material=ScaleRun(), legs=legs(2), breath=F(10))
    assert marks(drill, 84) == []
    # 14 beats at 60 are 14 s; the note after the turn is number 16, half a beat after beat 8.
    assert marks(drill, 60) == ["bar 2, beat 4, &"]


def test_without_a_turn_one_breathes_at_bar_lines_else_at_beats() -> None:
    drill = Drill(material=OneNote(beats=16), legs=legs(4), breath=F(6))
    assert marks(drill, 60) == ["bar 2, beat 1", "bar 3, beat 1", "bar 4, beat 1"]
    # No bar line can be reached in three beats: then as seldom as can be, on beats.
    plan = breath_plan(read(Drill(material=OneNote(beats=8), legs=legs(1), breath=F(3))), F(60))
    assert [(one.notes, one.seconds, one.fits) for one in plan] == [(3, 3, True), (3, 3, True), (2, 2, True)]
    assert {one.why for one in plan} == {"start", "beat"}


def test_one_breathes_at_a_seam_rather_than_elsewhere_where_a_breath_does_not_last() -> None:
    held = Drill(material=OneNote(beats=6), legs=legs(2, 3), breath=F(8), meter="3/4")
    assert marks(held, 60) == ["bar 3, beat 1"]
    assert [one.why for one in breath_plan(read(held), F(60))] == ["start", "seam"]
    # Twelve beats in twelve seconds are one breath, over the seam too.
    assert marks(replace(held, breath=F(12)), 60) == []
    assert marks(replace(held, breath=F(12)), 59) == ["bar 3, beat 1"]


#: Two-bar phrases, each with a longer note at its end.
TUNE = "E4*1 F4 G4 E4 | C5*1 A4 G4*2 | A4*1 G4 F4 A4 | G4*1 F4 E4*2 | " * 2


def tune(**parts: object) -> Drill:
    line = Line(TUNE.rstrip("| "), rhythm="own")
    return Drill(**{"material": line, "instrument": "recorder", "breath": F(9), "legs": legs(1), **parts})  # type: ignore[arg-type]


def test_a_tune_breathes_at_the_ends_of_its_phrases() -> None:
    assert marks(tune(), 60) == ["bar 3, beat 1", "bar 5, beat 1", "bar 7, beat 1"]
    assert {one.why for one in breath_plan(read(tune()), F(60))} == {"start", "phrase_end"}


def test_not_after_the_first_note_of_a_phrase_though_it_is_a_turn() -> None:
    # Quarters alone: the first note of bar 3 is the highest, and a bar line comes before it.
    line = Line("C4*1 D4 E4 F4 | E4 D4 E4 F4 | G4 F4 E4 D4 | C4 D4 E4 C4", rhythm="own")
    assert marks(tune(material=line), 60) == ["bar 3, beat 1"]


def test_phrases_that_are_typed_come_first() -> None:
    found = marks(tune(phrases="3:2, 6"), 60)
    assert "bar 3, beat 2" in found
    assert "bar 6, beat 1" in found
    assert marks(tune(phrases="3"), 240) == ["bar 3, beat 1"]
    assert marks(tune(), 240) == []


def test_long_notes_with_rests_are_a_breath_each() -> None:
    drill = Drill(material=LongNotes(beats=6, rest=2), legs=legs(1), instrument="flute", breath=F(9))
    (one,) = breath_sums(read(drill), F(60))
    assert (one.beats, one.needed_bpm, one.fits) == (6, 40, True)


def test_where_breath_does_not_matter_nothing_is_said() -> None:
    assert breath_sums(read(Drill()), F(60)) == ()
    assert sums(read(Drill()), F(10)).breath_marks == ()


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
def test_no_breath_is_longer_than_it_lasts_but_for_a_note_that_is(drill: Drill) -> None:
    # Legs with meters of their own do not go straight on.
    assume(";" not in drill.meter)
    reading = read(replace(drill, breath=F(3), seam="straight_on"))
    plan = breath_plan(reading, drill.bpm)
    assert sum(one.notes for one in plan) == len(reading.notes)
    assert all(before.first.onset < after.first.onset for before, after in pairwise(plan))
    for one in plan:
        assert one.fits == (one.seconds <= 3)
        assert one.fits or one.notes == 1


def test_one_breathes_between_slurs_and_not_inside() -> None:
    slurred = Drill(
        material=OneNote(beats=8), legs=legs(4), breath=F(3), instrument="flute", hands=Articulated("slur_pairs")
    )
    for bpm in (40, 50, 60, 70):
        marked = sums(read(slurred), F(bpm)).breath_marks
        assert marked
        assert not any(event.slurred for event in marked)
    # In one long slur there is no other way.
    one = replace(slurred, hands=Articulated("all_slurred"))
    assert any(event.slurred for event in sums(read(one), F(60)).breath_marks)


def test_one_does_not_breathe_before_a_leading_note_nor_after_it() -> None:
    # Eight quarters in a breath of seven beats: only the last two places could be reached late.
    rising = Drill(
        material=ScaleRun(octaves=1, shape="up"), legs=legs(1), breath=F(7), closing="own", instrument="flute"
    )
    before = [event.pitch.name for event in sums(read(replace(rising, breath=F(6))), F(60)).breath_marks if event.pitch]
    assert before
    assert not {"B4", "B5", "C5", "C6"} & set(before)


@pytest.mark.parametrize(
    ("scale", "shape", "leading"),
    [
        ("major", "up", ["B3"]),
        ("harmonic_minor", "up", ["B3"]),
        # A seventh that is a whole tone under the tonic leads nowhere, and neither does one that goes down.
        ("natural_minor", "up", []),
        ("mixolydian", "up", []),
        ("major", "down", []),
    ],
)
def test_the_seventh_leads_where_it_rises_by_a_semitone_to_the_tonic(
    scale: str, shape: Shape, leading: list[str]
) -> None:
    reading = read(Drill(material=ScaleRun(scale=scale, shape=shape, octaves=1), legs=legs(1), closing="own"))
    ((_, stretch),) = _stretches(reading)
    found = [one.event.pitch for number, one in enumerate(stretch) if _is_leading(reading, stretch, number)]
    assert [pitch.name for pitch in found if pitch] == leading


def test_the_turn_is_the_place_to_breathe() -> None:
    plan = breath_plan(read(Drill(material=ScaleRun(), legs=legs(2), breath=F(10))), F(60))
    assert [(one.why, one.notes) for one in plan] == [("start", 15), ("turn", 14)]


def test_rungs_tell_where_a_breath_more_is_needed_and_from_where_one_is_enough() -> None:
    reading = read(Drill(material=ScaleRun(), legs=legs(2), breath=F(10), instrument="flute"))
    tempi = [F(one) for one in (30, 40, 60, 84, 100)]
    found = breaths_by_rung(reading, tempi)
    # 5 beats a breath at 30: three breaths would have to break inside bars, four do so at bar lines and the turn.
    assert [one.breaths for one in found] == [4, 3, 2, 1, 1]
    assert [one.one_more for one in found] == [True, True, True, False, False]
    assert slowest_of_one_breath(reading) == 84


@settings(max_examples=40)
@given(
    st.lists(st.sampled_from(["E4", "F4", "G4", "B4", "C5", "r", "D4*2"]), min_size=2, max_size=10), st.integers(2, 5)
)
def test_the_breaths_are_as_cheap_as_any_others(words: list[str], seconds: int) -> None:
    line = " ".join(word if "*" in word else f"{word}*1" for word in words)
    if all(word == "r" for word in words):
        return
    drill = Drill(material=Line(line), legs=legs(2), breath=F(seconds), instrument="flute", bpm=F(40))
    reading = read(drill)
    longest = drill.breath * drill.bpm / 60
    for _, stretch in _stretches(reading):
        every = chain.from_iterable(combinations(range(1, len(stretch)), size) for size in range(len(stretch)))
        fitting = [cuts for cuts in every if fits(stretch, cuts, longest)]
        chosen = tuple(_starts(reading, stretch, longest)[1:])
        if fitting:
            assert cost(reading, stretch, chosen) == min(cost(reading, stretch, cuts) for cuts in fitting)


def fits(stretch: Sequence[_Sung], cuts: tuple[int, ...], longest: F) -> bool:
    edges = [0, *cuts, len(stretch)]
    return all(stretch[after - 1].end - stretch[start].event.onset <= longest for start, after in pairwise(edges))


def cost(reading: Reading, stretch: Sequence[_Sung], cuts: tuple[int, ...]) -> int:
    return sum(_ONE_MORE + _price(reading, stretch, cut) for cut in cuts)
