"""The speed to expect: what its ranges hold on made-up learners, and when it says nothing."""

from datetime import date, timedelta
from itertools import pairwise

import numpy as np
import pytest

from ripresa.core.climbs import BpmTarget, Checkpoints, ClimbPlan, Moving, PerCent, decide, laid_rungs
from ripresa.core.exact import Fraction as F
from ripresa.core.plans import CleanTake, Climbers, LoggedTake, forecast, silent_about, what_if
from ripresa.core.takes import Mark
from tests.learners import Log, logs

TODAY = date(2026, 9, 1)


def clean_takes(log: Log, past: int) -> list[CleanTake]:
    return [CleanTake(TODAY - timedelta(days=past - 1 - day), nps) for day, nps, clean in log if clean and day < past]


def coverage(name: str, count: int, seed: int) -> float:
    """Return the share of weeks to come whose fastest clean take lay in its range."""
    held = []
    for _, past, log in logs(name, count, seed):
        for week in forecast(clean_takes(log, past), TODAY).weeks:
            last = past + 7 * week.week
            came = [nps for day, nps, clean in log if clean and last - 7 <= day < last]
            if came:
                held.append(week.low <= max(came) <= week.high)
    return float(np.mean(held))


@pytest.mark.parametrize("name", ["late starter", "wanderer", "stepwise"])
def test_four_of_five_weeks_lie_in_their_range(name: str) -> None:
    assert 0.77 <= coverage(name, 150, seed=7) <= 0.88


@pytest.mark.parametrize("name", ["pausing", "plateau"])
def test_after_pauses_and_on_plateaus_ranges_hold_as_often(name: str) -> None:
    assert 0.77 <= coverage(name, 150, seed=11) <= 0.90


@pytest.mark.parametrize("name", ["weekly", "warming up"])
def test_who_grows_evenly_has_ranges_that_are_too_wide_rather_than_too_narrow(name: str) -> None:
    assert 0.77 <= coverage(name, 60, seed=7) <= 0.97


def test_warm_ups_beside_tries_make_no_range_wider() -> None:
    tries = steady(16, growth=1.004)
    with_warm_ups = [*tries, *(CleanTake(one.day, 0.7 * one.nps) for one in tries)]
    assert forecast(with_warm_ups, TODAY).weeks == forecast(tries, TODAY).weeks
    # On these days nothing but the warm-up was clean: they say nothing of what can be played.
    alone = [
        CleanTake(one.day, 0.7 * one.nps) if number // 2 in {5, 9, 10} else one for number, one in enumerate(tries)
    ]
    ends = [forecast(takes, TODAY).weeks[-1] for takes in (tries, alone)]
    assert ends[1].high / ends[1].low == pytest.approx(ends[0].high / ends[0].low, rel=0.06)
    assert ends[1].middle == pytest.approx(ends[0].middle, rel=0.03)


def test_a_drop_that_stays_is_believed() -> None:
    before = [CleanTake(TODAY - timedelta(days=30 - number), 6.0) for number in range(24)]
    after = [CleanTake(TODAY - timedelta(days=6 - number), 5.0) for number in range(7)]
    assert forecast([*before, *after[:2]], TODAY).weeks[0].middle > 5.7
    assert forecast([*before, *after], TODAY).weeks[0].middle < 5.5


@pytest.mark.parametrize("name", ["late starter", "wanderer", "stepwise", "pausing", "plateau"])
def test_no_middle_lies_under_what_was_clean_this_week_without_a_reason(name: str) -> None:
    for _, past, log in logs(name, 25, seed=9):
        found = forecast(clean_takes(log, past), TODAY)
        lately = [nps for day, nps, clean in log if clean and past - 7 <= day < past]
        if found.weeks and lately and found.weeks[0].middle < max(lately):
            assert found.reason
            assert found.sentence.endswith(found.reason)


def test_what_a_pause_takes_away_is_no_trend() -> None:
    before = [CleanTake(TODAY - timedelta(days=60 - 2 * number), 6.0) for number in range(15)]
    after = [CleanTake(TODAY - timedelta(days=2 - number), 5.4) for number in range(3)]
    found = forecast([*before, *after, *before], TODAY)
    # Ten per cent under what it was, and most of it is back in two weeks.
    assert found.weeks[0].low < 5.7 < found.weeks[0].middle < 6.2
    assert found.weeks[-1].middle > 5.75
    assert found.reason == ""
    paused = forecast(before * 2, TODAY)
    assert paused.reason == "After 32 days without a clean take it begins lower, and most of it comes back soon."
    assert paused.weeks[0].low < 5.5
    low = forecast([*before, *before, CleanTake(TODAY - timedelta(days=1), 6.6)], TODAY)
    assert low.reason in {
        "The pause of 31 days is not made good yet.",
        "6.6 n/s this week was better than the days around it.",
        "",
    }


def test_of_one_who_never_wavers_the_ranges_are_too_wide_rather_than_too_narrow() -> None:
    assert coverage("never wavering", 60, seed=7) > 0.88


