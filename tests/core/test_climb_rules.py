"""Rung rules, targets and moving rules, by the worked numbers of the job and as properties."""

from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.changes import Part
from ripresa.core.climbs import (
    CLICK_LADDERS,
    NEVER_FALLS,
    PRESETS,
    BandTarget,
    BpmTarget,
    Bursts,
    Checkpoints,
    ClimbPlan,
    DivideThenRaise,
    EvenSteps,
    HeartTarget,
    HitList,
    Moving,
    PerCent,
    RungRule,
    SteadyTarget,
    ZigZag,
    decide,
    laid_rungs,
    rule_sentence,
    rung_of,
    rungs,
    speed_map,
    tempi,
    with_clicks,
)
from ripresa.core.drill.click import NamedClick
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.rhythm import Settings
from ripresa.core.rhythm.tempo import NUMBERED
from ripresa.core.takes import Mark
from tests.strategies import fractions


def ladder(rule: RungRule, start: int = 84, target: int = 120, **more: Any) -> ClimbPlan:
    return ClimbPlan(start=F(start), target=BpmTarget(F(target)), rule=rule, **more)


def test_eight_up_four_back_touches_120_after_15_steps() -> None:
    found = tempi(ladder(ZigZag(F(8), F(4))))
    assert len(found) - 1 == 15
    assert found == (84, 92, 88, 96, 92, 100, 96, 104, 100, 108, 104, 112, 108, 116, 112, 120)


@pytest.mark.parametrize("settings", ["whole", "halves", "numbered"])
@pytest.mark.parametrize("goal", [97, 98, 101, 119])
def test_a_zigzag_ends_on_its_goal_whatever_can_be_set(settings: Settings, goal: int) -> None:
    """Steps go by what a metronome can be set to; the target is the target, and no step goes beyond it."""
    plan = ladder(ZigZag(F(8), F(4)), target=goal, settings=settings)
    found = tempi(plan)
    assert found[-1] == max(found) == goal
    assert found.count(F(goal)) == 1
    if settings == "numbered":
        assert set(found[1:-1]) <= {F(one) for one in NUMBERED}


def test_five_checkpoints_from_84_to_120_are_of_one_ratio() -> None:
    climb = ladder(Checkpoints(5))
    assert tempi(climb) == (84, 92, 100, 110, 120)
    rule = climb.rule
    assert isinstance(rule, Checkpoints)
    exact = [bpm for bpm, _ in zip(rule.tempi(F(84), F(120)), range(5), strict=False)]
    ratios = [float(after / before) for before, after in pairwise(exact)]
    assert ratios == pytest.approx([(120 / 84) ** 0.25] * 4, rel=1e-12)


def test_divide_first_then_raise_with_the_last_division() -> None:
    found = rungs(ladder(DivideThenRaise((F(2), F(3), F(4)), F(4))), F(6))
    assert [(rung.bpm, rung.division) for rung in found[:5]] == [(84, 2), (84, 3), (84, 4), (88, 4), (92, 4)]
    assert (len(found), found[-1].bpm, found[-1].nps) == (12, 120, 8)
    assert found[1].part == Part(only=F(3))
    assert found[1].words == "3 a beat"


def test_dividing_alone_may_end_at_the_beat_it_began_with() -> None:
    assert [rung.nps for rung in rungs(ladder(DivideThenRaise(), 60, 60), F(1))] == [2, 3, 4]


def test_bursts_stand_at_the_target_from_the_first() -> None:
    found = rungs(ladder(Bursts((1, 2, 4))), F(4))
    assert {rung.bpm for rung in found} == {120}
    assert [rung.part for rung in found] == [Part(burst=1), Part(burst=2), Part(burst=4), None]


any_rule: st.SearchStrategy[RungRule] = st.one_of(
    st.builds(PerCent, step=fractions(1, 20, 2)),
    st.builds(EvenSteps, step=fractions(1, 12, 2)),
    st.builds(Checkpoints, count=st.integers(2, 12)),
    st.builds(ZigZag, step=st.integers(5, 20).map(F), back=st.integers(1, 4).map(F)),
    st.builds(
        DivideThenRaise,
        divisions=st.sets(st.integers(1, 9).map(F), min_size=2, max_size=5).map(lambda found: tuple(sorted(found))),
        step=st.integers(2, 12).map(F),
    ),
    st.builds(
        Bursts, beats=st.sets(st.integers(1, 16), min_size=1, max_size=4).map(lambda found: tuple(sorted(found)))
    ),
)


