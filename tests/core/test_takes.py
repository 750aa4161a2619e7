"""Up, stay or back after a take; the latency of a source; the stand-in player and its faults by name."""

import pytest

from ripresa.core.climbs import BpmTarget, ClimbPlan, EvenSteps, decide, laid_rungs
from ripresa.core.climbs.deciding import run_of
from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.takes import (
    Mark,
    StandIn,
    changed_player,
    delayed,
    due_notes,
    measure_latency,
    parse_faults,
    play,
)
from tests.strategies import legs

READING = read(Drill(material=OneNote(beats=16), legs=legs(4)))

PLAN = ClimbPlan(start=F(84), target=BpmTarget(F(100)), rule=EvenSteps(F(4)), clean_to_rise=2, shaky_to_fall=3)


@pytest.mark.parametrize(
    ("rung", "marks", "heading", "sentence"),
    [
        pytest.param(1, "", "Stay here", "2 clean in a row at 84 go up.", id="the rule is said before the try"),
        pytest.param(1, "c", "Stay here", "One clean take, 1 more to go up.", id="one clean"),
        pytest.param(1, "cc", "Up to 88", "Two clean takes in a row at 84.", id="two clean"),
        pytest.param(2, "csc", "Stay here", "One clean take, 1 more to go up.", id="a shaky one breaks the row"),
        pytest.param(2, "cuc", "Up to 92", "Two clean takes in a row at 88.", id="one too near to call does not"),
        pytest.param(2, "cnnc", "Up to 92", "Two clean takes in a row at 88.", id="nor those without a verdict"),
        pytest.param(1, "nnn", "Stay here", "2 clean in a row at 84 go up.", id="what was not the drill moves nothing"),
        pytest.param(2, "ss", "Stay here", "Two shaky takes at 88; 2 clean in a row go up.", id="two shaky"),
        pytest.param(2, "sss", "Back to 84", "Three shaky takes in a row at 88.", id="three shaky"),
        pytest.param(1, "sss", "Stay here", "A lower start may help", id="nothing below the first rung"),
        pytest.param(5, "cc", "The target stands", "at 100, the target", id="nothing above the last"),
    ],
)
def test_up_stay_or_back(rung: int, marks: str, heading: str, sentence: str) -> None:
    names: dict[str, Mark] = {"c": "clean", "s": "shaky", "u": "near", "n": "none"}
    word = decide(PLAN, laid_rungs(PLAN), rung, [names[mark] for mark in marks])
    assert word.heading == heading
    assert sentence in word.sentence


@pytest.mark.parametrize(
    ("marks", "wanted", "run"),
    [
        (["clean", "near", "clean"], "clean", 2),
        (["shaky", "none", "shaky", "near"], "shaky", 2),
        (["clean", "shaky", "clean"], "clean", 1),
        (["clean", "clean", "shaky"], "clean", 0),
        (["near", "none"], "clean", 0),
    ],
)
def test_a_run_goes_on_over_what_says_nothing(marks: list[Mark], wanted: Mark, run: int) -> None:
    assert run_of(marks, wanted) == run


def test_latency_is_measured_from_taps_along_a_click() -> None:
    due = [float(at) for at in range(16)]
    taps = [at + 0.031 + 0.004 * (-1) ** index for index, at in enumerate(due)]
    found = measure_latency(due, taps)
    assert found.value == pytest.approx(0.031, abs=0.005)
    assert found.count == 14


def test_one_tap_that_went_wrong_does_not_move_the_latency() -> None:
    due = [float(at) for at in range(16)]
    taps = [at + (0.15 if index == 9 else 0.03) for index, at in enumerate(due)]
    assert measure_latency(due, taps).value == pytest.approx(0.03)


@pytest.mark.parametrize(
    "taps", [[1.0, 2.0], [at + (index % 5) * 0.07 for index, at in enumerate(range(16))]], ids=["few", "wild"]
)
def test_taps_that_say_nothing_are_refused(taps: list[float]) -> None:
    with pytest.raises(OutOfRange):
        measure_latency([float(at) for at in range(16)], taps)


def test_the_same_seed_plays_the_same_take() -> None:
    due = due_notes(READING, F(96), 0.0, 20.0)
    assert play(StandIn(seed=4), due) == play(StandIn(seed=4), due)
    assert play(StandIn(seed=4), due) != play(StandIn(seed=5), due)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("spread_ms=500", "Take 0 to 200 ms"),
        ("spread_ms=nan", "Take 0 to 200 ms"),
        ("stumble=60", "A player has no “stumble”"),
        ("lost_beats=many", "should be a name and a number"),
    ],
)
def test_a_player_that_cannot_be_is_refused(text: str, says: str) -> None:
    with pytest.raises(OutOfRange, match=says):
        changed_player(StandIn(), 1, parse_faults(text))


def test_faults_are_asked_for_by_name() -> None:
    assert parse_faults(" stumble_ms=60, lost_beats=1 ") == {"stumble_ms": 60.0, "lost_beats": 1.0}
    assert changed_player(StandIn(), 7, parse_faults("lost_beats=2")) == StandIn(lost_beats=2, seed=7)


def test_a_device_that_is_late_is_late_by_as_much_on_every_note() -> None:
    due = due_notes(READING, F(96), 0.0, 5.0)
    on_time, late = play(StandIn(), due), delayed(play(StandIn(), due), 0.04)
    assert [note.at - 0.04 for note in late.notes] == pytest.approx([note.at for note in on_time.notes])
    assert late.meant == on_time.meant