def steady(days: int, a_day: int = 2, growth: float = 1.005) -> list[CleanTake]:
    return [
        CleanTake(TODAY - timedelta(days=2 * (days - 1 - number)), 5 * growth**number)
        for number in range(days)
        for _ in range(a_day)
    ]


@pytest.mark.parametrize(
    ("takes", "says"),
    [
        (steady(3, 4), "12 clean takes on 3 days"),
        (steady(4, 1), "4 clean takes on 4 days"),
        ([], "0 clean takes"),
        ([CleanTake(take.day - timedelta(days=61), take.nps) for take in steady(6)], "No clean take for 61 days"),
    ],
)
def test_below_a_minimum_it_is_silent_and_says_why(takes: list[CleanTake], says: str) -> None:
    found = forecast(takes, TODAY)
    assert found.weeks == ()
    assert says in (found.silent or "")
    assert found.sentence == found.silent


def test_eight_on_four_days_speak() -> None:
    found = forecast(steady(4), TODAY)
    assert found.silent is None
    assert [week.week for week in found.weeks] == [2, 3, 4, 5, 6]


def test_the_range_widens_and_the_same_log_says_the_same() -> None:
    takes = steady(12)
    found = forecast(takes, TODAY)
    widths = [week.high / week.low for week in found.weeks]
    assert all(before < after for before, after in pairwise(widths))
    assert all(week.low < week.middle < week.high for week in found.weeks)
    assert forecast(takes, TODAY) == found
    later = [*takes, CleanTake(TODAY + timedelta(days=1), 50.0)]
    assert forecast(later, TODAY) == found


def test_ten_times_the_speed_is_ten_times_the_forecast() -> None:
    slow, fast = forecast(steady(8), TODAY), forecast([CleanTake(t.day, t.nps * 10) for t in steady(8)], TODAY)
    assert [week.middle * 10 for week in slow.weeks] == pytest.approx([week.middle for week in fast.weeks])


def test_a_date_is_named_only_where_its_range_closes() -> None:
    takes = steady(15)
    near = forecast(takes, TODAY, target=takes[-1].nps * 1.005)
    assert near.first is not None
    assert near.last is not None
    assert TODAY < near.first <= near.last <= near.first + timedelta(days=21)
    far = forecast(takes, TODAY, target=takes[-1].nps * 1.25)
    assert (far.first, far.last) == (None, None)


def logged(log: Log) -> list[LoggedTake]:
    return [LoggedTake(TODAY + timedelta(days=day), nps, clean) for day, nps, clean in log]


def climb(rule: PerCent | Checkpoints, moving: Moving = "stay_until_clean") -> ClimbPlan:
    return ClimbPlan(start=F(84), target=BpmTarget(F(100)), rule=rule, moving=moving)


def test_a_log_replayed_says_weeks_and_shaky_takes_as_ranges() -> None:
    _, _, log = next(iter(logs("late starter", 1, seed=3)))
    takes = logged(log)
    start = max(take.nps for take in takes if take.is_clean) * 0.97
    plan = climb(PerCent())
    speeds = [float(start * step.bpm / plan.start) for step in laid_rungs(plan)]
    found = what_if(takes, plan, speeds)
    assert found == what_if(takes, plan, speeds)
    assert found.replays == 400
    assert 0 <= found.shaky[0] <= found.shaky[1] <= 1
    easy = what_if(takes, plan, [speed * 0.6 for speed in speeds])
    assert easy.weeks is not None
    assert easy.arrived == 1
    assert easy.weeks[1] is not None
    assert easy.weeks[1] < 6
    assert easy.shaky[1] < 0.2
    hard = what_if(takes, plan, [speed * 4 for speed in speeds])
    assert (hard.weeks, hard.arrived) == (None, 0)


def test_a_short_log_is_not_replayed() -> None:
    assert "can be replayed" in (silent_about([LoggedTake(TODAY, 5.0, True)] * 20) or "")


@pytest.mark.parametrize("moving", ["stay_until_clean", "up_two_back_one", "staircase"])
def test_many_climbers_at_once_move_as_the_rule_says_of_one(moving: Moving) -> None:
    plan = climb(PerCent(), moving)
    passed = laid_rungs(plan)
    rng = np.random.default_rng(5)
    many = Climbers(plan, len(passed), 40)
    rung, came_from = [1] * 40, [None] * 40
    marks: list[list[Mark]] = [[] for _ in range(40)]
    done = np.zeros(40, dtype=bool)
    for _ in range(150):
        clean = rng.random(40) < 0.6
        playing = ~done
        stood = many.take(clean, playing)
        for one in range(40):
            if not playing[one]:
                continue
            marks[one].append("clean" if clean[one] else "shaky")
            word = decide(plan, passed, rung[one], marks[one], came_from=came_from[one])
            assert bool(stood[one]) == (word.heading == "The target stands")
            if word.rung != rung[one]:
                came_from[one], rung[one], marks[one] = rung[one], word.rung, []  # type: ignore[call-overload]
        done |= stood
        assert list(many.rung[~done] + 1) == [number for number, over in zip(rung, done, strict=True) if not over]
    assert done.any()
