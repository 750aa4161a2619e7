"""Matching, measuring and judging, with stand-in players whose truth is known."""

from fractions import Fraction as F

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.climbs import BpmTarget, ClimbPlan, EvenSteps, decide, laid_rungs
from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.playing import expected_onsets
from ripresa.core.reading import read
from ripresa.core.takes import (
    Figures,
    Mark,
    StandIn,
    by_ear,
    match_onsets,
    measure,
    measure_latency,
    play,
    spread_limit,
    verdict,
)
from tests.strategies import legs

READING = read(Drill(material=OneNote(beats=16), legs=legs(4)))
STEPS = read(Drill(material=OneNote(beats=8), legs=legs(2, 3, 4)))
BPM = F(96)


def due_of(turns: int = 2, reading: object = READING) -> list[tuple[float, int]]:
    assert reading in (READING, STEPS)
    chosen = READING if reading is READING else STEPS
    return expected_onsets(chosen, BPM, 0.0, turns * float(chosen.loop_beats * 60 / BPM))


def take(player: StandIn, turns: int = 2, latency: float = 0.0) -> Figures:
    due = due_of(turns)
    times = [at for at, _ in due]
    played = play(player, times)
    return measure(READING, BPM, due, played, match_onsets(times, played, latency), latency)


def test_a_perfect_player_is_matched_note_for_note() -> None:
    figures = take(StandIn(spread_ms=0))
    assert (figures.matched, figures.missed, figures.extra) == (figures.due, 0, 0)
    assert figures.spread is not None
    assert figures.spread.value == pytest.approx(0, abs=1e-9)


@settings(max_examples=15)
@given(st.integers(0, 2**20), st.floats(-0.05, 0.05))
def test_a_constant_delay_is_bias_and_nothing_else(seed: int, delay: float) -> None:
    due = [at for at, _ in due_of()]
    played = [at + delay for at in play(StandIn(spread_ms=4, seed=seed), due)]
    figures = measure(READING, BPM, due_of(), played, match_onsets(due, played))
    assert figures.matched == len(due)
    assert figures.bias is not None
    assert figures.bias.value == pytest.approx(delay, abs=0.003)


@pytest.mark.parametrize("seed", range(6))
def test_bias_spread_and_drift_come_back_as_they_were_put_in(seed: int) -> None:
    figures = take(StandIn(spread_ms=10, bias_ms=-12, drift_percent=0.5, seed=seed), turns=6)
    assert figures.spread is not None
    assert figures.drift_percent is not None
    assert figures.spread.value == pytest.approx(0.010, abs=0.0015)
    assert figures.drift_percent.value == pytest.approx(0.5, abs=0.05)


@pytest.mark.parametrize("seed", range(6))
def test_misses_and_extras_are_told_apart(seed: int) -> None:
    due = [at for at, _ in due_of(6)]
    left_out = {10, 11, 57, 200}
    played = sorted([at for index, at in enumerate(due) if index not in left_out] + [due[30] + 0.05])
    noise = np.random.default_rng(seed).normal(0, 0.006, len(played))
    found = match_onsets(due, sorted(float(at) for at in np.array(played) + noise))
    assert set(found.missed) == left_out
    assert len(found.extra) == 1


def test_matching_goes_in_order_and_uses_nothing_twice() -> None:
    due = [at for at, _ in due_of(4)]
    found = match_onsets(due, play(StandIn(spread_ms=30, miss_percent=10, extra_percent=10, seed=3), due))
    assert [pair[0] for pair in found.pairs] == sorted({pair[0] for pair in found.pairs})
    assert [pair[1] for pair in found.pairs] == sorted({pair[1] for pair in found.pairs})
    assert len(found.pairs) + len(found.missed) == len(due)


def test_nothing_played_is_all_missed() -> None:
    assert match_onsets([0.0, 1.0], []).missed == (0, 1)
    assert match_onsets([], [0.3]).extra == (0,)


def test_a_late_slot_is_found_where_it_is() -> None:
    due = due_of(8)
    played = [at + (0.012 if READING.events[index].slot == 3 else 0.0) for at, index in due]
    noise = np.random.default_rng(5).normal(0, 0.005, len(played))
    shaken = sorted(float(at) for at in np.array(played) + noise)
    figures = measure(READING, BPM, due, shaken, match_onsets([at for at, _ in due], shaken))
    last = figures.legs[0].slots[3]
    assert last.count == "a"
    assert last.bias is not None
    assert last.bias.value == pytest.approx(0.012, abs=0.003)
    assert last.share is not None
    shares = [slot.share for slot in figures.legs[0].slots if slot.share]
    assert sum(shares) == pytest.approx(1, abs=0.01)
    assert last.share < 0.25 < figures.legs[0].slots[2].share if figures.legs[0].slots[2].share else False


def test_a_stumble_shows_at_its_gear_change() -> None:
    due = due_of(4, STEPS)
    times = [at for at, _ in due]
    turn = float(STEPS.loop_beats * 60 / BPM)
    changes = [number * turn + float(leg.start * 60 / BPM) for number in range(4) for leg in STEPS.legs[1:]]
    played = play(StandIn(spread_ms=5, stumble_ms=80), times, changes)
    figures = measure(STEPS, BPM, due, played, match_onsets(times, played))
    assert [(seam.before, seam.after, seam.changes) for seam in figures.seams] == [(2, 3, 4), (3, 4, 4)]
    assert all(seam.offset.value > 0.02 for seam in figures.seams)


