from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.climbs import (
    CLICK_LADDERS,
    BpmTarget,
    ClimbPlan,
    EvenSteps,
    PerCent,
    SpeedTarget,
    decide,
    exact_steps,
    laid_rungs,
    rung_of,
    rungs,
    tempi,
    with_clicks,
)
from ripresa.core.drill.click import NamedClick
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.rhythm import Settings, setting
from tests.strategies import fractions


def plan(start: int, target: int, rule: PerCent | EvenSteps, settings: Settings = "whole") -> ClimbPlan:
    return ClimbPlan(start=F(start), target=BpmTarget(F(target)), rule=rule, settings=settings)


def test_four_per_cent_from_84_to_120() -> None:
    climb = plan(84, 120, PerCent(F(4)))
    assert tempi(climb) == (84, 87, 91, 94, 98, 102, 106, 111, 115, 120)
    assert exact_steps(climb) == 10


def test_four_bpm_from_84_to_120_is_nine_steps() -> None:
    found = tempi(plan(84, 120, EvenSteps(F(4))))
    assert found == tuple(range(84, 121, 4))
    assert len(found) == 10


def test_a_speed_as_target() -> None:
    climb = ClimbPlan(start=F(72), target=SpeedTarget(nps=F(46, 5), division=F(4)), rule=PerCent(F(5)))
    assert tempi(climb)[-1] == 138


def test_a_target_between_two_settings_is_the_last_rung_exactly() -> None:
    climb = ClimbPlan(start=F(60), target=BpmTarget(F(185, 2)), rule=EvenSteps(F(10)))
    assert tempi(climb) == (60, 70, 80, 90, F(185, 2))


def test_halves_and_the_numbered_series() -> None:
    assert tempi(plan(60, 64, PerCent(F(2)), "halves")) == (60, 61, F(125, 2), F(127, 2), 64)
    assert tempi(plan(60, 80, PerCent(F(4)), "numbered")) == (60, 63, 66, 69, 72, 76, 80)


def test_rungs_carry_speed_and_gap() -> None:
    last = rungs(plan(84, 120, PerCent(F(4))), F(4))[-1]
    assert (last.number, last.nps, last.gap_seconds) == (10, 8, F(1, 8))


starts = st.integers(30, 150)
rules = st.one_of(
    st.builds(PerCent, step=fractions(1, 20, 2)),
    st.builds(EvenSteps, step=fractions(1, 12, 2)),
)


@given(starts, st.integers(1, 120), rules, st.sampled_from(["whole", "halves"]))
def test_a_ladder_starts_and_ends_where_asked_and_rises(
    start: int, more: int, rule: PerCent, settings: Settings
) -> None:
    found = tempi(plan(start, start + more, rule, settings))
    assert (found[0], found[-1]) == (start, start + more)
    assert all(low < high for low, high in pairwise(found))
    assert len({setting(bpm, settings) for bpm in found}) == len(found)


@pytest.mark.parametrize(
    ("make", "field", "says"),
    [
        (lambda: plan(120, 84, PerCent()), "target", "has to be above the start"),
        (lambda: plan(84, 84, PerCent()), "target", "has to be above the start"),
        (lambda: plan(84, 2000, PerCent()), "target", "cannot be played"),
        (lambda: PerCent(F(0)), "rule.step", "leads nowhere"),
        (lambda: EvenSteps(F(1, 4)), "rule.step", "cannot be used"),
        (lambda: SpeedTarget(nps=F(0)), "target", "above 0"),
        (lambda: ClimbPlan(start=F(60), clean_to_rise=0), "clean_to_rise", "1 to 9"),
        (lambda: ClimbPlan(start=F(60), shaky_to_fall=1), "shaky_to_fall", "2 to 9"),
        (lambda: tempi(plan(60, 900, EvenSteps(F(1, 2)), "halves")), "rule.step", "more than 200 rungs"),
    ],
    ids=["down", "nowhere", "too fast", "no step", "tiny step", "no speed", "no clean", "one shaky", "too many"],
)
def test_climbs_that_cannot_be_are_refused(make: object, field: str, says: str) -> None:
    with pytest.raises(OutOfRange, match=says) as refused:
        make()  # type: ignore[operator]
    assert refused.value.field == field


def test_the_rungs_pass_a_click_ladder_in_order() -> None:
    ladder = CLICK_LADDERS["thin_out"].plans
    found = rungs(ClimbPlan(start=F(84), clicks=ladder), F(4))
    words = [rung.click.words for rung in found if rung.click]
    assert len(words) == len(found) == 10
    assert list(dict.fromkeys(words)) == [plan.words for plan in ladder]
    assert words[0] == "every beat"
    assert words[-1] == "once in 4 bars"


