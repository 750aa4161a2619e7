"""The figures of a take and their uncertainty, held to sums that were done by hand.

The offsets alternate so that they lie square to a level, a slope and a bend: what is put in besides comes back exactly,
and what is left over is known.
"""

from collections.abc import Sequence
from fractions import Fraction as F
from math import sqrt
from typing import Any

import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote
from ripresa.core.reading import read
from ripresa.core.takes import Figures, Interval, Match, Verdict, measure, verdict
from ripresa.core.takes.figures import interval_of
from tests.strategies import legs

#: Square to a level and a slope, and of two neighbours alike and four: one that alternates, one that goes in pairs.
ALTERNATES = (1, -1, -1, 1)
PAIRS = (1, 1, -1, -1, -1, -1, 1, 1)
#: Square to a bend too.
BENT = (1, -1, -1, 1, -1, 1, 1, -1)
BPM = F(60)
near: Any = pytest.approx


def figures_of(offsets: Sequence[float], gap: float) -> Figures:
    """Return the figures of notes that fall so many seconds late, one every gap."""
    reading = read(Drill(material=OneNote(beats=len(offsets) // 4), legs=legs(4)))
    due = [(gap * index, index) for index in range(len(offsets))]
    played = [at + late for (at, _), late in zip(due, offsets, strict=True)]
    pairs = tuple((index, index) for index in range(len(due)))
    return measure(reading, BPM, due, played, Match(pairs, (), ()))


def of_forty(heard: int) -> Verdict:
    """Return the verdict on the first of forty notes, each on its place, and no more."""
    reading = read(Drill(material=OneNote(beats=10), legs=legs(4)))
    due = [(0.25 * index, index) for index in range(40)]
    match = Match(tuple((index, index) for index in range(heard)), tuple(range(heard, 40)), ())
    return verdict(measure(reading, BPM, due, [at for at, _ in due[:heard]], match), "working", "taps")


def test_the_uncertainty_of_bias_and_spread() -> None:
    late, by = 0.03, 0.01
    found = figures_of([late + by * sign for sign in ALTERNATES * 4], 0.25)
    left = by * sqrt(16 / 14)
    assert found.bias == Interval(near(late), near(1.96 * 1.2533 * left / 4), 16)
    assert found.spread == Interval(near(left), near(1.96 * left / sqrt(2 * 15)), 16)
    assert (found.drift_percent, found.drift_bpm_a_minute) == (None, None)


def test_notes_that_go_with_their_neighbours_count_as_fewer() -> None:
    by = 0.004
    found = figures_of([by * sign for sign in PAIRS * 8], 0.02)
    left = by * sqrt(64 / 62)
    # 3 pairs more alike than not in each eight, and one at each of the 7 seams: r = 31/64, n (1 − r) / (1 + r).
    notes = 64 * F(33, 95)
    assert found.bias
    assert found.bias.half_width == near(1.96 * 1.2533 * left / sqrt(notes))
    assert found.spread
    assert found.spread.half_width == near(1.96 * left / sqrt(2 * (notes - 1)))


def test_drift_and_its_bend_with_their_signs_and_their_uncertainty() -> None:
    gap, by, slope, bend = 0.25, 0.01, 0.002, 0.0005
    middle = gap * 31 / 2
    late = [
        by * sign + slope * (gap * index - middle) + bend * (gap * index - middle) ** 2
        for index, sign in enumerate(BENT * 4)
    ]
    found = figures_of(late, gap)
    left = by * sqrt(32 / 29)
    assert found.spread
    assert found.spread.value == near(left)
    # Ever later is slower; n (n² − 1) / 12 and n (n² − 1) (n² − 4) / 180 are the squares of a line and of its bend.
    line, curve = gap**2 * 32 * 1023 / 12, gap**4 * 32 * 1023 * 1020 / 180
    assert found.drift_percent == Interval(near(-0.2), near(196 * left / sqrt(line)), 32)
    assert found.drift_bpm_a_minute == Interval(near(-120 * 60 * bend), near(1.96 * 120 * 60 * left / sqrt(curve)), 32)


def test_a_mean_with_its_half_width() -> None:
    assert interval_of([1.0, 2.0, 3.0, 6.0]) == Interval(3.0, near(1.96 * sqrt(14 / 3) / 2), 4)
    assert interval_of([1.0]) is None


def test_a_drift_is_told_from_24_notes_in_5_seconds_on() -> None:
    assert figures_of([0.0] * 24, 0.25).drift_percent is not None
    assert figures_of([0.0] * 20, 0.5).drift_percent is None
    assert figures_of([0.0] * 24, 0.2).drift_percent is None


@pytest.mark.parametrize(("heard", "mark"), [(39, "clean"), (38, "shaky")])
def test_one_slip_in_forty_is_allowed(heard: int, mark: str) -> None:
    assert of_forty(heard).mark == mark


@pytest.mark.parametrize(("heard", "mark"), [(23, "unclear"), (24, "shaky"), (40, "clean")])
def test_a_take_is_the_drill_from_six_notes_in_ten_on(heard: int, mark: str) -> None:
    assert of_forty(heard).mark == mark


def test_the_numbers_that_decided_are_in_milliseconds() -> None:
    found = verdict(figures_of([0.028 * sign for sign in ALTERNATES * 4], 0.25), "working", "taps")
    assert found.mark == "shaky"
    assert found.reasons == ("Spread 30 ms (limit 25), 0 missed or extra of 16 (allowed 0).",)
