from collections.abc import Callable
from dataclasses import replace

import pytest

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.click import (
    CLICK_PLANS,
    Click,
    ClickCycle,
    DropOut,
    NamedClick,
    Thinned,
    TypedClick,
    click_words,
)
from ripresa.core.drill.click.made import OfTheSlots
from ripresa.core.drill.material import Count
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import decimal, fraction_of
from ripresa.core.playing import perform
from ripresa.core.reading import read
from ripresa.core.reports import click_report, dial, drift_heard
from ripresa.core.rhythm import METERS, Meter

FOUR = METERS["4/4"]


def cycle_of(click: Click, meter: Meter = FOUR) -> ClickCycle:
    return click.cycle(meter, (), meter.cycle_beats)


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
    found = dial(cycle_of(NamedClick(plan=plan)), FOUR, F(108))
    assert found.clicks_a_minute == fraction_of(clicks)
    assert found.gap_seconds is not None
    assert decimal(found.gap_seconds, 2) == gap


def test_one_per_cent_over_four_bars_is_heard_as_89_ms() -> None:
    assert decimal(drift_heard(F(80, 9), F(1, 100)) * 1000, 0) == "89"


def test_two_and_four_at_96_is_set_to_48_and_begins_on_beat_two() -> None:
    assert dial(cycle_of(NamedClick(plan="two_and_four")), FOUR, F(96)).sentence == (
        "Set it to 48. Its first click is beat 2."
    )


def test_what_most_metronomes_cannot_is_said() -> None:
    found = dial(cycle_of(NamedClick(plan="every_4_bars")), FOUR, F(108))
    assert found.is_below_lowest
    assert "below most metronomes’ lowest" in found.sentence


def test_uneven_clicks_have_no_single_setting() -> None:
    uneven = ClickCycle(F(4), ((F(1), "plain"), (F(2), "plain")))
    found = dial(uneven, FOUR, F(90))
    assert found.clicks_a_minute is None
    assert "No single setting" in found.sentence


def test_no_click_leaves_the_metronome_off() -> None:
    assert "leave the metronome off" in dial(cycle_of(NamedClick(plan="none")), FOUR, F(90)).sentence


@pytest.mark.parametrize("meter", METERS)
@pytest.mark.parametrize("plan", CLICK_PLANS)
def test_every_plan_fits_every_meter(plan: str, meter: str) -> None:
    cycle = CLICK_PLANS[plan].cycle(METERS[meter])
    assert cycle.length % METERS[meter].cycle_beats == 0
    positions = [position for position, _ in cycle.clicks]
    assert positions == sorted(set(positions))
    assert all(0 <= position < cycle.length for position in positions)


def test_a_cycle_goes_round_as_long_as_asked() -> None:
    cycle = CLICK_PLANS["two_and_four"].cycle(FOUR)
    assert [onset for onset, _ in cycle.within(F(10))] == [1, 3, 5, 7, 9]


def positions(click: Click, meter: str = "4/4") -> tuple[str, F]:
    cycle = cycle_of(click, METERS[meter])
    return " ".join(str(at) for at, _ in cycle.clicks), cycle.length


@pytest.mark.parametrize(
    ("click", "meter", "expected", "length"),
    [
        pytest.param(Thinned(F(2)), "4/4", "0 2", 4, id="every 2 beats"),
        pytest.param(Thinned(F(16)), "4/4", "0", 16, id="every 16 beats"),
        pytest.param(Thinned(F(8)), "3/4", "0 8 16", 24, id="every 8 beats over bars of three"),
        pytest.param(Thinned(F(1), F(1, 4)), "4/4", "1/4 5/4 9/4 13/4", 4, id="displaced to the e"),
        pytest.param(Thinned(F(1), F(2, 3)), "2/4", "2/3 5/3", 2, id="displaced to the last of a triplet"),
        pytest.param(DropOut(1, 1), "2/4", "0 1", 4, id="a bar on, a bar off"),
        pytest.param(DropOut(1, 1, 1), "2/4", "0 1 4 5 10 11 18 19", 28, id="a silence that grows"),
        pytest.param(TypedClick("2 & 4"), "4/4", "1 3/2 3", 4, id="typed"),
        pytest.param(TypedClick("(1) a | 3"), "4/4", "3/4 6", 8, id="typed over two bars"),
        pytest.param(NamedClick(plan="one_and_three"), "4/4", "0 2", 4, id="1 and 3"),
        pytest.param(NamedClick(plan="through"), "7/8 (2+2+3)", "0 1 2 3 4 5 6", 7, id="straight through 7/8"),
        pytest.param(NamedClick(plan="smallest"), "7/8 (2+2+3)", "0 1/2 1 3/2 2 5/2 3", F(7, 2), id="its eighths"),
        pytest.param(NamedClick(plan="every_beat"), "7/8 (2+2+3)", "0 1 2", F(7, 2), id="its groups"),
    ],
)
def test_where_a_plan_clicks(click: Click, meter: str, expected: str, length: F) -> None:
    assert positions(click, meter) == (expected, length)