def test_without_a_ladder_the_click_is_the_drills() -> None:
    assert {rung.click for rung in rungs(ClimbPlan(start=F(84)), F(4))} == {None}


def test_too_long_a_ladder_is_refused() -> None:
    with pytest.raises(OutOfRange) as refused:
        ClimbPlan(start=F(84), clicks=CLICK_LADDERS["shift"].plans * 4)
    assert refused.value.field == "clicks"


CLICKS = (NamedClick(), NamedClick(plan="two_and_four"), NamedClick(plan="none"))


def laddered(order: str) -> ClimbPlan:
    return ClimbPlan(
        start=F(60),
        target=BpmTarget(F(68)),
        rule=EvenSteps(F(4)),
        clicks=CLICKS,
        click_order=order,  # type: ignore[arg-type]
    )


@pytest.mark.parametrize(
    ("order", "expected"),
    [
        ("with_tempo", "60 every beat, 64 2 and 4, 68 never"),
        (
            "each_tempo",
            "60 every beat, 60 2 and 4, 60 never, 64 every beat, 64 2 and 4, 64 never, "
            "68 every beat, 68 2 and 4, 68 never",
        ),
        ("at_target", "60 every beat, 64 every beat, 68 every beat, 68 2 and 4, 68 never"),
    ],
)
def test_a_click_ladder_is_passed_like_rungs(order: str, expected: str) -> None:
    found = laid_rungs(laddered(order))
    assert ", ".join(f"{bpm} {click.words if click else ''}" for bpm, click, *_ in found) == expected


def test_the_word_names_the_click_where_the_tempo_stays() -> None:
    plan = laddered("at_target")
    assert decide(plan, laid_rungs(plan), 3, ["clean", "clean"]).heading == "On to 2 and 4"
    assert decide(plan, laid_rungs(plan), 2, ["clean", "clean"]).heading == "Up to 68"
    assert decide(plan, laid_rungs(plan), 4, ["shaky"] * 3).heading == "Back to every beat"
    assert decide(plan, laid_rungs(plan), 5, []).sentence == "2 clean in a row at 68 (click: never) go up."


def test_another_click_ladder_leaves_every_rung_at_its_tempo() -> None:
    plan = laddered("each_tempo")
    fewer, places = with_clicks(plan, CLICKS[1:], "each_tempo")
    old, new = laid_rungs(plan), laid_rungs(fewer)
    assert all(old[number - 1][0] == new[place - 1][0] for number, place in places.items())
    assert [places[number] for number in (4, 5, 6)] == [3, 3, 4]


def test_a_click_ladder_has_each_click_once_and_no_more_rungs_than_a_climb_may_have() -> None:
    with pytest.raises(OutOfRange, match="“2 and 4” stands twice") as refused:
        ClimbPlan(start=F(60), clicks=(*CLICKS, CLICKS[1]))
    assert refused.value.field == "clicks"
    many = ClimbPlan(start=F(60), rule=EvenSteps(F(1, 2)), settings="halves", clicks=CLICKS, click_order="each_tempo")
    with pytest.raises(OutOfRange, match="3 clicks at each tempo make 363 rungs, more than 200"):
        laid_rungs(many)


BEAT, BACK = NamedClick(), NamedClick(plan="two_and_four")
TWICE = ClimbPlan(
    start=F(84),
    target=BpmTarget(F(92)),
    rule=EvenSteps(F(4)),
    clicks=(BEAT, BACK),
    click_order="each_tempo",
)


@pytest.mark.parametrize(
    ("bpm", "click", "wanted", "rung"),
    [
        pytest.param(88, BACK, 4, 4, id="where it says"),
        pytest.param(88, BACK, 3, 4, id="its click is that of the next rung"),
        pytest.param(88, BEAT, 18, 3, id="the rung that it says is gone"),
        pytest.param(92, NamedClick(plan="none"), 6, 6, id="a click of no rung: where it says, at its tempo"),
        pytest.param(92, NamedClick(plan="none"), 1, 5, id="a click of no rung, and another tempo than it says"),
        pytest.param(90, BEAT, 3, None, id="a tempo of no rung"),
    ],
)
def test_a_take_is_placed_by_its_tempo_and_its_click(
    bpm: int, click: NamedClick, wanted: int, rung: int | None
) -> None:
    assert rung_of(laid_rungs(TWICE), F(bpm), click, wanted) == rung