@given(st.integers(30, 150), st.integers(1, 120), any_rule, st.sampled_from(["whole", "halves"]))
def test_every_rule_ends_on_its_target_and_keeps_what_it_promises(
    start: int, more: int, rule: RungRule, settings: Any
) -> None:
    plan = ladder(rule, start, start + more, settings=settings)
    division = max(rule.divisions) if isinstance(rule, DivideThenRaise) else F(4)
    found = rungs(plan, division)
    assert found[-1].bpm == start + more
    assert (found[-1].part or Part()).burst is None
    assert len({(one.bpm, one.part, one.number) for one in found}) == len(found)
    if not isinstance(rule, Bursts):
        assert found[0].bpm == start
    if rule.kind in NEVER_FALLS:
        assert all(before.nps <= after.nps for before, after in pairwise(found))
        assert "never falls" in rule_sentence(rule)
    else:
        assert "never falls" not in rule_sentence(rule)


@pytest.mark.parametrize(
    ("make", "field", "says"),
    [
        pytest.param(lambda: tempi(ladder(ZigZag(F(4), F(4)))), "rule.back", "never arrive", id="zigzag on the spot"),
        pytest.param(lambda: DivideThenRaise((F(4), F(3))), "rule.divisions", "have to rise", id="falling divisions"),
        pytest.param(lambda: DivideThenRaise((F(4),)), "rule.divisions", "2 to 8", id="one division"),
        pytest.param(lambda: DivideThenRaise((F(2), F(3), F(17))), "rule.divisions", "up to 16", id="seventeen a beat"),
        pytest.param(lambda: DivideThenRaise((F(0), F(3))), "rule.divisions", "2 to 8", id="no notes at all"),
        pytest.param(lambda: Bursts((4, 2)), "rule.beats", "longer than the one before", id="shrinking bursts"),
        pytest.param(lambda: Bursts(()), "rule.beats", "1 to 8 lengths", id="no burst"),
        pytest.param(lambda: Checkpoints(1), "rule.count", "cannot be used", id="one checkpoint"),
        pytest.param(lambda: BandTarget(F(9), F(8)), "target", "to a faster one", id="band upside down"),
        pytest.param(lambda: HitList(()), "target.steps", "1 to 40", id="nothing to hit"),
        pytest.param(lambda: HitList(("a", "a")), "target.steps", "stands twice", id="a hit twice"),
        pytest.param(lambda: ClimbPlan(start=F(60), target=SteadyTarget()), "clicks", "click ladder", id="no clicks"),
        pytest.param(lambda: ClimbPlan(start=F(60), box_minutes=0), "box_minutes", "1 to 60", id="no time"),
    ],
)
def test_what_cannot_be_climbed_is_refused_with_the_word_to_blame(make: Any, field: str, says: str) -> None:
    with pytest.raises(OutOfRange, match=says) as refused:
        make()
    assert refused.value.field == field


def test_a_band_leads_to_its_lower_edge_and_both_edges_belong_to_it() -> None:
    band = BandTarget(F(8), F(9), F(4))
    assert tempi(ClimbPlan(start=F(84), target=band))[-1] == 120
    assert [band.place(nps) for nps in (F(799, 100), F(8), F(9), F(901, 100))] == ["below", "inside", "inside", "above"]


def test_without_a_speed_the_tempo_stays() -> None:
    clicks = CLICK_LADDERS["thin_out"].plans
    steady = rungs(ClimbPlan(start=F(72), target=SteadyTarget(), clicks=clicks), F(4))
    assert [rung.click for rung in steady] == list(clicks)
    assert {rung.bpm for rung in steady} == {72}
    heart = rungs(ClimbPlan(start=F(72), target=HeartTarget()), F(4))
    assert heart[2].words == "by heart"
    assert {(rung.bpm, rung.part) for rung in heart} == {(72, None)}
    plan = ClimbPlan(start=F(72), target=HitList(("notes", "rhythm")), clicks=clicks[:2])
    assert [(rung.words, rung.click) for rung in rungs(plan, F(4))] == [
        (words, click) for words in ("notes", "rhythm") for click in clicks[:2]
    ]


def moving(kind: Moving, **more: Any) -> ClimbPlan:
    return ladder(EvenSteps(F(4)), moving=kind, **more)


@pytest.mark.parametrize(
    ("kind", "rung", "marks", "came_from", "to"),
    [
        ("stay_until_clean", 3, ["clean", "clean"], 2, 4),
        ("stay_until_clean", 3, ["shaky"] * 3, 2, 2),
        ("up_two_back_one", 3, ["clean", "clean"], 4, 5),
        ("up_two_back_one", 3, ["clean", "clean"], None, 5),
        ("up_two_back_one", 5, ["clean", "clean"], 3, 4),
        ("up_two_back_one", 5, ["shaky"] * 3, 3, 4),
        ("up_two_back_one", 9, ["clean", "clean"], 8, 10),
        ("staircase", 5, ["clean", "clean"], 4, 6),
        ("staircase", 5, ["clean", "shaky", "shaky", "shaky"], 4, 3),
        ("staircase", 2, ["shaky"] * 3, 1, 1),
        ("staircase", 5, ["clean", "shaky"], 4, 5),
    ],
)
def test_each_moving_rule_goes_by_its_own_paces(
    kind: Moving, rung: int, marks: list[Mark], came_from: int | None, to: int
) -> None:
    plan = moving(kind)
    word = decide(plan, laid_rungs(plan), rung, marks, came_from=came_from)
    assert word.rung == to
    assert word.decision == ("up" if to > rung else "back" if to < rung else "stay")