@pytest.mark.parametrize(("every", "clicks", "gap"), [(8, "13.5", "4.44"), (16, "6.75", "8.89")])
def test_one_click_in_many_beats_at_108(every: int, clicks: str, gap: str) -> None:
    found = dial(cycle_of(Thinned(F(every))), FOUR, F(108))
    assert found.clicks_a_minute == fraction_of(clicks)
    assert found.gap_seconds is not None
    assert decimal(found.gap_seconds, 2) == gap


def test_a_displaced_click_says_what_its_first_click_is() -> None:
    assert dial(cycle_of(Thinned(F(1), F(1, 2))), FOUR, F(90)).first_click == "the & of beat 1"
    assert dial(cycle_of(Thinned(F(1), F(1, 4))), FOUR, F(90)).first_click == "the e of beat 1"


def test_the_click_and_the_student_together_make_the_whole() -> None:
    drill = Drill(material=Count("1 & (2) & 3 (&) 4 &"), legs=(Leg(F(1)),), click=OfTheSlots("left_out"))
    reading = read(drill)
    assert [at for at, _ in reading.click_cycle.clicks] == [1, F(5, 2)]
    every = read(replace(drill, click=OfTheSlots("all"))).click_cycle
    played = {event.onset for event in reading.notes}
    assert {at for at, _ in every.clicks} == played | {F(1), F(5, 2)}


def test_a_click_longer_than_the_drill_is_not_begun_anew_with_each_turn() -> None:
    drill = Drill(material=Count("1 2 3 4"), legs=(Leg(F(1)),), click=Thinned(F(16)))
    found = perform(read(drill), F(60))
    assert (found.loop_seconds, found.click_seconds, len(found.ticks)) == (4, 16, 1)


@pytest.mark.parametrize(
    ("make", "field"),
    [
        (lambda: Thinned(F(0)), "click.every"),
        (lambda: Thinned(F(2), F(2)), "click.by"),
        (lambda: DropOut(on=0), "click.on"),
        (lambda: DropOut(off=17), "click.off"),
        (lambda: DropOut(grows=5), "click.grows"),
        (lambda: TypedClick("2 q"), "click.text"),
        (lambda: cycle_of(TypedClick("5")), "click.text"),
        (lambda: cycle_of(Thinned(F(123456789, 98765432))), "click.every"),
    ],
)
def test_clicks_that_cannot_be_are_refused(make: Callable[[], object], field: str) -> None:
    with pytest.raises(RipresaError) as refused:
        make()
    assert refused.value.field == field


def test_takes_of_old_keep_the_words_of_their_click() -> None:
    assert (click_words("two_and_four"), click_words("2 bars on, 2 off")) == ("2 and 4", "2 bars on, 2 off")


@pytest.mark.parametrize(
    ("click", "meter", "sentences"),
    [
        pytest.param(
            NamedClick(plan="every_4_bars"),
            "4/4",
            [
                "108 bpm are played, 6.75 clicks a minute are heard: 8.89 s from one to the next.",
                "Playing 1 % too fast or too slow is 89 ms at the next click.",
                "6.75 clicks a minute, below most metronomes’ lowest. The first is beat 1.",
            ],
            id="once in four bars",
        ),
        pytest.param(
            TypedClick(text="2 & 4"),
            "4/4",
            [
                "108 bpm are played, 81 clicks a minute are heard: 3 clicks in 4 beats, not evenly.",
                "Playing 1 % too fast or too slow is 11 ms at the end of the longest silence.",
                "No single setting: the clicks are uneven. The first is beat 2.",
                "1 of its 3 clicks in 1 bar fall off the beat: the & of beat 2.",
            ],
            id="2 & 4",
        ),
        pytest.param(
            TypedClick(text="a of 1, 3"),
            "4/4",
            [
                "108 bpm are played, 54 clicks a minute are heard: 1.11 s from one to the next.",
                "Playing 1 % too fast or too slow is 11 ms at the next click.",
                "Set it to 54. Its first click is the a of beat 1.",
                "It is never on the beat: the beats are the student’s own.",
            ],
            id="a of 1, 3",
        ),
        pytest.param(NamedClick(plan="none"), "4/4", ["No click: leave the metronome off."], id="none"),
    ],
)
def test_a_click_is_told_in_figures(click: Click, meter: str, sentences: list[str]) -> None:
    assert list(click_report(cycle_of(click, METERS[meter]), METERS[meter], F(108))) == sentences


def test_a_click_that_runs_through_an_uneven_bar_says_where_it_falls_off_the_beat() -> None:
    meter = METERS["5/8 (3+2)"]
    found = list(click_report(CLICK_PLANS["through"].cycle(meter), meter, F(120)))
    assert "fall off the beat" in found[-1]
