"""Practice: a part that goes round, a seam with the beat on either side, in turn, before and after it was moved."""

from dataclasses import replace

import pytest
from hypothesis import given

from ripresa.core.drill import STEPS, Drill, Reduce
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Count, Line, OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import (
    Performance,
    Window,
    at_step,
    bars_window,
    before_it_was_moved,
    in_turn,
    is_drill_itself,
    perform,
    score,
    seams,
    slowed,
)
from ripresa.core.reading import read
from tests.strategies import drills, legs

DRILL = Drill(material=OneNote(beats=8), legs=legs(2, 3))


def played(drill: Drill, window: Window | None = None) -> Performance:
    return perform(read(drill), F(60), window=window)


def test_bars_go_round_by_themselves() -> None:
    found = played(DRILL, bars_window(read(DRILL), 2, 2))
    assert found.loop_seconds == 4
    assert [tone.at for tone in found.tones] == [n / 2 for n in range(8)]
    assert [(bar.number, bar.begin, bar.end) for bar in found.bars] == [(2, 0, 4)]
    with pytest.raises(OutOfRange, match="Choose bars from 1 to 4, not 3 to 9"):
        bars_window(read(DRILL), 3, 9)


def test_a_seam_has_the_beat_on_either_side() -> None:
    (seam,) = seams(read(DRILL))
    assert (seam.start, seam.beats, seam.name) == (7, 2, "the seam 1 to 2")
    found = played(DRILL, seam)
    assert [round(tone.at, 3) for tone in found.tones] == [0, 0.5, 1, 1.333, 1.667]
    assert [(bar.at, bar.number, bar.begin, bar.end) for bar in found.bars] == [(0, 2, 3, 4), (1, 3, 0, 1)]


def test_the_click_keeps_its_phase_in_a_part() -> None:
    drill = replace(DRILL, click=NamedClick(plan="two_and_four"))
    found = played(drill, Window(F(1), F(2), "two beats"))
    assert [tick.at for tick in found.ticks] == [0]


@given(drills)
def test_a_window_over_everything_is_the_whole(drill: Drill) -> None:
    reading = read(drill)
    whole = score(reading, F(60))
    around = score(reading, F(60), window=Window(F(0), reading.loop_beats, "all"))
    assert [tone.at for tone in around.tones] == [tone.at for tone in whole.tones]
    turn = [tick for tick in whole.ticks if tick.at < around.beats]
    assert list(around.ticks)[: len(turn)] == turn
    assert (around.bars, around.lead) == (whole.bars, whole.lead)


def test_in_turn_the_notes_sound_for_one_half_and_the_click_for_all_of_it() -> None:
    whole = score(read(DRILL), F(60))
    found = in_turn(whole, 2)
    assert found.beats == 4 * whole.beats
    assert found.yours_from == 2 * whole.beats
    assert [tone.at for tone in found.tones] == [
        *[tone.at for tone in whole.tones],
        *[tone.at + whole.beats for tone in whole.tones],
    ]
    assert (found.ticks, found.click_beats) == (whole.ticks, whole.click_beats)
    assert [bar.number for bar in found.bars] == [1, 2, 3, 4] * 4
    assert max(tone.at for tone in found.tones) < found.yours_from
    with pytest.raises(OutOfRange, match="Take turns of 1 to 8 passes"):
        in_turn(whole, 0)


@pytest.mark.parametrize("share", [F(1, 5), F(1), F(3, 2)])
def test_slow_is_a_part_of_the_tempo(share: F) -> None:
    with pytest.raises(OutOfRange, match="Slow is from ¼ to below all of the tempo"):
        slowed(F(96), share)


def test_a_step_that_is_not_the_drill_itself_is_practice() -> None:
    assert [step for step in STEPS if is_drill_itself(step)] == ["whole"]
    assert is_drill_itself(None)


def test_before_it_was_moved() -> None:
    counted = Drill(material=Count(shift=2), legs=legs(1))
    line = Drill(material=Line("1 2 3", shift=F(2)), legs=legs(2))
    assert before_it_was_moved(counted).material == Count()
    assert read(before_it_was_moved(line)).notes[0].onset == 0
    assert before_it_was_moved(DRILL) == DRILL


def test_a_step_of_the_way_in_plays_its_part() -> None:
    handed = replace(DRILL, hands=ByOrder(cycle=("R", "L")))
    assert at_step(handed, "hand").reduce == Reduce("hand", "R")
    assert at_step(handed, "say") == handed
    kept = replace(handed, reduce=Reduce("hits"))
    assert at_step(kept, "whole") == kept