def test_two_up_one_back_gets_there() -> None:
    plan = moving("up_two_back_one")
    passed = laid_rungs(plan)
    rung, came_from, way = 1, None, [1]
    while True:
        word = decide(plan, passed, rung, ["clean", "clean"], came_from=came_from)
        if word.heading == "The target stands":
            break
        rung, came_from = word.rung, rung
        way.append(rung)
    assert way == [1, 3, 2, 4, 3, 5, 4, 6, 5, 7, 6, 8, 7, 9, 8, 10]


@pytest.mark.parametrize(
    ("marks", "seconds", "to"),
    [
        (["clean"] * 9, 299.0, 4),
        (["clean", "clean", "shaky"], 300.0, 5),
        (["clean", "shaky", "shaky"], 300.0, 3),
        (["clean", "shaky"], 900.0, 4),
        ([], 900.0, 4),
    ],
)
def test_the_clock_ends_a_rung(marks: list[Mark], seconds: float, to: int) -> None:
    plan = moving("time_box", box_minutes=5)
    assert decide(plan, laid_rungs(plan), 4, marks, seconds=seconds).rung == to


@pytest.mark.parametrize("kind", ["stay_until_clean", "up_two_back_one", "time_box", "staircase"])
def test_every_moving_rule_says_its_step_back(kind: Moving) -> None:
    assert "back" in moving(kind).moving_words


def test_the_word_says_what_is_played_where_the_tempo_stays() -> None:
    plan = ladder(DivideThenRaise())
    assert decide(plan, laid_rungs(plan), 1, ["clean", "clean"]).heading == "On to 3 a beat"
    heart = ClimbPlan(start=F(60), target=HeartTarget())
    assert decide(heart, laid_rungs(heart), 2, ["shaky"] * 3).heading == "Back to from the page"


def test_a_take_belongs_to_the_rung_of_its_part() -> None:
    passed = laid_rungs(ladder(DivideThenRaise()))
    assert rung_of(passed, F(84), NamedClick(), None, Part(only=F(3))) == 2
    assert rung_of(passed, F(84), NamedClick(), 2, None) is None
    zigzag = laid_rungs(ladder(ZigZag()))
    assert [rung_of(zigzag, F(92), NamedClick(), wanted) for wanted in (None, 2, 5)] == [2, 2, 5]


def test_a_click_ladder_over_a_zigzag_leaves_each_rung_where_it_was() -> None:
    plan = ladder(ZigZag())
    clicks = CLICK_LADDERS["thin_out"].plans[:2]
    _, places = with_clicks(plan, clicks, "each_tempo")
    assert [places[number] for number in (1, 2, 3, 5)] == [1, 3, 5, 9]


def test_presets_are_plans_with_a_step_back() -> None:
    for preset in PRESETS.values():
        plan = ClimbPlan(
            start=F(60),
            rule=preset.rule,
            moving=preset.moving,
            clean_to_rise=preset.clean_to_rise,
            shaky_to_fall=preset.shaky_to_fall,
            evenness=preset.evenness,
        )
        assert decide(plan, laid_rungs(plan), 3, ["shaky"] * preset.shaky_to_fall, came_from=2).decision == "back"


def test_the_map_has_every_division_and_the_way_of_the_climb() -> None:
    plan = ClimbPlan(start=F(60), target=BandTarget(F(8), F(9), F(4)), rule=DivideThenRaise(step=F(6)))
    found = speed_map(plan, F(6), 3, {(F(60), F(4)): "clean", (F(200), F(4)): "shaky"}, [F(7)])
    assert [row[0].division for row in found.rows] == [7, 6, 5, 4, 3, 2]
    assert {place.nps == place.bpm * place.division / 60 for row in found.rows for place in row} == {True}
    inside = {(place.bpm, place.division) for row in found.rows for place in row if place.inside}
    assert (F(120), F(4)) in inside
    assert all(8 <= bpm * division / 60 <= 9 for bpm, division in inside)
    by = {(place.bpm, place.division): place for row in found.rows for place in row}
    assert (by[F(60), F(4)].rung, by[F(60), F(4)].played) == (3, "clean")
    assert by[F(60), F(7)].rung is None
    assert found.twins.startswith("4 n/s stand in 60 × 4, 120 × 2, 80 × 3")
    assert max(found.tempi) > 120


def test_a_map_of_many_rungs_keeps_its_ends() -> None:
    found = speed_map(ladder(PerCent(F(1))), F(4), 1, {})
    assert len(found.tempi) <= 12
    assert (found.tempi[0], F(120) in found.tempi) == (84, True)
