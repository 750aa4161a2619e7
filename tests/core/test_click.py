from fractions import Fraction as F

import pytest

from ripresa.core.click import CLICK_PLANS, ClickCycle, NamedClick, cycle_of, dial
from ripresa.core.click.dial import drift_heard
from ripresa.core.exact import decimal
from ripresa.core.meter import METERS

FOUR = METERS["4/4"]


@pytest.mark.parametrize(
    ("plan", "clicks", "gap"),
    [
        ("every_beat", "108", "0.56"),
        ("two_and_four", "54", "1.11"),
        ("every_bar", "27", "2.22"),
        ("every_2_bars", "13.5", "4.44"),
        ("every_4_bars", "6.75", "8.89"),
    ],
)
def test_clicks_a_minute_at_108(plan: str, clicks: str, gap: str) -> None:
    found = dial(cycle_of(NamedClick(plan=plan), FOUR), FOUR, F(108))
    assert found.clicks_a_minute == F(clicks)
    assert found.gap_seconds is not None
    assert decimal(found.gap_seconds, 2) == gap


def test_one_per_cent_over_four_bars_is_heard_as_89_ms() -> None:
    assert decimal(drift_heard(F(80, 9), F(1, 100)) * 1000, 0) == "89"


def test_two_and_four_at_96_is_set_to_48_and_begins_on_beat_two() -> None:
    assert dial(cycle_of(NamedClick(plan="two_and_four"), FOUR), FOUR, F(96)).sentence == (
        "Set it to 48. Its first click is beat 2."
    )


def test_what_most_metronomes_cannot_is_said() -> None:
    found = dial(cycle_of(NamedClick(plan="every_4_bars"), FOUR), FOUR, F(108))
    assert found.is_below_lowest
    assert "below most metronomes’ lowest" in found.sentence


def test_uneven_clicks_have_no_single_setting() -> None:
    uneven = ClickCycle(F(4), ((F(1), "plain"), (F(2), "plain")))
    found = dial(uneven, FOUR, F(90))
    assert found.clicks_a_minute is None
    assert "No single setting" in found.sentence


def test_no_click_leaves_the_metronome_off() -> None:
    assert "leave the metronome off" in dial(cycle_of(NamedClick(plan="none"), FOUR), FOUR, F(90)).sentence


@pytest.mark.parametrize("meter", METERS)
@pytest.mark.parametrize("plan", CLICK_PLANS)
def test_every_plan_fits_every_meter(plan: str, meter: str) -> None:
    cycle = CLICK_PLANS[plan].cycle(METERS[meter])
    assert cycle.length % METERS[meter].bar_length == 0
    positions = [position for position, _ in cycle.clicks]
    assert positions == sorted(set(positions))
    assert all(0 <= position < cycle.length for position in positions)


def test_a_cycle_goes_round_as_long_as_asked() -> None:
    cycle = CLICK_PLANS["two_and_four"].cycle(FOUR)
    assert [onset for onset, _ in cycle.within(F(10))] == [1, 3, 5, 7, 9]
