"""Whatever a drill is made of, the bench can show it and the player can play it."""

import importlib
import pkgutil
from contextlib import suppress
from typing import Any

import pytest
from hypothesis import given, settings
from pydantic import BaseModel

import ripresa.web
from ripresa.core.drill import Drill
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import parse_amount
from ripresa.core.playing import at_step, in_turn, perform, score, seams
from ripresa.core.reading import read
from ripresa.core.shelf import level_of
from ripresa.core.takes import Interval
from ripresa.web.shapes.figures import habit_words
from ripresa.web.shapes.reading import reading_shape
from tests.strategies import drills


@given(drills)
@settings(max_examples=60)
def test_every_drill_is_shown_row_by_row(drill: Drill) -> None:
    reading = read(drill)
    shape = reading_shape(reading, drill.bpm)
    numbers = [row.first + place for row in shape.rows for place in range(len(row.events))]
    assert numbers == list(range(len(reading.events)))
    assert all(0 <= event.x < shape.beats_a_bar for row in shape.rows for event in row.events)
    assert all(event.words for row in shape.rows for event in row.events)
    assert all(sentence for home in shape.homes for sentence in home.sentences)


@given(drills)
@settings(max_examples=40)
def test_every_step_and_seam_of_a_drill_can_be_played(drill: Drill) -> None:
    reading = read(drill)
    for step in drill.way_in:
        # A drill may have no hits, or nothing in one half: then the step is refused.
        with suppress(OutOfRange):
            perform(read(at_step(drill, step)), drill.bpm)
    for seam in seams(reading):
        part = score(reading, drill.bpm, window=seam)
        assert all(0 <= tone.at < part.beats for tone in part.tones)
        assert in_turn(part, 1).beats == 2 * part.beats


def test_no_two_shapes_have_the_same_name() -> None:
    """The description of the API knows shapes by their names: one would silently take the place of the other."""
    import_all()
    names = [
        one.__name__ for one in every(BaseModel) if one.__module__.startswith("ripresa.") and one.__name__[0] != "_"
    ]
    assert sorted(names) == sorted(set(names))


def import_all() -> None:
    for module in pkgutil.walk_packages(ripresa.web.__path__, "ripresa.web."):
        importlib.import_module(module.name)


def every(root: type[Any]) -> set[type[Any]]:
    return {found for one in root.__subclasses__() for found in (one, *every(one))}


@pytest.mark.parametrize(
    ("value", "half", "words"),
    [
        (0.014, 0.005, "14 ms late"),
        (-0.014, 0.005, "14 ms early"),
        # What lies inside its own uncertainty, or just on its edge, is in place.
        (0.005, 0.005, "in place"),
        (-0.004, 0.005, "in place"),
        (0.0051, 0.005, "5 ms late"),
    ],
)
def test_where_the_notes_of_a_place_fall_is_said_in_words(value: float, half: float, words: str) -> None:
    assert habit_words(Interval(value, half, 12)) == words
    assert habit_words(None) == "too few"


@pytest.mark.parametrize(
    ("peak", "level"),
    [("5/2", "first year"), ("2.51", "on the way"), ("4", "on the way"), ("4.01", "further on"), ("20", "further on")],
)
def test_how_far_on_one_is_goes_by_notes_a_second(peak: str, level: str) -> None:
    assert level_of(parse_amount(peak)) == level