@pytest.mark.parametrize(
    ("evenness", "gap", "limit"),
    [("working", 0.15625, 0.015625), ("working", 0.05, 0.010), ("easy", 0.2, 0.03), ("strict", 0.05, 0.008)],
)
def test_the_limit_is_a_share_of_the_gap_with_a_floor(evenness: str, gap: float, limit: float) -> None:
    assert spread_limit(evenness, gap) == pytest.approx(limit)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("player", "mark"),
    [
        pytest.param(StandIn(spread_ms=8), "clean", id="steady"),
        pytest.param(StandIn(spread_ms=28), "shaky", id="uneven"),
        pytest.param(StandIn(spread_ms=8, miss_percent=15), "shaky", id="holes"),
        pytest.param(StandIn(spread_ms=8, bias_ms=40), "clean", id="late all through is even all the same"),
    ],
)
def test_clean_and_shaky(player: StandIn, mark: Mark) -> None:
    found = verdict(take(player), "working", "taps")
    assert found.mark == mark
    assert found.reasons[0].startswith("Spread ")


def test_too_few_notes_are_not_judged() -> None:
    due = due_of()[:10]
    times = [at for at, _ in due]
    found = verdict(measure(READING, BPM, due, times, match_onsets(times, times)), "working", "taps")
    assert (found.mark, found.reasons) == ("unclear", ("10 notes matched, too few to judge: 16 are needed.",))


def test_what_fits_badly_gets_no_verdict_and_a_reason() -> None:
    due = due_of()
    times = [at for at, _ in due]
    other = times[::3]
    found = verdict(measure(READING, BPM, due, other, match_onsets(times, other)), "working", "taps")
    assert found.mark == "unclear"
    assert "No verdict" in found.reasons[0]


def test_silence_says_how_to_be_heard() -> None:
    due = due_of()
    silent = measure(READING, BPM, due, [], match_onsets([at for at, _ in due], []))
    assert "Tap J or F" in verdict(silent, "working", "taps").reasons[0]


def test_an_ear_is_believed() -> None:
    assert by_ear("clean", "teacher").mark == "clean"


PLAN = ClimbPlan(start=F(84), target=BpmTarget(F(100)), rule=EvenSteps(F(4)), clean_to_rise=2, shaky_to_fall=3)


@pytest.mark.parametrize(
    ("rung", "marks", "heading", "sentence"),
    [
        pytest.param(1, "", "Stay here", "2 clean in a row at 84 go up.", id="the rule is said before the try"),
        pytest.param(1, "c", "Stay here", "One clean take, 1 more to go up.", id="one clean"),
        pytest.param(1, "cc", "Up to 88", "Two clean takes in a row at 84.", id="two clean"),
        pytest.param(2, "csc", "Stay here", "One clean take, 1 more to go up.", id="a shaky one breaks the row"),
        pytest.param(2, "cuc", "Up to 92", "Two clean takes in a row at 88.", id="an unclear one does not"),
        pytest.param(2, "ss", "Stay here", "Two shaky takes at 88; 2 clean in a row go up.", id="two shaky"),
        pytest.param(2, "sss", "Back to 84", "Three shaky takes in a row at 88.", id="three shaky"),
        pytest.param(1, "sss", "Stay here", "A lower start may help", id="nothing below the first rung"),
        pytest.param(5, "cc", "The target stands", "at 100, the target", id="nothing above the last"),
    ],
)
def test_up_stay_or_back(rung: int, marks: str, heading: str, sentence: str) -> None:
    names: dict[str, Mark] = {"c": "clean", "s": "shaky", "u": "unclear"}
    word = decide(PLAN, laid_rungs(PLAN), rung, [names[mark] for mark in marks])
    assert word.heading == heading
    assert sentence in word.sentence


def test_latency_is_measured_from_taps_along_a_click() -> None:
    due = [float(at) for at in range(16)]
    taps = [at + 0.031 + 0.004 * (-1) ** index for index, at in enumerate(due)]
    found = measure_latency(due, taps)
    assert found.value == pytest.approx(0.031, abs=0.005)
    assert found.count == 14


@pytest.mark.parametrize(
    "taps", [[1.0, 2.0], [at + (index % 5) * 0.07 for index, at in enumerate(range(16))]], ids=["few", "wild"]
)
def test_taps_that_say_nothing_are_refused(taps: list[float]) -> None:
    with pytest.raises(OutOfRange):
        measure_latency([float(at) for at in range(16)], taps)


def test_the_same_seed_plays_the_same_take() -> None:
    due = [0.25 * number for number in range(40)]
    assert play(StandIn(seed=4), due) == play(StandIn(seed=4), due)
    assert play(StandIn(seed=4), due) != play(StandIn(seed=5), due)


def test_a_stand_in_has_limits() -> None:
    with pytest.raises(OutOfRange, match="Take 0 to 200 ms") as refused:
        StandIn(spread_ms=500)
    assert refused.value.field == "player.spread_ms"
