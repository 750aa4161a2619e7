"""Pressing places on the rail changes the typed count, and nothing else."""

from fractions import Fraction as F

import pytest

from ripresa.core.drill import Drill
from ripresa.core.errors import OutOfRange
from ripresa.core.hands import ByPlace
from ripresa.core.material import Count, OneNote, Strum
from ripresa.core.pressing import gridded, pressed
from ripresa.core.reading import read
from tests.strategies import legs


def counted(text: str, **parts: object) -> Drill:
    return Drill(material=Count(text, **parts), legs=legs(1, 1), hands=ByPlace())  # type: ignore[arg-type]


def text_of(drill: Drill) -> str:
    return drill.material.pattern if isinstance(drill.material, Strum) else drill.material.text  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("text", "event", "expected"),
    [
        pytest.param("1 & 2 & 3 & 4 &", 3, "1 & 2 (&) 3 & 4 &", id="a note falls silent"),
        pytest.param("1 & 2 (&) 3 & 4 &", 3, "1 & 2 & 3 & 4 &", id="a silence sounds"),
        pytest.param("1 & 2 3 4", 3, "1 & 2 & 3 4", id="what was held is struck"),
        pytest.param("1 & 2 & 3 & 4 &", 8 + 3, "1 & 2 (&) 3 & 4 &", id="in the second time it is the same place"),
        pytest.param(">1 & ~2 & 3 4", 1, ">1 (&) ~2 & 3 4", id="accents that are typed stay"),
        pytest.param("1 & 2 & | 1 2", 8, "1 & 2 & | (1) 2", id="in the second bar"),
    ],
)
def test_a_place_is_pressed(text: str, event: int, expected: str) -> None:
    assert text_of(pressed(counted(text), event)) == expected


def test_accents_of_the_drill_are_not_written_into_the_count() -> None:
    assert ">" not in text_of(pressed(counted("1 & 2 & 3 4"), 1))


def test_a_moved_rhythm_is_written_where_it_stands() -> None:
    changed = pressed(counted("1 & 2 & 3 & 4", shift=1), 2)
    assert changed.material == Count("(1) & (2) & 3 & 4 &")


def test_in_another_bar_of_the_progression_it_is_the_same_place_of_the_pattern() -> None:
    drill = Drill(material=Strum(chords="C | G", pattern="1 & 2 & 3 & 4 &"), legs=legs(1))
    assert text_of(pressed(drill, 8)) == "(1) & 2 & 3 & 4 &"


def test_a_finer_grid_opens_places_between() -> None:
    drill = gridded(counted("1 2 3 4"), 4)
    assert len(read(drill).events) == 2 * 16
    assert text_of(pressed(drill, 3)) == "1 a 2 3 4"
    assert {event.division for event in read(gridded(counted("1 2 3 4"), 3)).events} == {F(3)}


def test_one_note_has_to_stay() -> None:
    with pytest.raises(OutOfRange, match="One note has to stay"):
        pressed(counted("1 (2)"), 0)


def test_other_material_is_not_pressed() -> None:
    with pytest.raises(OutOfRange, match="typed as a count"):
        pressed(Drill(material=OneNote()), 0)
    with pytest.raises(OutOfRange, match="no such place"):
        pressed(counted("1 2"), 99)
