"""Swing moves the ideal places, and nothing else."""

from dataclasses import replace
from typing import Literal

import pytest
from hypothesis import given

from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import parse_exact
from ripresa.core.reading import read
from ripresa.core.reports import sums
from ripresa.core.rhythm import Swing
from tests.strategies import drills, legs


def onsets(swing: Swing, division: int) -> list[F]:
    return [event.onset for event in read(Drill(material=OneNote(beats=1), legs=legs(division), swing=swing)).notes]


@pytest.mark.parametrize(
    ("ratio", "on", "division", "places"),
    [
        ("2", 2, 2, ["0", "2/3"]),
        ("3", 2, 2, ["0", "3/4"]),
        ("3/2", 2, 2, ["0", "3/5"]),
        ("2", 2, 4, ["0", "1/3", "2/3", "5/6"]),
        ("2", 4, 4, ["0", "1/3", "1/2", "5/6"]),
        ("2", 4, 2, ["0", "1/2"]),
        ("2", 2, 3, ["0", "1/3", "2/3"]),
    ],
)
def test_places_move_by_the_ratio(ratio: str, on: Literal[2, 4], division: int, places: list[str]) -> None:
    assert onsets(Swing(parse_exact(ratio), on), division) == [parse_exact(place) for place in places]


def test_the_sums_give_both_gaps() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(2, 3), swing=Swing(F(2))))
    assert [row.gaps for row in sums(reading, F(60)).legs] == [(F(2, 3), F(1, 3)), (F(1, 3),)]


@pytest.mark.parametrize("ratio", ["1/2", "9/2", "0"])
def test_a_ratio_has_bounds(ratio: str) -> None:
    with pytest.raises(OutOfRange, match="cannot be played") as caught:
        Swing(parse_exact(ratio))
    assert caught.value.field == "swing.ratio"


@given(drills)
def test_swing_moves_no_beat_and_changes_no_note(drill: Drill) -> None:
    swung, straight = read(drill), read(replace(drill, swing=Swing()))
    assert swung.beats == straight.beats
    assert [event.onset for event in swung.events if event.slot == 0] == [
        event.onset for event in straight.events if event.slot == 0
    ]
    assert [event.pitch for event in swung.notes] == [event.pitch for event in straight.notes]
