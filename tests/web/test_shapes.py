"""Whatever a drill is made of, the bench can show it and the player can play it."""

import importlib
import pkgutil
from contextlib import suppress
from typing import Any

from hypothesis import given, settings
from pydantic import BaseModel

import ripresa.web
from ripresa.core.drill import Drill
from ripresa.core.errors import OutOfRange
from ripresa.core.playing import at_step, in_turn, perform, score, seams
from ripresa.core.reading import read
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
